import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { z } from 'zod';
import { pageShotSchema, type Job, type PageShot } from '@/core/contracts/page';
import { Fault, notFound } from '../base/fault';
import { statusOf } from '../pages/faults';
import { provenanceOf } from '../pages/provenance';
import { shared } from '../base/shared';
import { json, sql } from '../db/sql';
import { addDue } from '../jobs/queue';
import { begin, jobsOf, stopJob } from '../jobs/run';
import { getShot } from '../shots/rows';
import { storeShot } from '../shots/store';
import { rememberWords } from '../words/known';
import { checkPagesAllowed, reachNow } from '../pages/reachNow';
import { takePage } from '../pages/takePage';
import { thenSaid } from './then';

const PAGES = 'pages';
/** What became of a page is told for so long. */
const TOLD = '1 day';
const LOOK = 150;

/** What goes on now with those that are taken. */
const going = shared('pages', () => new Map<string, string>());

/** Asks for a page; the same id of a shot is asked for once. @throws Fault 403 */
export async function addPage(wish: PageShot): Promise<string> {
  await checkPagesAllowed();
  const id = randomUUID();
  const shot = wish.id?.toLowerCase() ?? randomUUID();
  await sql().begin(async (tx) => {
    await tx`delete from pages where made_at < now() - ${TOLD}::interval`;
    await tx`insert into pages (id, shot_id, wish) values (${id}, ${shot}, ${json(wish)})`;
    await addDue(tx, id, PAGES);
  });
  begin(PAGES);
  return id;
}

async function take(id: string, signal: AbortSignal): Promise<void> {
  const [row] = await sql()<{ shotId: string; wish: unknown }[]>`
    select shot_id, wish from pages where id = ${id}`;
  if (!row) return;
  try {
    const wish = pageShotSchema.parse(row.wish);
    const { allowPrivate, title, id: _, then, ...page } = wish;
    const tell = (words: string) => void going.set(id, words);
    const taken = await takePage(page, await reachNow(page.address, allowPrivate), tell, signal);
    signal.throwIfAborted();
    const provenance = provenanceOf(taken);
    if (taken.words) rememberWords(provenance, taken.words);
    await storeShot({
      ...{ id: row.shotId, picture: taken.bytes, provenance, titleMade: title === undefined },
      title: title ?? (taken.title || undefined),
    });
    const said = await thenSaid(then, { id: row.shotId, leaves: { format: null, size: null } });
    await ended(id, { said: [...taken.said, ...said] });
  } catch (error) {
    // One that was stopped is told as that; a Rezzik that ends takes it again when it is back.
    if (signal.aborted) throw error;
    await ended(id, { code: error instanceof Fault ? error.code : 'inside' });
    if (error instanceof Fault) throw error;
    console.error(error);
    throw new Fault(500, 'inside', 'Something went wrong inside Rezzik, and there is no picture.');
  } finally {
    going.delete(id);
  }
}

jobsOf(PAGES, take, { alone: true, mostTries: 1 });

/** Nothing of what was asked for stays here. */
async function ended(
  id: string,
  { code, said }: { code?: string; said?: string[] },
): Promise<void> {
  await sql()`update pages set wish = null, code = ${code ?? null}, said = ${json(said ?? [])}
    where id = ${id}`;
}

interface Row {
  id: string;
  shotId: string;
  code: string | null;
  said: unknown;
  state: 'waiting' | 'stopped' | 'done';
  problem: string | null;
  leased: boolean;
  stored: boolean;
}

/** Where a page that was asked for stands. @throws Fault 404 */
export async function getJob(id: string): Promise<Job> {
  const [row] = await sql()<Row[]>`
    select p.id, p.shot_id, p.code, p.said, j.state, j.problem,
      coalesce(j.leased_until > now(), false) as leased,
      exists (select 1 from shots where id = p.shot_id) as stored
    from pages p join jobs j on j.id = p.id where p.id = ${id}`;
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
export async function stopPage(id: string): Promise<void> {
  await getJob(id);
  if (await stopJob(id)) await ended(id, {});
}

/** Tells of it: the shot, why there is none, or where to look for it. */
export function answerOf(job: Job): Response {
  const { id, state, code, problem, shot, said } = job;
  const headers = { Location: `/api/jobs/${id}` };
  if (state === 'done' && shot) {
    return Response.json({ ...shot, ...(said.length > 0 && { said }) }, { status: 201 });
  }
  if (state !== 'stopped') return Response.json(job, { status: 202, headers });
  const error = { code: code ?? 'stopped', message: problem };
  return Response.json({ error }, { status: statusOf(error.code), headers });
}
