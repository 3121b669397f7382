import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { z } from 'zod';
import type { LikenessMap } from '@/core/keep/likenessMap';

export interface Rgba {
  data: Uint8ClampedArray;
  width: number;
  height: number;
}

export interface Compared {
  likeness: number;
  map: LikenessMap;
}

const answerSchema = z.union([
  z.object({
    id: z.int(),
    mssim: z.number(),
    data: z.custom<Float64Array>((value) => ArrayBuffer.isView(value)),
    width: z.int(),
    height: z.int(),
  }),
  z.object({ id: z.int(), problem: z.string() }),
]);

interface Waiting {
  done: (compared: Compared) => void;
  failed: (error: Error) => void;
}
const waiting = new Map<number, Waiting>();
let worker: Worker | null = null;
let last = 0;

/**
 * How like two pictures of one size are, from 0 to 1: structural similarity (Wang et al. 2004) at
 * full resolution, the variant “fast” of ssim.js, without the usual shrinking, which flatters.
 * Worked out in a thread of its own, one after another.
 */
export function compare(a: Rgba, b: Rgba): Promise<Compared> {
  worker ??= start();
  last += 1;
  const id = last;
  const bare = ({ data, width, height }: Rgba): Rgba => ({ data, width, height });
  // It keeps a program alive only as long as an answer is waited for.
  worker.ref();
  worker.postMessage({ id, a: bare(a), b: bare(b) });
  return new Promise((done, failed) => waiting.set(id, { done, failed }));
}

function start(): Worker {
  const path = join(process.cwd(), 'server', 'keep', 'ssim.worker.mjs');
  const made = new Worker(/* turbopackIgnore: true */ path);
  made.on('message', (message: unknown) => answered(answerSchema.parse(message)));
  made.on('error', (error: Error) => {
    worker = null;
    for (const { failed } of waiting.values()) failed(error);
    waiting.clear();
  });
  return made;
}

function answered(answer: z.infer<typeof answerSchema>): void {
  const asked = waiting.get(answer.id);
  waiting.delete(answer.id);
  if (waiting.size === 0) worker?.unref();
  if ('problem' in answer) asked?.failed(new Error(answer.problem));
  else {
    const { mssim, data, width, height } = answer;
    asked?.done({ likeness: mssim, map: { data, width, height } });
  }
}
