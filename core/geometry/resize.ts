import type { Point } from './point';
import { bottom, rectFromPoints, right, type Rect } from './rect';

/** The eight grips of a rectangle, named by compass points. */
export const grips = ['nw', 'n', 'ne', 'e', 'se', 's', 'sw', 'w'] as const;
export type Grip = (typeof grips)[number];

export const isGrip = (value: string): value is Grip =>
  (grips as readonly string[]).includes(value);

/** Where a grip sits on the outline of `r`. */
export function gripPoint(r: Rect, grip: Grip): Point {
  const x = grip.includes('w') ? r.x : grip.includes('e') ? right(r) : r.x + r.width / 2;
  const y = grip.includes('n') ? r.y : grip.includes('s') ? bottom(r) : r.y + r.height / 2;
  return { x, y };
}

/**
 * The rectangle after its grip is pulled to `to`. Pulled across the opposite side it turns over
 * rather than getting a negative size. With `keepRatio`, a corner keeps width : height.
 */
export function pullGrip(r: Rect, grip: Grip, to: Point, keepRatio = false): Rect {
  const fixed: Point = {
    x: grip.includes('w') ? right(r) : r.x,
    y: grip.includes('n') ? bottom(r) : r.y,
  };
  let moved: Point = {
    x: grip.includes('w') || grip.includes('e') ? to.x : right(r),
    y: grip.includes('n') || grip.includes('s') ? to.y : bottom(r),
  };
  if (keepRatio && grip.length === 2 && r.width > 0 && r.height > 0) {
    moved = alongRatio(fixed, moved, r.width / r.height);
  }
  return rectFromPoints(fixed, moved);
}

/** Moves `to` so that the box from `fixed` to it has the given ratio and its longer reach. */
export function alongRatio(fixed: Point, to: Point, ratio: number): Point {
  const dx = to.x - fixed.x;
  const dy = to.y - fixed.y;
  const width = Math.max(Math.abs(dx), Math.abs(dy) * ratio);
  return {
    x: fixed.x + Math.sign(dx || 1) * width,
    y: fixed.y + Math.sign(dy || 1) * (width / ratio),
  };
}
