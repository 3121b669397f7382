import { bottom, right, type Rect } from '../../geometry/rect';
import type { Mask } from '../../raster/mask';
import { wordsOf, type RgbaPixels } from '../../raster/pixels';

/** Red, green, blue, 0–255 with fractions. */
export type Colour3 = readonly [number, number, number];

/**
 * What may be known around a hidden area: pixels of the picture with everything hidden blotted out.
 * Whatever fills an area is worked out from this alone.
 */
export interface Surround {
  /** The part of the picture these pixels are of. */
  at: Rect;
  pixels: RgbaPixels;
  /** 1 where a pixel may be known; row-major like the pixels. */
  known: Uint8Array;
}

/** How far around an area is looked. */
const REACH = 24;

/** The rectangle that is read for an area: it and a rim, within the view. */
export function surroundOf(area: Rect, view: Rect): Rect {
  const x = Math.max(view.x, area.x - REACH);
  const y = Math.max(view.y, area.y - REACH);
  return {
    x,
    y,
    width: Math.min(right(view), right(area) + REACH) - x,
    height: Math.min(bottom(view), bottom(area) + REACH) - y,
  };
}

/** Blots out every pixel that any mask hides or that the view does not show. */
export function blotOut(
  at: Rect,
  pixels: RgbaPixels,
  hidden: readonly Mask[],
  shown: (x: number, y: number) => boolean,
): Surround {
  const { width, height } = at;
  const given = wordsOf(pixels);
  const words = new Uint32Array(width * height);
  const known = new Uint8Array(width * height).fill(1);
  for (const mask of hidden) blot(known, at, mask);
  // Most of what is around a large area is that area: it is stepped over.
  for (let i = known.indexOf(1); i >= 0; i = known.indexOf(1, i)) {
    for (; known[i] === 1; i += 1) {
      if (pixels.data[i * 4 + 3] && shown(at.x + (i % width), at.y + Math.floor(i / width))) {
        words[i] = given[i] ?? 0;
      } else known[i] = 0;
    }
  }
  return { at, pixels: { data: new Uint8ClampedArray(words.buffer), width, height }, known };
}

function blot(known: Uint8Array, at: Rect, mask: Mask): void {
  const x0 = Math.max(at.x, mask.x);
  const x1 = Math.min(right(at), right(mask));
  if (x1 <= x0) return;
  for (let y = Math.max(at.y, mask.y); y < Math.min(bottom(at), bottom(mask)); y += 1) {
    const row = (y - mask.y) * mask.width - mask.x;
    const to = (y - at.y) * at.width - at.x;
    if (mask.whole) known.fill(0, to + x0, to + x1);
    else for (let x = x0; x < x1; x += 1) if (mask.data[row + x]) known[to + x] = 0;
  }
}

/** Colours from the known pixels near the area, evenly spread, at most `most`. */
export function palette({ pixels, known }: Surround, most = 256): Colour3[] {
  const all: number[] = [];
  for (let i = known.indexOf(1); i >= 0; i = known.indexOf(1, i))
    for (; known[i] === 1; i += 1) all.push(i);
  const step = Math.max(1, all.length / most);
  const colours: Colour3[] = [];
  for (let k = 0; k < all.length; k += step) {
    const i = (all[Math.floor(k)] ?? 0) * 4;
    colours.push([pixels.data[i] ?? 0, pixels.data[i + 1] ?? 0, pixels.data[i + 2] ?? 0]);
  }
  return colours;
}
