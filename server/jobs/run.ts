import { claimDue, claimNow, finish, putOff, renew, stop, type Leased } from './queue';

/** Does what a job is about. @throws what stood in the way, in words: it is tried again later */
export type Work = (id: string, signal: AbortSignal) => Promise<void>;

interface Jobs {
  works: Map<string, Work>;
  /** What this process works on now. */
  running: Map<string, AbortController>;
  timer?: NodeJS.Timeout;
}
/** Start-up and requests may load this file each for themselves; the jobs are the same. */
const kept = globalThis as { rezzikJobs?: Jobs };
const held: Jobs = (kept.rezzikJobs ??= { works: new Map(), running: new Map() });
const { works, running } = held;

/** Says how jobs of a kind are done. */
export const jobsOf = (kind: string, work: Work): void => void works.set(kind, work);

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
    await works.get(job.kind)?.(job.id, control.signal);
    await finish(job);
  } catch (error) {
    if (!control.signal.aborted)
      await putOff(job, error instanceof Error ? error.message : String(error));
  } finally {
    clearInterval(renewing);
    running.delete(job.id);
  }
}

/** Tries a job now, whenever it would have been due. */
export async function workNow(id: string): Promise<void> {
  const job = await claimNow(id);
  if (job) await work(job);
}

/** Breaks off the work on a job that is gone or not wanted any more. */
export const breakOff = (id: string): void => running.get(id)?.abort();

/** Stops a job, also in the middle of its work. @returns false when there was nothing to stop */
export async function stopJob(id: string): Promise<boolean> {
  const stopped = await stop(id);
  breakOff(id);
  return stopped;
}

/** Does everything that is due now. */
export async function workDue(): Promise<void> {
  const lane = async () => {
    for (;;) {
      const job = await claimDue([...works.keys()]);
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
    if (busy) return;
    busy = true;
    workDue()
      .catch((error: unknown) => console.error('What waits could not be looked at:', error))
      .finally(() => (busy = false));
  }, TICK);
  held.timer.unref();
}
