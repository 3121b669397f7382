import { transfer } from 'comlink';
import type { HeldPicture } from '@/core/values/heldPicture';
import type { Adjust } from '@/core/finish/adjust/adjust';
import type { Turn } from '@/core/document/viewSchema';
import type { Point } from '@/core/geometry/point';
import type { ShotDocument } from '@/core/document/document';
import type { PictureWorker } from '@/workers/picture.worker';
import { workerOf } from './startWorker';

const ask = workerOf<PictureWorker>(
  () => new Worker(new URL('../../workers/picture.worker.ts', import.meta.url)),
);

/** Starts the worker before it is needed, so the first take does not wait for it. */
export const warmUp = (): void => void ask(() => Promise.resolve());

/** The worker gets a copy, since what is handed over is gone here. */
async function handOver(frame: ImageBitmap): Promise<ImageBitmap> {
  const copy = await createImageBitmap(frame);
  return transfer(copy, [copy]);
}

/** A whole frame as PNG, without loss. */
export const encodeFrame = (frame: ImageBitmap): Promise<Blob> =>
  ask(async (worker) => worker.encode(await handOver(frame)));

/** A shot as it leaves, as PNG: the view of the frame with its marks. */
export const paintPng = (frame: ImageBitmap, document: ShotDocument): Promise<Blob> =>
  ask(async (worker) => worker.paintPng(await handOver(frame), document));

/** A shot as it leaves, as a bitmap to be looked at. @param scale of it, 0–1 */
export const paintView = (
  frame: ImageBitmap,
  document: ShotDocument,
  scale: number,
): Promise<ImageBitmap> =>
  ask(async (worker) => worker.paintView(await handOver(frame), document, scale));

/** Decodes a frame without changing its values. */
export const decodeFrame = (blob: Blob): Promise<ImageBitmap> =>
  createImageBitmap(blob, { colorSpaceConversion: 'none' });

/** A frame with its content elsewhere; what it leaves is black, and what leaves it is gone. */
export function shifted(frame: ImageBitmap, { x, y }: Point): ImageBitmap {
  const { width, height } = frame;
  const context = new OffscreenCanvas(width, height).getContext('2d', { alpha: false });
  if (!context) throw new Error('This browser gives no canvas.');
  context.drawImage(frame, x, y);
  return context.canvas.transferToImageBitmap();
}

/** A frame as a view turns it, resampled once. */
export const turnFrame = (frame: ImageBitmap, turn: Turn): Promise<ImageBitmap> =>
  ask(async (worker) => worker.turn(await handOver(frame), turn));

/** A picture as it is adjusted. */
export const adjustPicture = (picture: ImageBitmap, adjust: Adjust): Promise<ImageBitmap> =>
  ask(async (worker) => worker.adjust(await handOver(picture), adjust));

/** A picture as a document holds it, and whether it had to be made smaller for that. */
export const packPiece = (picture: ImageBitmap): Promise<{ held: HeldPicture; shrunk: boolean }> =>
  ask(async (worker) => worker.pack(await handOver(picture)));

let lastKey = 0;

/** A picture as the worker keeps it, to be asked for contrasts again and again. */
export class WatchedPicture {
  private readonly key = (lastKey += 1);
  private readonly there: Promise<void>;

  constructor(readonly picture: ImageBitmap) {
    this.there = ask(async (worker) => worker.hold(this.key, await handOver(picture)));
    this.there.catch(() => undefined);
  }

  /** The contrasts of some marks with what is below them; null where another picture took its place. */
  async contrasts(
    document: ShotDocument,
    ids: readonly string[],
  ): Promise<Map<string, number | null> | null> {
    await this.there;
    return ask((worker) => worker.contrasts(this.key, document, ids));
  }
}

export const letGoPicture = (): Promise<void> => ask((worker) => worker.letGo());
