import type { Rect } from '@/core/geometry/rect';

const WIDTH = 160;
/** Wide enough that a thumbnail of half the picture is still sharp. */
const REDUCED = 640;

/** Large frames made small once, while choosing goes on, so that an answer has nothing to wait for. */
const reduced = new WeakMap<ImageBitmap, Promise<ImageBitmap>>();

export function prepareThumb(frame: ImageBitmap): void {
  if (frame.width <= 2 * REDUCED || reduced.has(frame)) return;
  const small = createImageBitmap(frame, { resizeWidth: REDUCED, resizeQuality: 'medium' });
  small.catch(() => undefined);
  reduced.set(frame, small);
}

/** A small PNG of the part of a frame that a view shows. */
export async function thumbOf(frame: ImageBitmap, crop: Rect): Promise<Blob> {
  const small = crop.width * 2 > frame.width ? await reduced.get(frame) : undefined;
  const from = small ?? frame;
  const scale = from.width / frame.width;
  const width = Math.max(1, Math.min(WIDTH, crop.width));
  const height = Math.max(1, Math.round((crop.height * width) / crop.width));
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context) throw new Error('This browser gives no canvas.');
  context.imageSmoothingQuality = 'medium';
  const [x, y] = [crop.x * scale, crop.y * scale];
  context.drawImage(from, x, y, crop.width * scale, crop.height * scale, 0, 0, width, height);
  return canvas.convertToBlob();
}
