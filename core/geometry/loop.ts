import simplify from 'simplify-js';
import type { Point } from './point';

/** A freehand loop with few enough points to hold and to pull; within half a pixel of what was drawn. */
export const loopPoints = (points: readonly Point[]): Point[] =>
  simplify(
    points.map(({ x, y }) => ({ x, y })),
    0.5,
    true,
  ).slice(0, 2_000);
