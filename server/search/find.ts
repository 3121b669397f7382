import type postgres from 'postgres';
import type { Count, Order } from '@/core/contracts/search';
import type { FoundPage } from '@/core/contracts/shot';
import { readQuery } from '@/core/search/grammar';
import { reasonOf } from '@/core/search/match';
import { asking, type Query } from '@/core/search/query';
import type { Day } from '@/core/search/when';
import { sql } from '../db/sql';
import { Fault } from '../http/fault';
import { takenOn } from '../shots/store';
import { readCursor, summaryColumns, toCursor, toSummary, type SummaryRow } from '../shots/summary';
import { unpackWords } from '../words/rows';
import { conditions, fitness, insideConditions } from './conditions';
import { helpFor } from './help';
import { textsOf } from './indexing';

type Fragment = postgres.PendingQuery<postgres.Row[]>;

/** Counted exactly up to here; and of more than these the newest ones are put in order of fitness. */
const COUNTED = 1_000;

interface Row extends SummaryRow {
  provenance: Parameters<typeof textsOf>[0]['provenance'];
  description: string | null;
  lines: string | null;
  boxes: Buffer | null;
  fit: number;
}

/** What day it is where this computer is. */
export function today(now = new Date()): Day {
  return { year: now.getFullYear(), month: now.getMonth() + 1, day: now.getDate() };
}

export interface Asked {
  q: string;
  order: Order;
  before?: string | undefined;
  limit: number;
  bin: boolean;
}

const inPlace = (bin: boolean): Fragment =>
  bin ? sql()`s.binned_at is not null` : sql()`s.binned_at is null`;

const detailColumns = () => sql()`${summaryColumns()}, s.provenance,
  s.document ->> 'description' as description, w.lines, w.boxes`;

/** The next ones by day. @throws Fault 400 */
function byDay(where: Fragment, { bin, before, limit }: Asked): Promise<Row[]> {
  const db = sql();
  const cursor = before ? readCursor(before) : null;
  const beyond = cursor ? db`and (x.taken_at, x.shot_id) < (${cursor.at}, ${cursor.id})` : db``;
  return db<Row[]>`
    with found as materialized (
      select x.shot_id, x.taken_at from search x join shots s on s.id = x.shot_id
      where ${inPlace(bin)} and ${where} ${beyond}
      order by x.taken_at desc, x.shot_id desc limit ${limit + 1})
    select ${detailColumns()}, 0 as fit from found
      join shots s on s.id = found.shot_id left join words w on w.shot_id = s.id
    order by found.taken_at desc, found.shot_id desc`;
}

/** The place after which the next ones by fitness come. @throws Fault 400 */
function readFitCursor(cursor: string): { fit: number; at: Date; id: string } {
  const [fit = '', ...rest] = cursor.split('_');
  if (!/^\d{1,6}$/.test(fit)) readCursor('');
  return { fit: Number(fit), ...readCursor(rest.join('_')) };
}

/** The next ones of the newest by fitness. @throws Fault 400 */
function byFitness(query: Query, where: Fragment, { bin, before, limit }: Asked): Promise<Row[]> {
  const db = sql();
  const at = before ? readFitCursor(before) : null;
  const beyond = at ? db`where (fit, taken_at, shot_id) < (${at.fit}, ${at.at}, ${at.id})` : db``;
  return db<Row[]>`
    with newest as materialized (
      select x.shot_id, x.taken_at, x.tokens from search x join shots s on s.id = x.shot_id
      where ${inPlace(bin)} and ${where}
      order by x.taken_at desc, x.shot_id desc limit ${COUNTED}),
    scored as materialized (
      select x.shot_id, x.taken_at, (${fitness(query)})::int as fit from newest x),
    found as materialized (
      select * from scored ${beyond}
      order by fit desc, taken_at desc, shot_id desc limit ${limit + 1})
    select ${detailColumns()}, found.fit from found
      join shots s on s.id = found.shot_id left join words w on w.shot_id = s.id
    order by found.fit desc, found.taken_at desc, found.shot_id desc`;
}

/** @throws Fault 400 */
function readAsked(q: string): Query {
  if (q.includes('\0')) {
    throw new Fault(400, 'does-not-fit', 'q holds a character that no shot can hold.');
  }
  // What PostgreSQL cannot take cannot have been stored either.
  return readQuery(q.toWellFormed(), today());
}

/** A page of what fits a query, with the reason for each. @throws Fault 400 */
export async function findShots(asked: Asked): Promise<FoundPage> {
  const query = readAsked(asked.q);
  const rowsOf = (where: Fragment) =>
    asked.order === 'fitness' ? byFitness(query, where, asked) : byDay(where, asked);
  const [first, taken] = await Promise.all([rowsOf(conditions(query)), takenOn(new Date())]);
  const wider = first.length === 0 && !asked.before ? insideConditions(query) : null;
  const rows = wider ? await rowsOf(wider) : first;
  const inside = wider !== null && rows.length > 0;
  const shown = rows.slice(0, asked.limit);
  const last = shown.at(-1);
  const start = asked.order === 'fitness' && last ? `${last.fit}_` : '';
  const nothing = rows.length === 0 && !asked.before && asking(query).length > 0;
  return {
    shots: shown.map((row) => ({
      ...toSummary(row),
      found: reasonOf(query, textsOf(row), unpackWords(row.lines, row.boxes), inside),
    })),
    next: rows.length > shown.length && last ? start + toCursor(last) : null,
    today: taken,
    ...(inside && { inside }),
    ...(nothing && { help: await helpFor(query, inPlace(asked.bin)) }),
  };
}

/** How many fit a query, exactly up to a thousand. @throws Fault 400 */
export async function countShots(q: string, bin: boolean): Promise<Count> {
  const query = readAsked(q);
  const counted = async (where: Fragment): Promise<Count> => {
    const n = await sql().begin('read only', async (tx) => {
      // Reading the whole table looks cheaper to the planner than it is: the tokens lie apart.
      await tx`set local enable_seqscan = off`;
      const [row] = await tx<{ n: number }[]>`
        select count(*)::int as n from (select 1 from search x join shots s on s.id = x.shot_id
          where ${inPlace(bin)} and ${where} limit ${COUNTED + 1}) found`;
      return row?.n ?? 0;
    });
    return { count: Math.min(n, COUNTED), more: n > COUNTED };
  };
  const count = await counted(conditions(query));
  const wider = count.count === 0 ? insideConditions(query) : null;
  return wider ? counted(wider) : count;
}
