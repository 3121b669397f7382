import { unkeptSchema, type Unkept } from '@/core/contracts/room';
import { sql } from '../db/sql';
import { getSettings } from '../settings/settings';

const SHOWN = 12;
const HOUR = 3_600_000;

/**
 * Shots that nobody has done anything with for so many days: never kept, sent, linked or tagged, in
 * no guide, and as they were since.
 */
const unkept = (days: number) => sql()`s.binned_at is null
  and greatest(s.created_at, s.changed_at) < now() - ${days} * interval '1 day'
  and not exists (select 1 from copies c where c.shot_id = s.id)
  and not exists (select 1 from sendings x where x.shot_id = s.id)
  and not exists (select 1 from links l where l.shot_id = s.id)
  and not exists (select 1 from shot_tags t where t.shot_id = s.id)
  and s.id not in (select unnest(shows) from links)
  and s.id not in (select (item ->> 'shot')::uuid
    from guides g, jsonb_array_elements(g.guide -> 'items') item where item ? 'shot')`;

/** What the rule would put into the Bin now. */
export async function previewUnkept(days: number): Promise<Unkept> {
  const [sum] = await sql()<{ count: number; bytes: string | null }[]>`
    with gone as (select s.id, s.frame_id from shots s where ${unkept(days)})
    select (select count(*)::int from gone) as count,
      (select sum(octet_length(f.bytes) + coalesce(octet_length(f.original), 0)) from frames f
        where f.id in (select frame_id from gone) and not exists (select 1 from shots o
          where o.frame_id = f.id and o.id not in (select id from gone))) as bytes`;
  const rows = await sql()<{ takenAt: Date }[]>`
    select s.id, s.title, s.revision, s.taken_at from shots s where ${unkept(days)}
    order by s.taken_at, s.id limit ${SHOWN}`;
  return unkeptSchema.parse({
    count: sum?.count ?? 0,
    bytes: Number(sum?.bytes ?? 0),
    shots: rows.map((row) => ({ ...row, takenAt: row.takenAt.toISOString() })),
  });
}

/** Puts into the Bin what the person's rule says; by default nothing. @returns how many */
export async function binUnkept(): Promise<number> {
  const { unkeptDays } = await getSettings();
  if (unkeptDays === null) return 0;
  const done = await sql()`update shots s set binned_at = now() where ${unkept(unkeptDays)}`;
  return done.count;
}

/** From now on it is looked every hour. */
export function watchUnkept(): void {
  const look = () =>
    binUnkept().catch((error: unknown) => console.error('No shot was put into the Bin:', error));
  void look();
  setInterval(() => void look(), HOUR).unref();
}
