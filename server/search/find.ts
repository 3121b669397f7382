import type postgres from 'postgres';
import type { Count, Found as Why, Order } from '@/core/contracts/search';
import type { ShotDocument } from '@/core/document/document';
import type { FoundPage } from '@/core/contracts/shot';
import { readQuery } from '@/core/search/grammar';
import type { Shaper } from '@/core/drawing/shaper';
import { seenOnWhole } from '@/core/paint/seenOn';
import { finishSchema } from '@/core/finish/finish';
import { reasonOf, type LaterWords, type Reason } from '@/core/search/match';
import { asking, type Query } from '@/core/search/query';
import { dayOf } from '@/core/search/when';
import { sql } from '../db/sql';
import { Fault } from '../base/fault';
import { serverShaper } from '../paint/shaper';
import { takenOn } from '../shots/store';
import { readCursor, summaryColumns, toCursor, toSummary, type SummaryRow } from '../shots/summary';
import { unpackWords } from '../words/rows';
import { conditions, fitness, insideConditions } from './conditions';
import { helpFor } from './help';
import { textsOf } from '../indexing/indexing';
import { tagIds } from '../indexing/tagIds';

type Fragment = postgres.PendingQuery<postgres.Row[]>;

/** Counted exactly up to here; and of more than these the newest ones are put in order of fitness. */
const COUNTED = 1_000;

