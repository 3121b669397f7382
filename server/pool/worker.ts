import { setPriority } from 'node:os';
import { parentPort } from 'node:worker_threads';
import { z } from 'zod';
import { problemOf } from '../base/acrossThreads';
import { tasks } from '../work/tasks';

/** A thread of the pool: one task after another, each answered. server/pool/pool.ts talks to it. */
const askedSchema = z.object({
  id: z.int(),
  task: z.enum(Object.keys(tasks) as [keyof typeof tasks]),
  input: z.custom<never>(),
});

/**
 * Of this thread alone, as Linux counts priorities: where all cores are busy, whoever asks for a
 * page, and whatever else the computer is used for, comes first (the rest: bin/lib/priority.mjs).
 */
const YIELDING = 10;
setPriority(YIELDING);

parentPort?.on('message', (message: unknown) => {
  const { id, task, input } = askedSchema.parse(message);
  tasks[task](input).then(
    ({ value, handOver = [] }) => parentPort?.postMessage({ id, value }, handOver),
    (error: unknown) => parentPort?.postMessage({ id, problem: problemOf(error) }),
  );
});
