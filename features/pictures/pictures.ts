import { transfer, wrap, type Remote } from 'comlink';
import type { HeldPicture } from '@/core/contracts/pictures';
import type { Turn } from '@/core/contracts/shapes';
import type { ShotDocument } from '@/core/contracts/document';
import type { PictureWorker } from '@/workers/picture.worker';

let remote: Remote<PictureWorker> | null = null;

function worker(): Remote<PictureWorker> {
  remote ??= wrap<PictureWorker>(
    new Worker(new URL('../../workers/picture.worker.ts', import.meta.url)),
  );
  return remote;
}

/** Starts the worker before it is needed, so the first take does not wait for it. */
export const warmUp = (): void => void worker();

/** The worker gets a copy, since what is handed over is gone here. */
async function handOver(frame: ImageBitmap): Promise<ImageBitmap> {
  const copy = await createImageBitmap(frame);
  return transfer(copy, [copy]);
}

/** A whole frame as PNG, without loss. */
export const encodeFrame = async (frame: ImageBitmap): Promise<Blob> =>
  worker().encode(await handOver(frame));

/** A shot as it leaves, as PNG: the view of the frame with its marks. */
export const paintPng = async (frame: ImageBitmap, document: ShotDocument): Promise<Blob> =>
  worker().paintPng(await handOver(frame), document);

/** Decodes a frame without changing its values. */
export const decodeFrame = (blob: Blob): Promise<ImageBitmap> =>
  createImageBitmap(blob, { colorSpaceConversion: 'none' });

/** A frame as a view turns it, resampled once. */
export const turnFrame = async (frame: ImageBitmap, turn: Turn): Promise<ImageBitmap> =>
  worker().turn(await handOver(frame), turn);

/** A picture as a document holds it, and whether it had to be made smaller for that. */
export const packPiece = async (
  picture: ImageBitmap,
): Promise<{ held: HeldPicture; shrunk: boolean }> => worker().pack(await handOver(picture));
