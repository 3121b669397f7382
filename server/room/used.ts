import { roomSchema, type Room } from '@/core/contracts/room';
import { limits } from '@/core/values/limits';
import { env } from '../base/env';
import { sql } from '../db/sql';
import { freeBytes } from '../folders/place';

interface MonthRow {
  month: string;
  shots: number;
  frames: string;
  originals: string;
  marks: string;
}

/**
 * Since the first shot, by the months of this computer's calendar. How long what is stored is, is
 * told by the database without reading it.
 */
async function byMonth(): Promise<Room['months']> {
  const rows = await sql()<MonthRow[]>`
    with months as (
      select generate_series(date_trunc('month', min(created_at)), now(), '1 month') as at
      from (select created_at from frames union all select created_at from shots) everything),
    f as (select date_trunc('month', created_at) as at, sum(octet_length(bytes)) as frames,
        sum(coalesce(octet_length(original), 0)) as originals from frames group by 1),
    s as (select date_trunc('month', created_at) as at, count(*)::int as shots,
        sum(pg_column_size(document)) as marks from shots group by 1),
    u as (select date_trunc('month', s.created_at) as at, sum(pg_column_size(step)) as steps
      from steps join shots s on s.id = shot_id group by 1)
    select to_char(months.at, 'YYYY-MM') as month, coalesce(shots, 0) as shots,
      coalesce(frames, 0) as frames, coalesce(originals, 0) as originals,
      coalesce(marks, 0) + coalesce(steps, 0) as marks
    from months left join f using (at) left join s using (at) left join u using (at)
    where months.at is not null order by months.at`;
  return rows.map(({ month, shots, frames, originals, marks }) => ({
    ...{ month, shots, frames: Number(frames) },
    ...{ originals: Number(originals), marks: Number(marks) },
  }));
}

/** Free bytes on the disk that the database lies on, where that is one of this computer. */
async function freeThere(): Promise<number | null> {
  if (!HERE.has(new URL(env().databaseUrl).hostname)) return null;
  // Where the database is somebody else's, it may not tell.
  const [row] = await sql()<{ place: string }[]>`
    select current_setting('data_directory') as place`.catch(() => []);
  return row ? freeBytes(row.place) : null;
}
const HERE = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** What came in the last thirty days, bytes. */
async function lately(): Promise<number> {
  const [row] = await sql()<{ bytes: string | null }[]>`
    select (select coalesce(sum(octet_length(bytes) + coalesce(octet_length(original), 0)), 0)
        from frames where created_at > now() - interval '30 days')
      + (select coalesce(sum(c.bytes), 0) from clips c join shots s on s.id = c.shot_id
        where s.created_at > now() - interval '30 days') as bytes`;
  return Number(row?.bytes ?? 0);
}

/** Less than five gigabytes, or than what a month takes. */
const isLow = (free: number | null, month: number): boolean =>
  free !== null && free < Math.max(limits.roomLeft, month);

/** Whether room runs short, asked often and answered quickly. */
export async function roomLeft(): Promise<Pick<Room, 'free' | 'low' | 'lately'>> {
  const [free, month] = await Promise.all([freeThere(), lately()]);
  return { free, low: isLow(free, month), lately: month };
}

/** What room is used for, by kind and by month. */
export async function roomUsed(): Promise<Room> {
  const [months, left, rows, [copies]] = await Promise.all([
    byMonth(),
    roomLeft(),
    sql()<Record<'finding' | 'thumbnails' | 'sending' | 'films' | 'whole', string>[]>`
      select pg_total_relation_size('search') + pg_total_relation_size('words')
          + pg_total_relation_size('known_words') as finding,
        pg_total_relation_size('thumbnails') as thumbnails,
        pg_total_relation_size('links') + pg_total_relation_size('sendings') as sending,
        (select coalesce(sum(bytes), 0) from clips)
          + (select coalesce(sum(bytes), 0) from usual_films)
          + (select coalesce(sum(bytes), 0) from recordings) as films,
        pg_database_size(current_database()) as whole`,
    sql()<{ count: number; bytes: string | null }[]>`
      select count(*)::int as count, sum(bytes) as bytes from copies where confirmed`,
  ]);
  const sum = (kind: 'frames' | 'originals' | 'marks'): number =>
    months.reduce((all, month) => all + month[kind], 0);
  const [sizes] = rows;
  const films = Number(sizes?.films ?? 0);
  return roomSchema.parse({
    kinds: [
      { kind: 'frames', bytes: sum('frames') },
      { kind: 'originals', bytes: sum('originals') },
      { kind: 'marks', bytes: sum('marks') },
      { kind: 'finding', bytes: Number(sizes?.finding ?? 0) },
      { kind: 'thumbnails', bytes: Number(sizes?.thumbnails ?? 0) },
      { kind: 'sending', bytes: Number(sizes?.sending ?? 0) },
      { kind: 'films', bytes: films },
    ],
    whole: Number(sizes?.whole ?? 0) + films,
    copies: { count: copies?.count ?? 0, bytes: Number(copies?.bytes ?? 0) },
    months,
    ...left,
  });
}
