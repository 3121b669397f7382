import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { z } from 'zod';
import { limits } from '@/core/values/limits';
import { errorOf, problemSchema } from '../base/acrossThreads';
import { Fault } from '../base/fault';
import type { TaskInput, TaskName, TaskValue } from '../work/tasks';
import { shared } from '../base/shared';

/** Threads: as many as there are cores, within reason. */
const THREADS = Math.min(4, Math.max(2, availableParallelism()));
/** Pixels that all tasks together may hold at a time; a larger one runs alone. */
const MOST_PIXELS = limits.pixels;
/**
 * What a thread may hold beside pixels, MB: what it makes of marks and words, and what writers of
 * files keep in lists (a PDF eight times its picture). Less on a small computer: REZZIK_THREAD_MB.
 */
const MOST_MEMORY = 1024;
const mostMemory = (): number => Number(process.env.REZZIK_THREAD_MB) || MOST_MEMORY;
/** How long a task may take, ms; a thread that takes longer is ended. */
const MOST_TIME = 120_000;

const answerSchema = z.union([
  z.object({
    id: z.int(),
    problem: problemSchema,
  }),
  z.object({ id: z.int(), value: z.unknown() }),
]);

interface Job {
  id: number;
  task: TaskName;
  input: unknown;
  pixels: number;
  ms: number;
  done: (value: unknown) => void;
  failed: (error: unknown) => void;
}

interface Thread {
  worker: Worker;
  job: Job | null;
  timer?: NodeJS.Timeout;
}

interface Pool {
  threads: Thread[];
  waiting: Job[];
  last: number;
  /** Pixels held outside the threads, and who waits to hold some. */
  held: number;
  holders: { pixels: number; begin: () => void }[];
}
const pool = shared<Pool>('pool', () => ({
  threads: [],
  waiting: [],
  last: 0,
  held: 0,
  holders: [],
}));

export interface Asking {
  /** About how many pixels it holds, for the budget that all tasks share. */
  pixels: number;
  /** How long it may take, ms; its thread is ended then. */
  ms?: number;
  /** Nobody waits any more: it is not begun, or its thread is ended. */
  signal?: AbortSignal | undefined;
}

/**
 * Does something heavy in a thread, never on the event loop.
 * @throws what the task throws; Fault 503 when it takes too long or too much memory; the signal's
 *   reason when stopped
 */
export function run<N extends TaskName>(
  task: N,
  input: TaskInput<N>,
  { pixels, ms = MOST_TIME, signal }: Asking,
): Promise<TaskValue<N>> {
  let stop = (): void => undefined;
  const result = new Promise<TaskValue<N>>((resolve, reject) => {
    if (signal?.aborted) return reject(signal.reason as Error);
    pool.last += 1;
    const job: Job = {
      ...{ id: pool.last, task, input, pixels, ms },
      done: (value) => resolve(value as TaskValue<N>),
      failed: reject,
    };
    stop = () => drop(job, signal?.reason as Error);
    signal?.addEventListener('abort', stop, { once: true });
    pool.waiting.push(job);
    next();
  });
  // One signal may be for thousands of tasks, and would hold what each was given.
  return result.finally(() => signal?.removeEventListener('abort', stop));
}

/**
 * Does what a library does in threads of its own, such as decoding, within the budget of pixels
 * that all tasks share.
 */
export async function holding<T>(pixels: number, act: () => Promise<T>): Promise<T> {
  await new Promise<void>((begin) => {
    pool.holders.push({ pixels, begin });
    next();
  });
  try {
    return await act();
  } finally {
    pool.held -= pixels;
    next();
  }
}

/** True when so many pixels more may be held now. */
function fits(pixels: number): boolean {
  const busy = pool.threads.reduce((sum, { job }) => sum + (job?.pixels ?? 0), pool.held);
  return busy === 0 || busy + pixels <= MOST_PIXELS;
}

/** Begins what waits, in its order, as far as threads and the budget allow; what holds comes first. */
function next(): void {
  for (;;) {
    const [holder] = pool.holders;
    if (!holder) break;
    if (!fits(holder.pixels)) return;
    pool.holders.shift();
    pool.held += holder.pixels;
    holder.begin();
  }
  for (;;) {
    const [job] = pool.waiting;
    if (!job || !fits(job.pixels)) return;
    const free = pool.threads.find((thread) => !thread.job);
    if (!free && pool.threads.length >= THREADS) return;
    pool.waiting.shift();
    begin(free ?? start(), job);
  }
}

function begin(thread: Thread, job: Job): void {
  thread.job = job;
  // A thread keeps a program alive only while it works.
  thread.worker.ref();
  thread.timer = setTimeout(() => {
    const words = 'This picture takes too long. Try it with fewer marks, or in a smaller size.';
    end(thread, new Fault(503, 'too-long', words));
  }, job.ms);
  const { id, task, input } = job;
  thread.worker.postMessage({ id, task, input });
}

/** A thread of one's own, which keeps what its tasks leave in it. */
export interface OwnThread {
  /** One task after the other. @throws as `run` does */
  run: <N extends TaskName>(task: N, input: TaskInput<N>) => Promise<TaskValue<N>>;
  end: () => void;
}

/** For tasks that go on from one another; whoever asks for it ends it. */
export function ownThread(): OwnThread {
  const thread = start();
  // Nothing of the pool is done in it.
  pool.threads = pool.threads.filter((other) => other !== thread);
  return {
    run: (task, input) =>
      new Promise((resolve, reject) => {
        pool.last += 1;
        const done = (value: unknown) => resolve(value as TaskValue<typeof task>);
        const job = { id: pool.last, task, input, pixels: 0, ms: MOST_TIME, done, failed: reject };
        begin(thread, job);
      }),
    end: () => end(thread, new Error('Nobody waits for it any more.')),
  };
}

function start(): Thread {
  const resourceLimits = { maxOldGenerationSizeMb: mostMemory() };
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { resourceLimits });
  const thread: Thread = { worker, job: null };
  worker.on('message', (message: unknown) => answered(thread, answerSchema.parse(message)));
  worker.on('error', (error) => end(thread, outOfMemory(error) ?? error));
  pool.threads.push(thread);
  return thread;
}

/** A thread that holds too much is ended by Node itself. */
function outOfMemory(error: unknown): Fault | null {
  const known = typeof error === 'object' && error !== null && 'code' in error;
  if (!known || error.code !== 'ERR_WORKER_OUT_OF_MEMORY') return null;
  const words = 'This picture takes too much memory. Try it with fewer marks and words.';
  return new Fault(503, 'too-much-memory', words);
}

function answered(thread: Thread, answer: z.infer<typeof answerSchema>): void {
  const { job } = thread;
  if (job?.id !== answer.id) return;
  clearTimeout(thread.timer);
  thread.job = null;
  thread.worker.unref();
  if ('problem' in answer) job.failed(errorOf(answer.problem));
  else job.done(answer.value);
  next();
}

/** Ends a thread with what it was doing; the next task gets another. */
function end(thread: Thread, reason: unknown): void {
  clearTimeout(thread.timer);
  pool.threads = pool.threads.filter((other) => other !== thread);
  void thread.worker.terminate();
  thread.job?.failed(reason);
  thread.job = null;
  next();
}

function drop(job: Job, reason: unknown): void {
  const thread = pool.threads.find((one) => one.job === job);
  if (thread) return end(thread, reason);
  if (!pool.waiting.includes(job)) return;
  pool.waiting = pool.waiting.filter((one) => one !== job);
  job.failed(reason);
  next();
}
