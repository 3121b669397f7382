import type { Rect } from '../geometry/rect';
import { wordsOf, type ReadablePixels } from '../raster/pixels';
import type { Size } from '../geometry/size';

/** Likeness place by place, 1 for the very same; row by row, a little smaller than the pictures. */
export interface LikenessMap {
  data: ArrayLike<number>;
  width: number;
  height: number;
}

/** Side of what is shown as the worst spot, pixels. */
export const SPOT = 48;

/** Half a window is missing at each side of the map. */
const margins = (map: LikenessMap, picture: Size) => ({
  x: (picture.width - map.width) / 2,
  y: (picture.height - map.height) / 2,
});

/** The place where a result is least like the original, and how like it is there. */
export function worstSpot(map: LikenessMap, picture: Size): { at: Rect; likeness: number } {
  let [least, index] = [Infinity, 0];
  for (let i = 0; i < map.data.length; i += 1) {
    const value = map.data[i] ?? 1;
    if (value < least) [least, index] = [value, i];
  }
  const margin = margins(map, picture);
  const x = (index % map.width) + margin.x;
  const y = Math.floor(index / map.width) + margin.y;
  const w = Math.min(SPOT, picture.width);
  const h = Math.min(SPOT, picture.height);
  return {
    at: {
      x: Math.round(Math.min(Math.max(0, x - w / 2), picture.width - w)),
      y: Math.round(Math.min(Math.max(0, y - h / 2), picture.height - h)),
      width: w,
      height: h,
    },
    likeness: least,
  };
}

/** The share of places with something to see that may be less like. */
const FEW = 0.02;
/** Lightness differs by more than this, of 255, around a place where there is something to see. */
const CONTRAST = 24;
/** Around means so many pixels to each side. */
const AROUND = 2;
/** Places looked at, spread evenly. */
const MOST_PLACES = 60_000;

/**
 * How like a result is where it matters: the likeness that all but the worst fiftieth of places
 * with something to see (letters, edges) have. Flat ground, most of any screen, would hide what
 * happened to the letters.
 * @param picture the original, RGBA
 * @returns 1 where nothing is to be seen at all
 */
export function lowLikeness(map: LikenessMap, picture: ReadablePixels): number {
  const margin = margins(map, picture);
  const words = wordsOf(picture);
  const step = Math.max(1, Math.floor(Math.sqrt((map.width * map.height) / MOST_PLACES)));
  const some: number[] = [];
  for (let y = 0; y < map.height; y += step) {
    for (let x = 0; x < map.width; x += step) {
      const [px, py] = [Math.round(x + margin.x), Math.round(y + margin.y)];
      if (showsSomething(words, picture, px, py)) some.push(map.data[y * map.width + x] ?? 1);
    }
  }
  // Numbers by themselves are put in order ten times as fast as by asking a function.
  return Float64Array.from(some).sort()[Math.floor(some.length * FEW)] ?? 1;
}

/** Whether lightness (weights of ITU-R BT.601) differs by enough around a pixel. */
function showsSomething(words: Uint32Array, { width, height }: Size, x: number, y: number) {
  let [least, most] = [255, 0];
  const bottom = Math.min(height - 1, y + AROUND);
  const right = Math.min(width - 1, x + AROUND);
  for (let v = Math.max(0, y - AROUND); v <= bottom; v += 1) {
    for (let u = Math.max(0, x - AROUND); u <= right; u += 1) {
      const word = words[v * width + u] as number;
      const light =
        0.299 * (word & 255) + 0.587 * ((word >> 8) & 255) + 0.114 * ((word >> 16) & 255);
      if (light < least) least = light;
      if (light > most) most = light;
    }
    if (most - least > CONTRAST) return true;
  }
  return false;
}
