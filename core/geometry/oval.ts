import type { Point } from './point';
import { centre, type Rect } from './rect';

/** The outline of an oval that fills `r`, as a polygon; for surfaces that draw lines only. */
export function ovalPoints(r: Rect, count = 72): Point[] {
  const { x, y } = centre(r);
  return Array.from({ length: count }, (_, i) => {
    const angle = (i / count) * 2 * Math.PI;
    return { x: x + (Math.cos(angle) * r.width) / 2, y: y + (Math.sin(angle) * r.height) / 2 };
  });
}
