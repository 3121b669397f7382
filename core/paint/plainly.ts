import { channelsOf } from '../finish/surround/background';
import type { Layout } from '../finish/surround/layout';
import type { Surround } from '../finish/surround/surround';
import { OPAQUE, wordsOf, type ReadablePixels, type RgbaPixels } from '../raster/pixels';

/** All that is around a picture is whole pixels of one colour, or nothing. */
export const isPlain = ({ fold: _, border, background, ...more }: Surround): boolean =>
  !border?.corners &&
  (background?.colours.length ?? 0) < 2 &&
  Object.values(more).every((part) => part === undefined);

/** An opaque pixel of a colour, as one number as in `wordsOf`. */
function wordOf(colour: string): number {
  const [r, g, b] = channelsOf(colour);
  return (OPAQUE | (b << 16) | (g << 8) | r) >>> 0;
}

/**
 * A picture with what is around it, where that is plain: worked out from pixels alone, the same as
 * painted.
 * @param picture RGBA, row-major, opaque
 * @returns RGBA, row-major, as large as the whole of the layout
 */
export function plainlySurrounded(
  picture: ReadablePixels,
  { border, background }: Surround,
  { whole, at, rim, pieces }: Layout,
): RgbaPixels {
  const { width, height } = whole;
  const words = new Uint32Array(width * height);
  const from = wordsOf(picture);
  const [ground] = background?.colours ?? [];
  if (ground !== undefined) words.fill(wordOf(ground));
  for (const { source, at: on } of pieces) {
    const [left, top] = [at.x + on.x, at.y + on.y];
    if (border) {
      const ink = wordOf(border.colour);
      for (let y = top - rim; y < top + source.height + rim; y += 1)
        words.fill(ink, y * width + left - rim, y * width + left + source.width + rim);
    }
    for (let y = 0; y < source.height; y += 1) {
      const row = (source.y + y) * picture.width + source.x;
      words.set(from.subarray(row, row + source.width), (top + y) * width + left);
    }
  }
  return { data: new Uint8ClampedArray(words.buffer), width, height };
}
