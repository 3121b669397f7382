import type { Rect } from '../geometry/rect';
import type { ReadablePixels } from '../raster/pixels';

/** Where it counts that a picture has changed, in its pixels. */
export interface Watched {
  /** Null: all of it. */
  watch: Rect | null;
  ignore: readonly Rect[];
}

/** Sets a rectangle of a map of the picture, as far as it lies in it. */
function fill(map: Uint8Array, { width, height }: ReadablePixels, r: Rect, value: 0 | 1): void {
  const left = Math.max(0, Math.floor(r.x));
  const right = Math.min(width, Math.ceil(r.x + r.width));
  const bottom = Math.min(height, Math.ceil(r.y + r.height));
  if (right <= left) return;
  for (let y = Math.max(0, Math.floor(r.y)); y < bottom; y += 1)
    map.fill(value, y * width + left, y * width + right);
}

/**
 * How much of a picture is another one than before.
 * @param before, after RGBA, row-major, width × height × 4
 * @returns 0–1, of the pixels that are watched; 1 where the sizes differ, 0 where nothing is watched
 */
export function changedShare(
  before: ReadablePixels,
  after: ReadablePixels,
  { watch, ignore }: Watched,
): number {
  const { width, height } = after;
  if (before.width !== width || before.height !== height) return 1;
  const map = new Uint8Array(width * height);
  fill(map, after, watch ?? { x: 0, y: 0, width, height }, 1);
  for (const area of ignore) fill(map, after, area, 0);
  let watched = 0;
  let changed = 0;
  for (let i = 0; i < map.length; i += 1) {
    if (map[i] === 0) continue;
    watched += 1;
    const at = i * 4;
    if (
      before.data[at] !== after.data[at] ||
      before.data[at + 1] !== after.data[at + 1] ||
      before.data[at + 2] !== after.data[at + 2] ||
      before.data[at + 3] !== after.data[at + 3]
    )
      changed += 1;
  }
  return watched === 0 ? 0 : changed / watched;
}
