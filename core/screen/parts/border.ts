import { bottom, right, type Rect } from '../../geometry/rect';
import type { ReadablePixels } from '../../raster/pixels';

/** Borders are sought this far outside an area. */
const FARTHEST = 3;
/** Part of a side along which a border must run; its corners may be round. */
const ALONG = 0.7;
const DIFFERENT = 8;

type Side = 'left' | 'top' | 'right' | 'bottom';

/** An even area with the border drawn around it, side by side: each side grows to the last edge. */
export function grownToBorder(picture: ReadablePixels, r: Rect): Rect {
  const left = reach(picture, r, 'left');
  const top = reach(picture, r, 'top');
  const far = reach(picture, r, 'right');
  const low = reach(picture, r, 'bottom');
  return { x: r.x - left, y: r.y - top, width: r.width + left + far, height: r.height + top + low };
}

/**
 * How far out the border along a side reaches, in pixels: a line, and further ones while edges
 * follow each other without a gap, as on a bevel of two tones. What lies behind a gap is a
 * neighbour; a thicker even border is an area of its own.
 */
function reach(picture: ReadablePixels, r: Rect, side: Side): number {
  let found = 0;
  for (let k = 1; k <= FARTHEST; k += 1) {
    if (edgeAlong(picture, r, side, k)) found = k;
    else break;
  }
  return found;
}

/** True when the line `k` pixels outside a side differs all along from the next one out. */
function edgeAlong(picture: ReadablePixels, r: Rect, side: Side, k: number): boolean {
  const { width, height, data } = picture;
  const upright = side === 'left' || side === 'right';
  const inner = {
    left: r.x - k,
    right: right(r) - 1 + k,
    top: r.y - k,
    bottom: bottom(r) - 1 + k,
  }[side];
  const outer = side === 'left' || side === 'top' ? inner - 1 : inner + 1;
  const end = upright ? width : height;
  if (inner < 0 || inner >= end || outer < 0 || outer >= end) return false;
  const from = upright ? r.y : r.x;
  const length = upright ? r.height : r.width;
  const step = Math.max(1, Math.floor(length / 64));
  let edges = 0;
  let seen = 0;
  for (let i = from; i < from + length; i += step) {
    const a = ((upright ? i * width + inner : inner * width + i) * 4) | 0;
    const b = ((upright ? i * width + outer : outer * width + i) * 4) | 0;
    const d = Math.max(
      Math.abs((data[a] ?? 0) - (data[b] ?? 0)),
      Math.abs((data[a + 1] ?? 0) - (data[b + 1] ?? 0)),
      Math.abs((data[a + 2] ?? 0) - (data[b + 2] ?? 0)),
    );
    seen += 1;
    if (d >= DIFFERENT) edges += 1;
  }
  return edges >= seen * ALONG;
}
