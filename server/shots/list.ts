import type { ShotSummary } from '@/core/contracts/shot';
import { sql } from '../db/sql';
import { Fault } from '../http/fault';
import { takenOn } from './store';
import { UUID } from '../http/route';

interface Row {
  id: string;
  title: string;
  revision: number;
  width: number;
  height: number;
  source: string;
  taken_at: Date;
  binned_at: Date | null;
  copies: number;
}

export interface Page {
  shots: ShotSummary[];
  next: string | null;
  total: number;
  today: number;
}

const toCursor = (row: Row): string => `${row.taken_at.toISOString()}_${row.id}`;

function readCursor(cursor: string): { at: Date; id: string } {
  const [time = '', id = ''] = cursor.split('_');
  const at = new Date(time);
  if (Number.isNaN(at.getTime()) || !UUID.test(id)) {
    throw new Fault(
      400,
      'bad-cursor',
      'before and after must be the next value of an earlier page.',
    );
  }
  return { at, id };
}

/**
 * A page of shots by keyset: newest first before a place, or the nearest first after it.
 * @throws Fault 400
 */
export async function listShots(options: {
  before?: string | undefined;
  after?: string | undefined;
  limit: number;
  bin: boolean;
}): Promise<Page> {
  const db = sql();
  const at = options.before ?? options.after;
  const cursor = at ? readCursor(at) : null;
  const newer = options.after !== undefined && options.before === undefined;
  const order = newer ? db`order by s.taken_at, s.id` : db`order by s.taken_at desc, s.id desc`;
  const beyond =
    cursor && db`and (s.taken_at, s.id) ${newer ? db`>` : db`<`} (${cursor.at}, ${cursor.id})`;
  const place = options.bin ? db`s.binned_at is not null` : db`s.binned_at is null`;
  // At once: each of them alone would wait for its turn where much else is going on.
  const [rows, [sum], today] = await Promise.all([
    db<Row[]>`
      select s.id, s.title, s.revision, s.provenance ->> 'source' as source, s.taken_at, s.binned_at,
        (s.document #>> '{view,crop,width}')::int as width,
        (s.document #>> '{view,crop,height}')::int as height,
        (select count(*)::int from copies c where c.shot_id = s.id and c.confirmed) as copies
      from shots s
      where ${place} ${beyond ?? db``}
      ${order} limit ${options.limit + 1}`,
    db<{ total: number }[]>`select count(*)::int as total from shots s where ${place}`,
    takenOn(new Date()),
  ]);
  const shown = rows.slice(0, options.limit);
  const last = shown.at(-1);
  return {
    shots: shown.map((row) => ({
      id: row.id,
      title: row.title,
      revision: row.revision,
      width: row.width,
      height: row.height,
      source: row.source,
      takenAt: row.taken_at.toISOString(),
      binnedAt: row.binned_at?.toISOString() ?? null,
      copies: row.copies,
    })),
    next: rows.length > shown.length && last ? toCursor(last) : null,
    total: sum?.total ?? 0,
    today,
  };
}
