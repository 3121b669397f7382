import type { z } from 'zod';
import type { shotPageSchema } from '@/core/contracts/shot';
import { sql } from '../db/sql';
import { takenOn } from './store';
import { readCursor, summaryColumns, toCursor, toSummary, type SummaryRow } from './summary';

export type Page = z.infer<typeof shotPageSchema>;

/**
 * A page of shots by keyset: newest first before a place, or the nearest first after it.
 * @throws Fault 400
 */
export async function listShots(options: {
  before?: string | undefined;
  after?: string | undefined;
  limit: number;
  bin: boolean;
  /** Those only that a person took, not a series. */
  byHand?: boolean;
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
    db<SummaryRow[]>`
      select ${summaryColumns()} from shots s
      where ${place} ${beyond ?? db``}
        ${options.byHand ? db`and not (s.provenance ? 'series')` : db``}
      ${order} limit ${options.limit + 1}`,
    db<{ total: number }[]>`select count(*)::int as total from shots s where ${place}`,
    takenOn(new Date()),
  ]);
  const shown = rows.slice(0, options.limit);
  const last = shown.at(-1);
  return {
    shots: shown.map(toSummary),
    next: rows.length > shown.length && last ? toCursor(last) : null,
    total: sum?.total ?? 0,
    today,
  };
}
