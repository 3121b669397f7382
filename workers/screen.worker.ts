import { expose } from 'comlink';
import type { Rect } from '@/core/geometry/rect';
import { findParts } from '@/core/screen/parts';

const worker = {
  /** The parts of a stilled picture, found in its pixels. */
  findParts(frame: ImageBitmap): Rect[] {
    const { width, height } = frame;
    const canvas = new OffscreenCanvas(width, height);
    const surface = canvas.getContext('2d', { willReadFrequently: true });
    if (!surface) throw new Error('This browser gives no canvas of that size.');
    surface.drawImage(frame, 0, 0);
    frame.close();
    return findParts({ data: surface.getImageData(0, 0, width, height).data, width, height });
  },
};

export type ScreenWorker = typeof worker;

expose(worker);
