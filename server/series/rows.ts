import type postgres from 'postgres';
import {
  onlyChangedSchema,
  pageSources,
  seriesSchema,
  seriesWhatSchema,
  type OnlyChanged,
  type Series,
  type SeriesWhat,
} from '@/core/contracts/series';
import { thenStepSchema, type ThenStep } from '@/core/places/registry';
import type { Times } from '@/core/series/times';
import { notFound } from '../base/fault';
import { sql } from '../db/sql';

/** A series as its row holds it. */
interface Row {
  id: string;
  name: string;
  what: unknown;
  times: unknown;
  onlyChanged: unknown;
  thenSteps: unknown;
  pattern: string;
  mostShots: number;
  mostMegabytes: number;
  state: Series['state'];
  why: string | null;
  dueAt: Date | null;
  taken: number;
  unchanged: number;
  missed: number;
  bytes: string;
  last: unknown;
}

const timesOf = (stored: unknown): Times => seriesSchema.shape.times.parse(stored);

function toSeries({ thenSteps, mostShots, mostMegabytes, dueAt, bytes, ...row }: Row): Series {
  return seriesSchema.parse({
    ...row,
    then: thenSteps,
    stopAt: { shots: mostShots, megabytes: mostMegabytes },
    next: row.state === 'running' ? (dueAt?.toISOString() ?? null) : null,
    bytes: Number(bytes),
  });
}

const columns = () => sql()`s.*, (select jsonb_build_object('id', h.id, 'revision', h.revision)
  from series_times t join shots h on h.id = t.shot_id
  where t.series_id = s.id and t.outcome = 'taken' and h.binned_at is null
  order by t.at desc limit 1) as last`;

/** All of them: those that go on first, by their names. */
export async function listSeries(): Promise<Series[]> {
  const rows = await sql()<Row[]>`select ${columns()} from series s
    order by (state = 'ended'), lower(name), id`;
  return rows.map(toSeries);
}

/** @throws Fault 404 */
export async function getSeries(id: string, db: postgres.ISql = sql()): Promise<Series> {
  const [row] = await db<Row[]>`select ${columns()} from series s where id = ${id}`;
  if (!row) throw notFound('series');
  return toSeries(row);
}

/** One that may be due, held by this transaction. */
export interface Held {
  id: string;
  times: Times;
  source: SeriesWhat['source'];
  due: number | null;
  last: number | null;
  round: number;
  /** A take of it goes on. */
  busy: boolean;
}

interface HeldRow {
  id: string;
  times: unknown;
  source: SeriesWhat['source'];
  dueAt: Date | null;
  lastAt: Date | null;
  round: number;
  busy: boolean;
}

/** What is taken of a screen and is not done by then was cut off with its server, ms. */
const LONG = 15_000;
/** So many are held at a time. */
const SOME = 50;

/**
 * Some that are due, or whose clock was set back; another server looks at the others.
 * @param now the clock, ms since 1970
 * @param behind how far behind what was taken it is set back, ms
 */
export async function holdDue(
  tx: postgres.TransactionSql,
  now: number,
  behind: number,
): Promise<Held[]> {
  const rows = await tx<HeldRow[]>`
    select s.id, s.times, s.what->>'source' as source, s.due_at, s.last_at, s.round,
      exists (select 1 from series_times t where t.series_id = s.id and t.outcome = 'due'
        and (s.what->>'source' = any(${['web', ...pageSources]}) or t.at > ${new Date(now - LONG)})) as busy
    from series s where s.state = 'running'
      and (s.due_at <= ${new Date(now)} or s.last_at > ${new Date(now + behind)})
    order by s.due_at limit ${SOME} for update of s skip locked`;
  return rows.map(({ times, dueAt, lastAt, ...rest }) => ({
    ...rest,
    times: timesOf(times),
    due: dueAt?.getTime() ?? null,
    last: lastAt?.getTime() ?? null,
  }));
}

/** When the next one is due, ms since 1970; null where none goes on. */
export async function nextDue(): Promise<number | null> {
  const [row] = await sql()<{ dueAt: Date | null }[]>`
    select min(due_at) as due_at from series where state = 'running'`;
  return row?.dueAt?.getTime() ?? null;
}

/** What is taken now. */
export interface Due {
  id: string;
  seriesId: string;
  /** The id that its shot gets. */
  shot: string;
  at: number;
  byHand: boolean;
  name: string;
  what: SeriesWhat;
  times: Times;
  onlyChanged: OnlyChanged | null;
  then: ThenStep[];
  pattern: string;
  state: Series['state'];
}

/** Null where it was dealt with already. */
export async function getDue(id: string): Promise<Due | null> {
  const [row] = await sql()<
    {
      seriesId: string;
      shot: string;
      at: Date;
      byHand: boolean;
      name: string;
      what: unknown;
      times: unknown;
      onlyChanged: unknown;
      thenSteps: unknown;
      pattern: string;
      state: Series['state'];
    }[]
  >`select t.series_id, t.shot_id as shot, t.at, t.by_hand, s.name, s.what, s.times, s.only_changed, s.then_steps,
      s.pattern, s.state
    from series_times t join series s on s.id = t.series_id where t.id = ${id} and t.outcome = 'due'`;
  if (!row) return null;
  const { at, what, times, onlyChanged, thenSteps, ...rest } = row;
  return {
    id,
    ...rest,
    at: at.getTime(),
    what: seriesWhatSchema.parse(what),
    times: timesOf(times),
    onlyChanged: onlyChangedSchema.nullable().parse(onlyChanged),
    then: thenStepSchema.array().parse(thenSteps),
  };
}
