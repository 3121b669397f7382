import {
  claimDue,
  claimNow,
  finish,
  giveBack,
  giveUp,
  putOff,
  renew,
  stop,
  type Leased,
} from './queue';
import { shared } from '../base/shared';

/**
 * Does what a job is about.
 * @returns where its time has not come, in how many seconds it is looked at again
 * @throws what stood in the way, in words: it is tried again later
 */
export type Work = (id: string, signal: AbortSignal) => Promise<number | void>;

/** How jobs of a kind want to be done. */
export interface Manner {
  /** One at a time, beside the other kinds. */
  alone?: boolean;
  /** Asked before each: whether one may be begun now. */
  may?: () => Promise<boolean>;
  /** What became due last comes first. */
  newestFirst?: boolean;
  /** Given up after so many tries. */
  mostTries?: number;
}

interface Jobs {
  works: Map<string, Manner & { work: Work }>;
  /** Kinds done alone of which one is worked on. */
  alone: Set<string>;
  /** What this process works on now. */
  running: Map<string, AbortController>;
  timer?: NodeJS.Timeout;
  /** What begins later. */
  later: Set<NodeJS.Timeout>;
}
const held = shared<Jobs>('jobs', () => ({
  works: new Map(),
  alone: new Set(),
  running: new Map(),
  later: new Set(),
}));
const { works, running } = held;

/** Says how jobs of a kind are done. */
export const jobsOf = (kind: string, work: Work, manner: Manner = {}): void =>
  void works.set(kind, { ...manner, work });

const TICK = 5_000;
const RENEW = 20_000;
/** Jobs of this process that are worked on at the same time. */
const AT_ONCE = 4;

/** Works on a job that is ours: outside any transaction, with the outcome written afterwards. */
export async function work(job: Leased): Promise<void> {
  const control = new AbortController();
  running.set(job.id, control);
  const renewing = setInterval(() => {
    renew(job).then(
      (ours) => !ours && control.abort(),
      () => undefined,
    );
  }, RENEW);
  try {
    const tooSoon = await works.get(job.kind)?.work(job.id, control.signal);
    await (tooSoon ? giveBack(job, tooSoon) : finish(job));
  } catch (error) {
    if (!control.signal.aborted) await failed(job, error);
  } finally {
    clearInterval(renewing);
    running.delete(job.id);
  }
}

async function failed(job: Leased, error: unknown): Promise<void> {
  const problem = error instanceof Error ? error.message : String(error);
  const most = works.get(job.kind)?.mostTries ?? Infinity;
  await (job.tries + 1 < most ? putOff(job, problem) : giveUp(job, problem));
}

/** Tries a job now, whenever it would have been due. */
export async function workNow(id: string): Promise<void> {
  const job = await claimNow(id);
  if (job) await work(job);
}

/** Breaks off the work on a job that is gone or not wanted any more. */
export const breakOff = (id: string): void => running.get(id)?.abort();

/** Breaks off all that this process works on, and waits until that has ended. */
export async function workNoMore(): Promise<void> {
  for (const timer of held.later) clearTimeout(timer);
  held.later.clear();
  while (running.size > 0) {
    for (const control of running.values()) control.abort();
    await new Promise((done) => setTimeout(done, 10));
  }
}

/** Stops a job, also in the middle of its work. @returns false when there was nothing to stop */
export async function stopJob(id: string): Promise<boolean> {
  const stopped = await stop(id);
  breakOff(id);
  return stopped;
}

/** Does everything of a kind that is due now, one after the other; not where that goes on already. */
export async function workAlone(kind: string): Promise<void> {
  const manner = works.get(kind);
  if (!manner || held.alone.has(kind)) return;
  held.alone.add(kind);
  try {
    while ((await manner.may?.()) ?? true) {
      const job = await claimDue([kind], manner.newestFirst);
      if (!job) return;
      await work(job);
    }
  } finally {
    held.alone.delete(kind);
  }
}

const said = (error: unknown) => console.error('What waits could not be looked at:', error);

/** The same at once, beside whoever asked for it; where that fails, the next tick looks again. */
export const begin = (kind: string): void => void workAlone(kind).catch(said);

/** The same after a while, ms: who asked for it shall have the machine first. */
export function beginLater(kind: string, after: number): void {
  const timer = setTimeout(() => {
    held.later.delete(timer);
    begin(kind);
  }, after);
  timer.unref();
  held.later.add(timer);
}

const kindsWhere = (alone: boolean): string[] =>
  [...works].flatMap(([kind, manner]) => (Boolean(manner.alone) === alone ? [kind] : []));

/** Does everything that is due now, but what is done alone. */
export async function workDue(): Promise<void> {
  const kinds = kindsWhere(false);
  const lane = async () => {
    for (;;) {
      const job = await claimDue(kinds);
      if (!job) return;
      await work(job);
    }
  };
  await Promise.all(Array.from({ length: Math.max(0, AT_ONCE - running.size) }, lane));
}

/** From now on what waits is done when its time comes. */
export function startJobs(): void {
  clearInterval(held.timer);
  let busy = false;
  held.timer = setInterval(() => {
    for (const kind of kindsWhere(true)) workAlone(kind).catch(said);
    if (busy) return;
    busy = true;
    workDue()
      .catch(said)
      .finally(() => (busy = false));
  }, TICK);
  held.timer.unref();
}
