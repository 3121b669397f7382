import { add, distanceToPolyline, midpoint, type Point, subtract } from './point';
import { rectFromPoints, union, type Rect } from './rect';

/**
 * A straight or bent line. `bend` is the offset from the middle of the chord to the point of the
 * curve at t = ½, so the handle lies on the line itself.
 */
export interface BentLine {
  from: Point;
  to: Point;
  bend: Point | null;
}

/** The point of the curve at its middle: where the bend handle sits. */
export function middle(line: BentLine): Point {
  const half = midpoint(line.from, line.to);
  return line.bend ? add(half, line.bend) : half;
}

/**
 * The control point of the quadratic Bézier through from, middle, to.
 * From B(½) = ¼·from + ½·control + ¼·to.
 */
export function control(line: BentLine): Point {
  const half = midpoint(line.from, line.to);
  return line.bend ? { x: half.x + 2 * line.bend.x, y: half.y + 2 * line.bend.y } : half;
}

export function pointAt(line: BentLine, t: number): Point {
  const c = control(line);
  const u = 1 - t;
  return {
    x: u * u * line.from.x + 2 * u * t * c.x + t * t * line.to.x,
    y: u * u * line.from.y + 2 * u * t * c.y + t * t * line.to.y,
  };
}

/** Direction of travel at an end, in radians, pointing outward (away from the line). */
export function outwardAngle(line: BentLine, end: 'from' | 'to'): number {
  const c = control(line);
  const tip = line[end];
  const before = tip.x === c.x && tip.y === c.y ? line[end === 'to' ? 'from' : 'to'] : c;
  const d = subtract(tip, before);
  return Math.atan2(d.y, d.x);
}

/** `count` + 1 points along the curve, ends included. */
export function sample(line: BentLine, count = 24): Point[] {
  if (!line.bend) return [line.from, line.to];
  return Array.from({ length: count + 1 }, (_, i) => pointAt(line, i / count));
}

export const distanceToBent = (p: Point, line: BentLine): number =>
  distanceToPolyline(p, sample(line));

/** Exact bounds of the curve: its ends and, per axis, where the derivative is zero. */
export function bentBounds(line: BentLine): Rect {
  const c = control(line);
  const extremes = (['x', 'y'] as const).flatMap((axis) => {
    const divisor = line.from[axis] - 2 * c[axis] + line.to[axis];
    const t = divisor === 0 ? -1 : (line.from[axis] - c[axis]) / divisor;
    return t > 0 && t < 1 ? [pointAt(line, t)] : [];
  });
  return union([
    rectFromPoints(line.from, line.to),
    ...extremes.map((p) => ({ x: p.x, y: p.y, width: 0, height: 0 })),
  ]);
}

/** The curve cut at parameter t (de Casteljau): the part from 0 to t, or from t to 1. */
export function cutBent(line: BentLine, t: number, keep: 'before' | 'after'): BentLine {
  const at = pointAt(line, t);
  if (!line.bend) return keep === 'before' ? { ...line, to: at } : { ...line, from: at };
  const c = control(line);
  const lerp = (a: Point, b: Point): Point => ({
    x: a.x + (b.x - a.x) * t,
    y: a.y + (b.y - a.y) * t,
  });
  const near = keep === 'before' ? lerp(line.from, c) : lerp(c, line.to);
  const from = keep === 'before' ? line.from : at;
  const to = keep === 'before' ? at : line.to;
  const half = midpoint(from, to);
  return { from, to, bend: { x: (near.x - half.x) / 2, y: (near.y - half.y) / 2 } };
}
