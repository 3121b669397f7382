import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { z } from 'zod';
import type { Job } from '@/core/contracts/page';
import { Fault, notFound } from '../base/fault';
import { shared } from '../base/shared';
import { json, sql } from '../db/sql';
import { addDue } from '../jobs/queue';
import { begin, jobsOf, stopJob } from '../jobs/run';
import { fit } from '../http/body';
import { getShot } from '../shots/rows';

/** What became of one is told for so long. */
const TOLD = '1 day';
const LOOK = 150;
const CUT_SHORT =
  'Rezzik was ended in the middle of it, and nothing of it is left. Take it once more.';

/** What goes on now with those that are taken. */
const going = shared('slowTakes', () => new Map<string, string>());

interface Slow<T> {
  /** Also its kind of job. */
  kind: string;
  wish: z.ZodType<T>;
  /**
   * Takes, and stores the shot under its id.
   * @param tell what goes on now, in words
   * @returns what there is to know about it
   */
  take: (
    wish: T,
    shot: string,
    tell: (words: string) => void,
    signal: AbortSignal,
  ) => Promise<string[]>;
  /** What it is taken of goes by: one that was cut short is not taken by itself later. */
  once?: true;
}

/** Says how takes of a kind are done, one at a time. */
export function slowTakes<T>(slow: Slow<T>): void {
  jobsOf(slow.kind, (id, signal) => work(slow, id, signal), { alone: true, mostTries: 1 });
}

/** Asks for one. @param shot the id that the shot gets: asked for twice, it is stored once @returns its own id */
export async function addSlow(kind: string, wish: object, shot?: string): Promise<string> {
  const id = randomUUID();
  await sql().begin(async (tx) => {
    await tx`delete from slow_takes where made_at < now() - ${TOLD}::interval`;
    await tx`insert into slow_takes (id, shot_id, wish)
      values (${id}, ${shot?.toLowerCase() ?? randomUUID()}, ${json(wish)})`;
    await addDue(tx, id, kind);
  });
  begin(kind);
  return id;
}

async function work<T>(slow: Slow<T>, id: string, signal: AbortSignal): Promise<void> {
  const [row] = await sql()<{ shotId: string; wish: unknown; again: boolean }[]>`
    update slow_takes s set begun_at = now() from slow_takes before
    where s.id = ${id} and before.id = s.id
    returning s.shot_id, s.wish, before.begun_at is not null as again`;
  if (!row) return;
  const tell = (words: string) => void going.set(id, words);
  try {
    if (slow.once && row.again) throw new Fault(503, 'cut-short', CUT_SHORT);
    const said = await slow.take(slow.wish.parse(row.wish), row.shotId, tell, signal);
    await ended(id, { said });
  } catch (error) {
    // One that was stopped is told as that; a Rezzik that ends takes it again when it is back.
    if (signal.aborted) throw error;
    const { code, status } = error instanceof Fault ? error : { code: 'inside', status: 500 };
    await ended(id, { code, status });
    if (error instanceof Fault) throw error;
    console.error(error);
    throw new Fault(500, 'inside', 'Something went wrong inside Rezzik, and there is no picture.');
  } finally {
    going.delete(id);
  }
}

/** Nothing of what was asked for stays here. */
async function ended(
  id: string,
  {
    code = null,
    status = null,
    said = [],
  }: Partial<Pick<Row, 'code' | 'status'>> & { said?: string[] },
): Promise<void> {
  await sql()`update slow_takes set wish = null, code = ${code}, status = ${status},
    said = ${json(said)} where id = ${id}`;
}

interface Row {
  id: string;
  shotId: string;
  code: string | null;
  status: number | null;
  said: unknown;
  state: 'waiting' | 'stopped' | 'done';
  problem: string | null;
  leased: boolean;
  stored: boolean;
}

/** Where one that was asked for stands. @throws Fault 404 */
export async function getJob(id: string): Promise<Job> {
  const [row] = await sql()<Row[]>`
    select s.id, s.shot_id, s.code, s.said, j.state, j.problem,
      coalesce(j.leased_until > now(), false) as leased,
      exists (select 1 from shots where id = s.shot_id) as stored
    from slow_takes s join jobs j on j.id = s.id where s.id = ${id}`;
  if (!row) throw notFound('job');
  const { state, leased, problem, code } = row;
  const shot = row.stored && state === 'done' ? await getShot(row.shotId) : null;
  return {
    id,
    state: state === 'waiting' && leased ? 'going on' : state,
    progress: state === 'waiting' ? (going.get(id) ?? 'Waits for its turn.') : null,
    problem: state === 'stopped' ? (problem ?? 'Stopped. Nothing of it is left.') : null,
    code,
    shot: shot && {
      ...{ id: shot.id, revision: shot.revision, width: shot.width, height: shot.height },
    },
    said: z.array(z.string()).catch([]).parse(row.said),
  };
}

/** Waits until it has ended, or for so long, ms, or until nobody waits any more. @throws Fault 404 */
export async function awaitJob(id: string, most: number, signal: AbortSignal): Promise<Job> {
  const until = Date.now() + most;
  for (;;) {
    const job = await getJob(id);
    const isOver = job.state === 'done' || job.state === 'stopped';
    if (isOver || Date.now() >= until || signal.aborted) return job;
    await pause(LOOK);
  }
}

/** @throws Fault 404 */
export async function stopSlow(id: string): Promise<void> {
  await getJob(id);
  if (await stopJob(id)) await ended(id, {});
}

const querySchema = z.object({ wait: z.enum(['0', '1']).default('0') });
/** What is there so soon is answered at once, ms. */
const SOON = 4_000;
const LONG = 600_000;

/** Whether whoever asks wants to wait to the end. @throws Fault 400 */
export const readWait = ({ url }: Request): boolean =>
  fit(Object.fromEntries(new URL(url).searchParams), querySchema).wait === '1';

/** Tells of it: the shot, why there is none, or where to look for it. */
export async function answerOf(id: string, waits: boolean, signal: AbortSignal): Promise<Response> {
  const job = await awaitJob(id, waits ? LONG : SOON, signal);
  const { state, problem, shot, said } = job;
  const headers = { Location: `/api/jobs/${id}` };
  if (state === 'done' && shot) {
    return Response.json({ ...shot, ...(said.length > 0 && { said }) }, { status: 201 });
  }
  if (state !== 'stopped') return Response.json(job, { status: 202, headers });
  const [row] = await sql()<Pick<Row, 'status'>[]>`select status from slow_takes where id = ${id}`;
  const error = { code: job.code ?? 'stopped', message: problem };
  return Response.json({ error }, { status: row?.status ?? 409, headers });
}
