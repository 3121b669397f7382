import type { Point } from './point';

/** A projective map of the plane: three rows of three, in order. */
export type Matrix = readonly [
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
];

export const identity: Matrix = [1, 0, 0, 0, 1, 0, 0, 0, 1];

export const translation = (x: number, y: number): Matrix => [1, 0, x, 0, 1, y, 0, 0, 1];

export const scaling = (x: number, y: number): Matrix => [x, 0, 0, 0, y, 0, 0, 0, 1];

/** @param degrees clockwise on a screen, whose y grows downward; quarter turns are exact */
export function rotation(degrees: number): Matrix {
  const quarter = (((degrees / 90) % 4) + 4) % 4;
  const radians = (degrees * Math.PI) / 180;
  const [c, s] = Number.isInteger(quarter)
    ? [[1, 0, -1, 0][quarter] ?? 1, [0, 1, 0, -1][quarter] ?? 0]
    : [Math.cos(radians), Math.sin(radians)];
  return [c, -s, 0, s, c, 0, 0, 0, 1];
}

/** One map after the other: `multiply(second, first)`. */
export function multiply(a: Matrix, b: Matrix): Matrix {
  const [a0, a1, a2, a3, a4, a5, a6, a7, a8] = a;
  const [b0, b1, b2, b3, b4, b5, b6, b7, b8] = b;
  return [
    a0 * b0 + a1 * b3 + a2 * b6,
    a0 * b1 + a1 * b4 + a2 * b7,
    a0 * b2 + a1 * b5 + a2 * b8,
    a3 * b0 + a4 * b3 + a5 * b6,
    a3 * b1 + a4 * b4 + a5 * b7,
    a3 * b2 + a4 * b5 + a5 * b8,
    a6 * b0 + a7 * b3 + a8 * b6,
    a6 * b1 + a7 * b4 + a8 * b7,
    a6 * b2 + a7 * b5 + a8 * b8,
  ];
}

export const determinant = ([a, b, c, d, e, f, g, h, i]: Matrix): number =>
  a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);

/** The way back. @throws RangeError for a map that flattens the plane */
export function inverse(m: Matrix): Matrix {
  const [a, b, c, d, e, f, g, h, i] = m;
  const det = determinant(m);
  if (!Number.isFinite(1 / det)) throw new RangeError('This map has no way back.');
  return [
    (e * i - f * h) / det,
    (c * h - b * i) / det,
    (b * f - c * e) / det,
    (f * g - d * i) / det,
    (a * i - c * g) / det,
    (c * d - a * f) / det,
    (d * h - e * g) / det,
    (b * g - a * h) / det,
    (a * e - b * d) / det,
  ];
}

export function apply([a, b, c, d, e, f, g, h, i]: Matrix, { x, y }: Point): Point {
  const w = g * x + h * y + i;
  return { x: (a * x + b * y + c) / w, y: (d * x + e * y + f) / w };
}

/** True when parallels stay parallel. */
export const isAffine = (m: Matrix): boolean => m[6] === 0 && m[7] === 0 && m[8] === 1;
