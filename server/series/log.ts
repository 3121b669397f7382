import { randomUUID } from 'node:crypto';
import type postgres from 'postgres';
import type { z } from 'zod';
import type { SeriesDay, SeriesEntry, seriesQuerySchema } from '@/core/contracts/series';
import type { Span, Times } from '@/core/series/times';
import { zoneOf } from '@/core/series/zone';
import { writtenDay } from '@/core/values/day';
import { sql } from '../db/sql';
import { addDue } from '../jobs/queue';

/** The kinds of job: web pages are taken one at a time, beside what is quick. */
export const QUICK = 'series';
export const PAGE = 'series-page';

/** A time that came to its turn too late. */
export const BUSY_BEFORE = 'The computer was busy with what came before.';

type Entry = Pick<SeriesEntry, 'outcome'> & {
  why?: string;
  byHand?: boolean;
};

const dayIn = (moment: number, { zone }: Times): string => writtenDay(zoneOf(zone).dayOf(moment));

/** @returns its id, or null where that time was dealt with before */
async function add(
  tx: postgres.TransactionSql,
  { id: seriesId, round }: { id: string; round: number },
  { day, from, until, count }: Span,
  { outcome, why, byHand = false }: Entry,
): Promise<string | null> {
  const id = randomUUID();
  const added = await tx`
    insert into series_times (id, series_id, shot_id, round, at, until, count, day, outcome, by_hand, why)
    values (${id}, ${seriesId}, ${randomUUID()}, ${round}, ${new Date(from)}, ${new Date(until)}, ${count}, ${day},
      ${outcome}, ${byHand}, ${why ?? null})
    on conflict do nothing`;
  return added.count > 0 ? id : null;
}

interface Of {
  id: string;
  round: number;
  times: Times;
}

/** One time, as a span of its own. */
export const oneAt = (at: number, times: Times): Span => ({
  ...{ day: dayIn(at, times), from: at, until: at, count: 1 },
});

/** A time that is taken now, with the job that takes it; a page looks for its own. @returns false where it was before */
export async function addTake(
  tx: postgres.TransactionSql,
  of: Of,
  at: number,
  { kind, byHand = false }: { kind: string | null; byHand?: boolean },
): Promise<boolean> {
  const id = await add(tx, of, oneAt(at, of.times), { outcome: 'due', byHand });
  if (id && kind) await addDue(tx, id, kind);
  return id !== null;
}

/** Times that can only be told any more. */
export async function addMissed(
  tx: postgres.TransactionSql,
  of: Of,
  span: Span,
  why: string,
): Promise<void> {
  const id = await add(tx, of, span, { outcome: 'missed', why });
  if (id) await tx`update series set missed = missed + ${span.count} where id = ${of.id}`;
}

/** Something about it that is to be known. */
export async function note(
  tx: postgres.TransactionSql,
  of: Of,
  at: number,
  why: string,
): Promise<void> {
  await add(tx, of, oneAt(at, of.times), { outcome: 'noted', why });
}

/** What became of a take; once, however often it is said. @param bytes of its shot */
export async function settleTake(
  id: string,
  outcome: 'taken' | 'unchanged' | 'missed',
  { why = null, bytes = 0 }: { why?: string | null; bytes?: number } = {},
): Promise<void> {
  const one = (is: typeof outcome) => (outcome === is ? 1 : 0);
  await sql().begin(async (tx) => {
    const [row] = await tx<{ seriesId: string }[]>`
      update series_times set outcome = ${outcome}, why = ${why}
      where id = ${id} and outcome = 'due' returning series_id`;
    if (!row) return;
    await tx`update series set taken = taken + ${one('taken')},
        unchanged = unchanged + ${one('unchanged')}, missed = missed + ${one('missed')},
        bytes = bytes + ${bytes} where id = ${row.seriesId}`;
    await tx`update series set state = 'ended', due_at = null,
        why = case when taken >= most_shots then 'It has taken its ' || most_shots || ' shots.'
          else 'It has filled its ' || most_megabytes || ' MB.' end
      where id = ${row.seriesId} and state <> 'ended'
        and (taken >= most_shots or bytes >= most_megabytes::bigint * 1000000)`;
  });
}

/** What became of its times, day by day, the first first. */
export async function seriesDays(id: string): Promise<SeriesDay[]> {
  const of = (outcome: string) =>
    sql()`coalesce(sum(count) filter (where outcome = ${outcome}), 0)::int`;
  return sql()<SeriesDay[]>`
    select day::text, ${of('taken')} as taken, ${of('unchanged')} as unchanged,
      ${of('missed')} as missed
    from series_times where series_id = ${id} group by day order by day`;
}

interface EntryRow extends Omit<SeriesEntry, 'at' | 'until'> {
  at: Date;
  until: Date;
}

/** What became of its times, the last first. @param only of these outcomes */
export async function seriesEntries(
  id: string,
  { day, limit, before }: z.output<typeof seriesQuerySchema>,
  only: readonly SeriesEntry['outcome'][],
): Promise<SeriesEntry[]> {
  const rows = await sql()<EntryRow[]>`
    select t.id, t.at, t.until, t.count, t.outcome, t.why, h.title,
      case when h.id is not null
        then jsonb_build_object('id', h.id, 'revision', h.revision) end as shot
    from series_times t
      left join shots h on h.id = t.shot_id and t.outcome = 'taken' and h.binned_at is null
    where t.series_id = ${id} and t.outcome = any(${[...only]})
      and (${day ?? null}::date is null or t.day = ${day ?? null})
      and (${before ?? null}::timestamptz is null or t.at < ${before ?? null})
    order by t.at desc, t.id limit ${limit}`;
  return rows.map(({ at, until, ...row }) => ({
    ...row,
    at: at.toISOString(),
    until: until.toISOString(),
  }));
}