interface Row extends SummaryRow {
  provenance: Parameters<typeof textsOf>[0]['provenance'];
  description: string | null;
  view: ShotDocument['view'];
  /** As it is stored. */
  finish: unknown;
  lines: string | null;
  boxes: Buffer | null;
  later: LaterWords[] | null;
  fit: number;
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
  s.document ->> 'description' as description, s.document -> 'view' as view,
  s.document -> 'finish' as finish, w.lines, w.boxes, w.later`;

/** A shot that fits, and how well. */
interface Candidate {
  shotId: string;
  takenAt: Date;
  fit: number;
}

/** So many are put in order here; of more than that the newest are looked for by going back in time. */
const FEW = 2_000;

interface Wanted {
  /** All that must hold of `x`. */
  where: Fragment;
  bin: boolean;
  /** What lies beyond the last page; as many are wanted as `count`. */
  beyond: Fragment;
  count: number;
}

type Found = Pick<Candidate, 'shotId' | 'takenAt'>[];

/**
 * What fits, the newest of it. The planner would guess whether that is much or little, and be wrong
 * by seconds for beginnings of words: so it is looked at first, by the tokens alone, since nearly
 * all of what fits is where it is looked for.
 */
async function newest(
  tx: postgres.TransactionSql,
  { where, bin, beyond, count }: Wanted,
): Promise<Found> {
  const placed = tx`from search x join shots s on s.id = x.shot_id
    where ${inPlace(bin)} and ${where}`;
  await tx`set local enable_seqscan = off`;
  const few = await tx<Found>`select x.shot_id, x.taken_at
    ${bin ? placed : tx`from search x where ${where}`} limit ${FEW + 1}`;
  if (few.length <= FEW) return bin ? few : onShelf(tx, few);
  await tx`set local enable_bitmapscan = off`;
  return tx<Found>`select x.shot_id, x.taken_at ${placed} ${beyond}
    order by x.taken_at desc, x.shot_id desc limit ${count}`;
}

/** Those that are not in the Bin. */
async function onShelf(tx: postgres.TransactionSql, found: Found): Promise<Found> {
  const ids = found.map((one) => one.shotId);
  const binned = await tx<{ id: string }[]>`
    select id from shots where id = any(${ids}::uuid[]) and binned_at is not null`;
  const gone = new Set(binned.map(({ id }) => id));
  return found.filter((one) => !gone.has(one.shotId));
}

const isAfter = (a: Candidate, b: Candidate): boolean =>
  a.fit !== b.fit
    ? a.fit < b.fit
    : a.takenAt.getTime() !== b.takenAt.getTime()
      ? a.takenAt < b.takenAt
      : a.shotId < b.shotId;

const inOrder = (a: Candidate, b: Candidate): number => (isAfter(a, b) ? 1 : -1);

/** The place after which the next ones come. @throws Fault 400 */
function readPlace({ before, order }: Asked): Candidate | null {
  if (!before) return null;
  const [fit = '', ...rest] = order === 'fitness' ? before.split('_') : ['0', before];
  if (!/^\d{1,6}$/.test(fit)) readCursor('');
  const { at, id } = readCursor(rest.join('_'));
  return { fit: Number(fit), takenAt: at, shotId: id };
}

/** The shots of a page with all that is shown of them, and one more. @throws Fault 400 */
async function pageOf(query: Query, where: Fragment, asked: Asked): Promise<Row[]> {
  const { limit, bin, order } = asked;
  const place = readPlace(asked);
  const byFitness = order === 'fitness';
  return sql().begin('read only', async (tx) => {
    // What a plan is good for depends on the words that are asked for.
    await tx`set local plan_cache_mode = force_custom_plan`;
    const beyond =
      place && !byFitness
        ? tx`and (x.taken_at, x.shot_id) < (${place.takenAt}, ${place.shotId})`
        : tx``;
    const count = byFitness ? COUNTED : limit + 1;
    const found = (await newest(tx, { where, bin, beyond, count })).map((one) => ({
      ...one,
      fit: 0,
    }));
    found.sort(inOrder);
    const scored = byFitness ? await withFitness(tx, query, found.slice(0, COUNTED)) : found;
    const page = scored.filter((one) => !place || isAfter(one, place)).slice(0, limit + 1);
    if (page.length === 0) return [];
    await tx`set local enable_bitmapscan = on`;
    const rows = await tx<Row[]>`select ${detailColumns()}, 0 as fit from shots s
      left join words w on w.shot_id = s.id
      where s.id = any(${page.map((one) => one.shotId)}::uuid[])`;
    const byId = new Map(rows.map((row) => [row.id, row]));
    return page.flatMap(({ shotId: id, fit }) => {
      const row = byId.get(id);
      return row ? [{ ...row, fit }] : [];
    });
  });
}

async function withFitness(
  tx: postgres.TransactionSql,
  query: Query,
  found: Candidate[],
): Promise<Candidate[]> {
  // Unpacked once, not for every place that is looked at.
  const rows = await tx<{ shotId: string; fit: number }[]>`
    select x.shot_id, (${fitness(query)})::int as fit
    from (select shot_id, tokens || ''::tsvector as tokens from search
      where shot_id = any(${found.map((one) => one.shotId)}::uuid[]) offset 0) x`;
  const fits = new Map(rows.map((row) => [row.shotId, row.fit]));
  return found.map((one) => ({ ...one, fit: fits.get(one.shotId) ?? 0 })).sort(inOrder);
}

/** @throws Fault 400 */
function readAsked(q: string): Query {
  if (q.includes('\0')) {
    throw new Fault(400, 'does-not-fit', 'q holds a character that no shot can hold.');
  }
  // What PostgreSQL cannot take cannot have been stored either.
  return readQuery(q.toWellFormed(), dayOf(new Date()));
}

/** What is around a picture moves what was found in it. */
function withSeen({ view, finish }: Row, reason: Reason, shaper: Shaper): Why {
  if (reason.hits.length === 0) return reason;
  // A newer Rezzik may do more to a picture than is known here.
  const done = finishSchema.nullable().catch(null).parse(finish) ?? undefined;
  const seen = seenOnWhole({ view, finish: done }, reason.hits, shaper);
  return seen ? { ...reason, seen } : reason;
}

/** A page of what fits a query, with the reason for each. @throws Fault 400 */
export async function findShots(asked: Asked): Promise<FoundPage> {
  const query = readAsked(asked.q);
  const rowsOf = (where: Fragment) => pageOf(query, where, asked);
  const tags = await tagIds(query);
  const [first, taken] = await Promise.all([rowsOf(conditions(query, tags)), takenOn(new Date())]);
  const wider = first.length === 0 ? insideConditions(query, tags) : null;
  const rows = wider ? await rowsOf(wider) : first;
  const inside = wider !== null && rows.length > 0;
  const shown = rows.slice(0, asked.limit);
  const last = shown.at(-1);
  const start = asked.order === 'fitness' && last ? `${last.fit}_` : '';
  const nothing = rows.length === 0 && !asked.before && asking(query).length > 0;
  const shaper = await serverShaper();
  return {
    shots: shown.map((row) => ({
      ...toSummary(row),
      found: withSeen(
        row,
        reasonOf(query, textsOf(row), unpackWords(row.lines, row.boxes), inside, row.later ?? []),
        shaper,
      ),
    })),
    next: rows.length > shown.length && last ? start + toCursor(last) : null,
    today: taken,
    ...(inside && { inside }),
    ...(nothing && { help: await helpFor(query, inPlace(asked.bin), tags) }),
  };
}

/** All that fit a query and are not in the Bin, as the Shelf would list them. @throws Fault 400 */
export async function allFound(q: string): Promise<string[]> {
  const query = readAsked(q);
  const idsOf = async (where: Fragment): Promise<string[]> => {
    const rows = await sql()<{ shotId: string }[]>`
      select x.shot_id from search x join shots s on s.id = x.shot_id
      where ${inPlace(false)} and ${where} order by x.taken_at, x.shot_id`;
    return rows.map((row) => row.shotId);
  };
  const tags = await tagIds(query);
  const found = await idsOf(conditions(query, tags));
  const wider = found.length === 0 ? insideConditions(query, tags) : null;
  return wider ? idsOf(wider) : found;
}

/** How many fit a query, exactly up to a thousand. @throws Fault 400 */
export async function countShots(q: string, bin: boolean): Promise<Count> {
  const query = readAsked(q);
  const counted = async (where: Fragment): Promise<Count> => {
    const n = await sql().begin('read only', async (tx) => {
      // Reading the whole table looks cheaper to the planner than it is: the tokens lie apart.
      await tx`set local plan_cache_mode = force_custom_plan`;
      await tx`set local enable_seqscan = off`;
      const [row] = await tx<{ n: number }[]>`
        select count(*)::int as n from (select 1 from search x join shots s on s.id = x.shot_id
          where ${inPlace(bin)} and ${where} limit ${COUNTED + 1}) found`;
      return row?.n ?? 0;
    });
    return { count: Math.min(n, COUNTED), more: n > COUNTED };
  };
  const tags = await tagIds(query);
  const count = await counted(conditions(query, tags));
  const wider = count.count === 0 ? insideConditions(query, tags) : null;
  return wider ? counted(wider) : count;
}
