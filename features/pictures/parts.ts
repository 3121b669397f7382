import { transfer, wrap, type Remote } from 'comlink';
import type { Rect } from '@/core/geometry/rect';
import type { ScreenWorker } from '@/workers/screen.worker';

let remote: Remote<ScreenWorker> | null = null;

/** The parts that a stilled picture is made of; found in a worker of its own. */
export async function findPartsIn(picture: ImageBitmap): Promise<Rect[]> {
  remote ??= wrap<ScreenWorker>(
    new Worker(new URL('../../workers/screen.worker.ts', import.meta.url)),
  );
  const copy = await createImageBitmap(picture);
  return remote.findParts(transfer(copy, [copy]));
}
