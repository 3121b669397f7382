import { transfer } from 'comlink';
import type { Rect } from '@/core/geometry/rect';
import type { Size } from '@/core/geometry/size';
import type { Laid, Looked, StitchWorker } from '@/workers/stitch.worker';
import { workerOf } from './startWorker';

const ask = workerOf<StitchWorker>(
  () => new Worker(new URL('../../workers/stitch.worker.ts', import.meta.url)),
);

/** Begins a long page; what there was of another is let go. */
export const beginStitch = (): Promise<void> => ask((worker) => worker.begin());

/** Looks in the pictures shown so far for what is scrolled. The picture goes. */
export const findScrolled = (frame: ImageBitmap): Promise<Looked> =>
  ask((worker) => worker.find(transfer(frame, [frame])));

/** Lays a part of a picture where it belongs. The picture goes. */
export const addFrame = (frame: ImageBitmap, part: Rect): Promise<Laid> =>
  ask((worker) => worker.add(transfer(frame, [frame]), part));

/** The pieces, small: whole where they fit in a room one below the other, else the ends that grow. */
export const filmOf = (room: Size, least: number): Promise<ImageBitmap[]> =>
  ask((worker) => worker.film(room, least));

/** One picture for each piece as far as it is had. */
export const copyStitch = (): Promise<ImageBitmap[]> => ask((worker) => worker.copy());

/** One picture for each piece; after that there is nothing any more. */
export const finishStitch = (): Promise<ImageBitmap[]> => ask((worker) => worker.finish());
