import type { Size } from '../geometry/size';
import type { Turn } from './viewSchema';
import { homography, type Quad } from '../geometry/homography';
import {
  apply,
  inverse,
  multiply,
  rotation,
  scaling,
  translation,
  type Matrix,
} from '../geometry/matrix';
import { distance, type Point } from '../geometry/point';
import type { Rect } from '../geometry/rect';
import { warp } from '../raster/warp';
import type { RgbaPixels } from '../raster/pixels';

/** The picture as it stands in its frame. */
export const upright: Turn = { quarters: 0, mirrored: false, angle: 0 };

/** True when the picture differs from the frame. */
export const isTurned = (turn: Turn | undefined): turn is Turn =>
  turn !== undefined &&
  (turn.quarters !== 0 || turn.mirrored || turn.angle !== 0 || turn.square !== undefined);

/** True when pixels are computed anew and not only put elsewhere. */
export const resamples = (turn: Turn | undefined): boolean =>
  turn !== undefined && (turn.angle !== 0 || turn.square !== undefined);

/** The size of the picture that marks and view lie on: the frame after it was turned. */
export function pictureSize(frame: Size, turn: Turn | undefined): Size {
  if (!turn) return { width: frame.width, height: frame.height };
  const base = turn.square ?? frame;
  const [w, h] = turn.quarters % 2 === 0 ? [base.width, base.height] : [base.height, base.width];
  if (turn.angle === 0) return { width: w, height: h };
  const radians = (Math.abs(turn.angle) * Math.PI) / 180;
  const [c, s] = [Math.cos(radians), Math.sin(radians)];
  return { width: Math.ceil(w * c + h * s), height: Math.ceil(w * s + h * c) };
}

/** Takes places of the frame to places of the picture: square, mirrored, quarter turns, angle. */
export function turnMatrix(frame: Size, turn: Turn): Matrix {
  const base = turn.square ?? frame;
  let m: Matrix = turn.square
    ? homography(turn.square.corners, cornersOfSize(turn.square))
    : scaling(1, 1);
  if (turn.mirrored) m = multiply(multiply(translation(base.width, 0), scaling(-1, 1)), m);
  const out = pictureSize(frame, turn);
  const toMiddle = translation(-base.width / 2, -base.height / 2);
  const around = multiply(rotation(turn.quarters * 90 + turn.angle), toMiddle);
  return multiply(multiply(translation(out.width / 2, out.height / 2), around), m);
}

const cornersOfSize = ({ width, height }: Size): Quad => [
  { x: 0, y: 0 },
  { x: width, y: 0 },
  { x: width, y: height },
  { x: 0, y: height },
];

/** The frame's pixels, or a part of them, as the turn shows them, resampled once. */
export function turnedPixels(
  frame: RgbaPixels,
  turn: Turn,
  opaque: boolean,
  part: Rect = { x: 0, y: 0, ...pictureSize(frame, turn) },
): RgbaPixels {
  return warp(frame, inverse(turnMatrix(frame, turn)), part, opaque);
}

/**
 * How far, in pixels of the picture, a pixel of the frame can show beyond its own place, because
 * pixels in between are computed from their neighbours. Hide marks hide that much more.
 */
export function turnReach(turn: Turn | undefined): number {
  if (!resamples(turn)) return 0;
  const square = turn?.square;
  return square ? Math.ceil(2 * Math.max(1, mostGrowth(square.corners, square))) + 1 : 3;
}

/** The most that lengths grow at any corner. */
function mostGrowth(corners: Quad, size: Size): number {
  const m = homography(corners, cornersOfSize(size));
  const near = (p: Point, dx: number, dy: number) =>
    distance(apply(m, p), apply(m, { x: p.x + dx, y: p.y + dy })) / 0.01;
  return Math.max(...corners.flatMap((p) => [near(p, 0.01, 0), near(p, 0, 0.01)]));
}

/** The largest upright rectangle of the turned picture that has no empty corner. */
export function withoutCorners(frame: Size, turn: Turn): Rect {
  const out = pictureSize(frame, turn);
  if (turn.angle === 0) return { x: 0, y: 0, ...out };
  const base = turn.square ?? frame;
  const [w, h] = turn.quarters % 2 === 0 ? [base.width, base.height] : [base.height, base.width];
  const { width, height } = inscribed(w, h, (Math.abs(turn.angle) * Math.PI) / 180);
  // In the middle to the pixel, so that no side is nearer to an empty corner than another.
  const even = (inner: number, outer: number) => {
    const whole = Math.floor(inner);
    return Math.max(1, (outer - whole) % 2 === 0 ? whole : whole - 1);
  };
  const size = { width: even(width, out.width), height: even(height, out.height) };
  return {
    x: Math.floor((out.width - size.width) / 2),
    y: Math.floor((out.height - size.height) / 2),
    ...size,
  };
}

/** The largest upright rectangle inside one of w × h that is turned by an angle up to 45°. */
function inscribed(w: number, h: number, angle: number): Size {
  const [long, short] = [Math.max(w, h), Math.min(w, h)];
  const [s, c] = [Math.sin(angle), Math.cos(angle)];
  if (short <= 2 * s * c * long || Math.abs(s - c) < 1e-9) {
    // Two corners touch the long sides; the others lie free on the middle line.
    const x = short / 2;
    return w >= h ? { width: x / s, height: x / c } : { width: x / c, height: x / s };
  }
  const cos2 = c * c - s * s;
  return { width: (w * c - h * s) / cos2, height: (h * c - w * s) / cos2 };
}
