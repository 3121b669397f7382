import { randomUUID } from 'node:crypto';
import type postgres from 'postgres';
import {
  archiveSchema,
  planSchema,
  reportSchema,
  type Archive,
  type Plan,
  type Report,
} from '@/core/contracts/archive';
import { json, sql } from '../db/sql';
import { notFound } from '../base/fault';
import { shared } from '../base/shared';

export const OUT = 'archive-out';
export const IN = 'archive-in';

/** How far those that go on now have come. */
const going = shared<Map<string, { done: number; all: number }>>('archives', () => new Map());

export const tellProgress =
  (id: string) =>
  (done: number, all: number): void =>
    void going.set(id, { done, all });
export const forgetProgress = (id: string): void => void going.delete(id);

interface Row {
  id: string;
  direction: string;
  path: string;
  query: string;
  planned: boolean;
  bytes: string | null;
  report: unknown;
  beganAt: Date;
  endedAt: Date | null;
  /** Of its job; null of one that is handed out. */
  state: string | null;
  problem: string | null;
}

const select = () => sql()`select a.id, a.direction, a.path, a.query, a.planned, a.bytes, a.report,
  a.began_at, a.ended_at, j.state, j.problem from archives a left join jobs j on j.id = a.id`;

function toArchive(row: Row): Archive {
  const progress = going.get(row.id) ?? null;
  const state = row.state ?? 'handed out';
  return archiveSchema.parse({
    ...row,
    bytes: row.bytes === null ? null : Number(row.bytes),
    state: state === 'waiting' && progress ? 'going on' : state,
    progress,
    report: reportSchema.nullable().catch(null).parse(row.report),
    beganAt: row.beganAt.toISOString(),
    endedAt: row.endedAt?.toISOString() ?? null,
  });
}

const SHOWN = 50;

export async function listArchives(): Promise<Archive[]> {
  const rows = await sql()<Row[]>`${select()} order by a.began_at desc, a.id limit ${SHOWN}`;
  return rows.map(toArchive);
}

/** @throws Fault 404 */
export async function getArchive(id: string): Promise<Archive> {
  const [row] = await sql()<Row[]>`${select()} where a.id = ${id}`;
  if (!row) throw notFound('archive');
  return toArchive(row);
}

export interface NewArchive {
  direction: 'out' | 'in';
  path: string;
  folderId?: string | undefined;
  query?: string | undefined;
  planned?: boolean | undefined;
  /** The shots in it, where it is not all of them. */
  shows?: readonly string[] | undefined;
}

/** A new row, in the transaction of its job where it has one. */
export async function addArchive(
  db: postgres.ISql,
  { direction, path, folderId, query, planned, shows }: NewArchive,
): Promise<{ id: string; beganAt: Date }> {
  const id = randomUUID();
  const [row] = await db<{ beganAt: Date }[]>`
    insert into archives (id, direction, path, folder_id, query, planned, shows)
    values (${id}, ${direction}, ${path}, ${folderId ?? null}, ${query ?? ''}, ${planned ?? false},
      ${shows ? [...shows] : null}) returning began_at`;
  return { id, beganAt: row?.beganAt ?? new Date() };
}

/** What became of it. */
export async function endArchive(
  id: string,
  { path, bytes, report }: { path?: string; bytes?: number; report?: Report },
): Promise<void> {
  await sql()`update archives set ended_at = now(), path = coalesce(${path ?? null}, path),
    bytes = coalesce(${bytes ?? null}, bytes), report = ${report ? json(report) : sql()`report`}
    where id = ${id}`;
}

export async function dropArchive(id: string): Promise<void> {
  await sql()`delete from archives where id = ${id}`;
}

export async function readPlan(): Promise<Plan | null> {
  const [row] = await sql()`select folder_id, every, keep from archive_plan`;
  return row ? planSchema.parse(row) : null;
}

/** @throws Fault 404 for a folder that is not there */
export async function setPlan(plan: Plan | null): Promise<void> {
  if (!plan) {
    await sql()`delete from archive_plan`;
    return;
  }
  await sql()`insert into archive_plan (folder_id, every, keep)
    values (${plan.folderId}, ${plan.every}, ${plan.keep})
    on conflict (id) do update set folder_id = excluded.folder_id, every = excluded.every,
      keep = excluded.keep`;
}
