import type { Rect } from '../geometry/rect';
import { bottom, right } from '../geometry/rect';
import type { Surface } from './surface';

/**
 * Length of the control arm of a cubic Bézier for a quarter of a unit circle, 4/3·(√2 − 1).
 * Curves are spelled out, since ellipse() and roundRect() differ between canvases.
 */
export const QUARTER = (4 / 3) * (Math.SQRT2 - 1);

/** Adds an oval that fills `r` to the path. */
export function ovalPath(surface: Surface, r: Rect): void {
  const rx = r.width / 2;
  const ry = r.height / 2;
  const cx = r.x + rx;
  const cy = r.y + ry;
  const ax = rx * QUARTER;
  const ay = ry * QUARTER;
  surface.moveTo(cx + rx, cy);
  surface.bezierCurveTo(cx + rx, cy + ay, cx + ax, cy + ry, cx, cy + ry);
  surface.bezierCurveTo(cx - ax, cy + ry, cx - rx, cy + ay, cx - rx, cy);
  surface.bezierCurveTo(cx - rx, cy - ay, cx - ax, cy - ry, cx, cy - ry);
  surface.bezierCurveTo(cx + ax, cy - ry, cx + rx, cy - ay, cx + rx, cy);
  surface.closePath();
}

/** Adds a rectangle with rounded corners to the path; the radius is cut to half the shorter side. */
export function roundedPath(surface: Surface, r: Rect, radius: number): void {
  const c = Math.min(radius, r.width / 2, r.height / 2);
  if (c <= 0) {
    surface.rect(r.x, r.y, r.width, r.height);
    return;
  }
  const k = c * (1 - QUARTER);
  surface.moveTo(r.x + c, r.y);
  surface.lineTo(right(r) - c, r.y);
  surface.bezierCurveTo(right(r) - k, r.y, right(r), r.y + k, right(r), r.y + c);
  surface.lineTo(right(r), bottom(r) - c);
  surface.bezierCurveTo(right(r), bottom(r) - k, right(r) - k, bottom(r), right(r) - c, bottom(r));
  surface.lineTo(r.x + c, bottom(r));
  surface.bezierCurveTo(r.x + k, bottom(r), r.x, bottom(r) - k, r.x, bottom(r) - c);
  surface.lineTo(r.x, r.y + c);
  surface.bezierCurveTo(r.x, r.y + k, r.x + k, r.y, r.x + c, r.y);
  surface.closePath();
}
