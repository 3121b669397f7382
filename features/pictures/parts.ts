import { transfer } from 'comlink';
import type { Rect } from '@/core/geometry/rect';
import type { ScreenWorker } from '@/workers/screen.worker';
import { workerOf } from './startWorker';

const ask = workerOf<ScreenWorker>(
  () => new Worker(new URL('../../workers/screen.worker.ts', import.meta.url)),
);

/** The parts that a stilled picture is made of; found in a worker of its own. */
export async function findPartsIn(picture: ImageBitmap): Promise<Rect[]> {
  const copy = await createImageBitmap(picture);
  return ask((worker) => worker.findParts(transfer(copy, [copy])));
}
