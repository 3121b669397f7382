import type { Size } from './size';
import { inverse, multiply, type Matrix } from './matrix';
import type { Point } from './point';

/** Four corners in order: top left, top right, bottom right, bottom left. */
export type Quad = readonly [Point, Point, Point, Point];

/**
 * The projective map that takes the unit square to a quadrilateral: (0,0) (1,0) (1,1) (0,1) to its
 * corners in order. P. Heckbert, Fundamentals of Texture Mapping and Image Warping, 1989, §2.2.3.
 */
function squareTo([p0, p1, p2, p3]: Quad): Matrix {
  const sx = p0.x - p1.x + p2.x - p3.x;
  const sy = p0.y - p1.y + p2.y - p3.y;
  if (sx === 0 && sy === 0) {
    return [p1.x - p0.x, p2.x - p1.x, p0.x, p1.y - p0.y, p2.y - p1.y, p0.y, 0, 0, 1];
  }
  const [dx1, dy1] = [p1.x - p2.x, p1.y - p2.y];
  const [dx2, dy2] = [p3.x - p2.x, p3.y - p2.y];
  const det = dx1 * dy2 - dx2 * dy1;
  const g = (sx * dy2 - dx2 * sy) / det;
  const h = (dx1 * sy - sx * dy1) / det;
  return [
    p1.x - p0.x + g * p1.x,
    p3.x - p0.x + h * p3.x,
    p0.x,
    p1.y - p0.y + g * p1.y,
    p3.y - p0.y + h * p3.y,
    p0.y,
    g,
    h,
    1,
  ];
}

/**
 * The projective map that takes four corners to four others (R. Hartley, A. Zisserman, Multiple
 * View Geometry, ch. 4). @throws RangeError when three corners of `from` lie in one line
 */
export function homography(from: Quad, to: Quad): Matrix {
  const m = multiply(squareTo(to), inverse(squareTo(from)));
  const [a, b, c, d, e, f, g, h, scale] = m;
  const by = (v: number) => v / scale;
  return [by(a), by(b), by(c), by(d), by(e), by(f), by(g), by(h), 1];
}

const turnAt = (a: Point, b: Point, c: Point): number =>
  (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);

/** True for corners that go clockwise around a convex area of at least `least` square pixels. */
export function isSound([a, b, c, d]: Quad, least = 1): boolean {
  return [turnAt(a, b, c), turnAt(b, c, d), turnAt(c, d, a), turnAt(d, a, b)].every(
    (turn) => turn > least,
  );
}

const length = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/**
 * Width ÷ height of the flat rectangle whose photographed corners these are, for a camera that
 * looked at `middle`; null when the corners do not tell. Z. Zhang, L. He, Whiteboard scanning and
 * image enhancement, 2007, §3.2.
 */
export function photographedRatio([tl, tr, br, bl]: Quad, middle: Point): number | null {
  const at = (p: Point) => [p.x - middle.x, p.y - middle.y, 1] as const;
  const [m1, m2, m3, m4] = [at(tl), at(tr), at(bl), at(br)];
  const k2 = triple(m1, m4, m3) / triple(m2, m4, m3);
  const k3 = triple(m1, m4, m2) / triple(m3, m4, m2);
  const n2 = [k2 * m2[0] - m1[0], k2 * m2[1] - m1[1], k2 - 1] as const;
  const n3 = [k3 * m3[0] - m1[0], k3 * m3[1] - m1[1], k3 - 1] as const;
  // Sides that run parallel do not tell how far away the camera was.
  if (Math.abs(n2[2]) < 0.01 || Math.abs(n3[2]) < 0.01) return null;
  const focal2 = -(n2[0] * n3[0] + n2[1] * n3[1]) / (n2[2] * n3[2]);
  if (!(focal2 > 0)) return null;
  const squared = (n: readonly [number, number, number]) =>
    (n[0] ** 2 + n[1] ** 2) / focal2 + n[2] ** 2;
  const ratio = Math.sqrt(squared(n2) / squared(n3));
  return Number.isFinite(ratio) && ratio > 0 ? ratio : null;
}

type Vector = readonly [number, number, number];

/** (a × b) · c */
const triple = (a: Vector, b: Vector, c: Vector): number =>
  (a[1] * b[2] - a[2] * b[1]) * c[0] +
  (a[2] * b[0] - a[0] * b[2]) * c[1] +
  (a[0] * b[1] - a[1] * b[0]) * c[2];

/**
 * The size of the picture that four corners make when they are pulled square: no side shorter than
 * it was, in the ratio of the thing that was photographed where that can be told.
 * @param middle of the photograph
 */
export function squaredSize(quad: Quad, middle: Point): Size {
  const [tl, tr, br, bl] = quad;
  const wide = Math.max(length(tl, tr), length(bl, br));
  const high = Math.max(length(tl, bl), length(tr, br));
  const ratio = photographedRatio(quad, middle);
  const sane = ratio !== null && ratio / (wide / high) < 2.5 && ratio / (wide / high) > 0.4;
  if (!sane) return { width: Math.round(wide), height: Math.round(high) };
  const width = Math.max(wide, high * ratio);
  return { width: Math.round(width), height: Math.round(width / ratio) };
}
