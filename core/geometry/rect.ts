import type { Size } from './size';
import type { Point } from './point';

/** A half-open rectangle: it holds the pixels x ≤ px < x + width, y ≤ py < y + height. */
export interface Rect {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The rectangle with the two points as opposite corners, whatever their order. */
export function rectFromPoints(a: Point, b: Point): Rect {
  return {
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x),
    height: Math.abs(a.y - b.y),
  };
}

export const right = (r: Rect): number => r.x + r.width;
export const bottom = (r: Rect): number => r.y + r.height;
export const centre = (r: Rect): Point => ({ x: r.x + r.width / 2, y: r.y + r.height / 2 });

export function contains(r: Rect, p: Point): boolean {
  return p.x >= r.x && p.y >= r.y && p.x < right(r) && p.y < bottom(r);
}

/** True when two rectangles share some area. */
export const overlap = (a: Rect, b: Rect): boolean =>
  a.x < right(b) && b.x < right(a) && a.y < bottom(b) && b.y < bottom(a);

/** True when all of a rectangle lies in another. */
export const encloses = (outer: Rect, r: Rect): boolean =>
  r.x >= outer.x && r.y >= outer.y && right(r) <= right(outer) && bottom(r) <= bottom(outer);

/** What two rectangles share; null when nothing. */
export function intersection(a: Rect, b: Rect): Rect | null {
  const x = Math.max(a.x, b.x);
  const y = Math.max(a.y, b.y);
  const width = Math.min(right(a), right(b)) - x;
  const height = Math.min(bottom(a), bottom(b)) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : null;
}

/** The smallest rectangle around points, however many; an empty one at 0, 0 for none. */
export function boundsOf(points: readonly Point[]): Rect {
  const [first] = points;
  if (!first) return { x: 0, y: 0, width: 0, height: 0 };
  let { x, y } = first;
  let [farX, farY] = [x, y];
  for (const p of points) {
    if (p.x < x) x = p.x;
    if (p.y < y) y = p.y;
    if (p.x > farX) farX = p.x;
    if (p.y > farY) farY = p.y;
  }
  return { x, y, width: farX - x, height: farY - y };
}

/** The smallest rectangle around all of them; an empty one at 0, 0 for an empty list. */
export function union(rects: readonly Rect[]): Rect {
  if (rects.length === 0) return { x: 0, y: 0, width: 0, height: 0 };
  const x = Math.min(...rects.map((r) => r.x));
  const y = Math.min(...rects.map((r) => r.y));
  return {
    x,
    y,
    width: Math.max(...rects.map(right)) - x,
    height: Math.max(...rects.map(bottom)) - y,
  };
}

export const inflate = (r: Rect, by: number): Rect => ({
  x: r.x - by,
  y: r.y - by,
  width: r.width + 2 * by,
  height: r.height + 2 * by,
});

/** The smallest rectangle of whole pixels around `r`. */
export function outerPixels(r: Rect): Rect {
  const x = Math.floor(r.x);
  const y = Math.floor(r.y);
  return { x, y, width: Math.ceil(right(r)) - x, height: Math.ceil(bottom(r)) - y };
}

/**
 * Moves `r` as little as possible so that it lies inside `limits`; what is larger than the
 * limits is cut to their size.
 */
export function moveInside(r: Rect, limits: Rect): Rect {
  const width = Math.min(r.width, limits.width);
  const height = Math.min(r.height, limits.height);
  return {
    x: Math.min(Math.max(r.x, limits.x), right(limits) - width),
    y: Math.min(Math.max(r.y, limits.y), bottom(limits) - height),
    width,
    height,
  };
}

/** The scale at which `inner` just fits into `outer`, never more than `most`. */
export function fitScale(inner: Size, outer: Size, most = Infinity): number {
  return Math.min(outer.width / inner.width, outer.height / inner.height, most);
}

/** What lies around a rectangle within another one: above, below, left and right of it. */
export function rimOf(at: Rect, inner: Rect): Rect[] {
  const { x, width } = at;
  const across = { y: inner.y, height: inner.height };
  return [
    { x, width, y: at.y, height: inner.y - at.y },
    { x, width, y: bottom(inner), height: bottom(at) - bottom(inner) },
    { ...across, x, width: inner.x - x },
    { ...across, x: right(inner), width: right(at) - right(inner) },
  ].filter((rim) => rim.width > 0 && rim.height > 0);
}
