/** A place in frame pixels: origin at the top left, y downward. */
export interface Point {
  x: number;
  y: number;
}

export const add = (a: Point, b: Point): Point => ({ x: a.x + b.x, y: a.y + b.y });

export const subtract = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y });

export const midpoint = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });

export const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** The point at the same distance from `origin`, its direction rounded to whole steps of `degrees`. */
export function snapDirection(origin: Point, to: Point, degrees: number): Point {
  const step = (degrees * Math.PI) / 180;
  const angle = Math.round(Math.atan2(to.y - origin.y, to.x - origin.x) / step) * step;
  const length = distance(origin, to);
  return { x: origin.x + Math.cos(angle) * length, y: origin.y + Math.sin(angle) * length };
}

/** Shortest distance from `p` to the segment `a`–`b`. */
export function distanceToSegment(p: Point, a: Point, b: Point): number {
  const ab = subtract(b, a);
  const squared = ab.x * ab.x + ab.y * ab.y;
  if (squared === 0) return distance(p, a);
  const t = ((p.x - a.x) * ab.x + (p.y - a.y) * ab.y) / squared;
  const clamped = Math.min(1, Math.max(0, t));
  return distance(p, { x: a.x + ab.x * clamped, y: a.y + ab.y * clamped });
}

/** Shortest distance from `p` to a polyline of at least one point. */
export function distanceToPolyline(p: Point, points: readonly Point[]): number {
  const [first] = points;
  if (!first) return Infinity;
  let best = distance(p, first);
  points.forEach((point, i) => {
    const before = points[i - 1];
    if (before) best = Math.min(best, distanceToSegment(p, before, point));
  });
  return best;
}
