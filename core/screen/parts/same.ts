import { bottom, right, type Rect } from '../../geometry/rect';

/** Boxes that differ by no more than this on every side are one, px. */
export const SAME = 4;

/** True where two boxes are taken for one. */
export const isSame = (a: Rect, b: Rect): boolean =>
  Math.abs(a.x - b.x) <= SAME &&
  Math.abs(a.y - b.y) <= SAME &&
  Math.abs(right(a) - right(b)) <= SAME &&
  Math.abs(bottom(a) - bottom(b)) <= SAME;
