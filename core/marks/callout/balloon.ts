import type { Point } from '../../geometry/point';
import { bottom, contains, right, type Rect } from '../../geometry/rect';
import { QUARTER } from '../../drawing/paths';
import type { Surface } from '../../drawing/surface';

/** How wide the tail is where it meets the body: this share of the side, within these pixels. */
const BASE = { share: 0.22, least: 10, most: 44 };

/**
 * Adds a rounded rectangle with a tail to the path, as one outline: the tail opens from the side
 * that the tip lies farthest beyond, as near to it as the round corners allow.
 */
export function balloonPath(surface: Surface, r: Rect, corner: number, tip: Point): void {
  const c = Math.min(corner, r.width / 3, r.height / 3);
  const side = contains(r, tip) ? -1 : sideTowards(r, tip);
  const corners: Point[] = [
    { x: r.x, y: r.y },
    { x: right(r), y: r.y },
    { x: right(r), y: bottom(r) },
    { x: r.x, y: bottom(r) },
  ];
  corners.forEach((from, i) => {
    const to = corners[(i + 1) % 4] ?? from;
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    if (length === 0) return;
    const u = { x: (to.x - from.x) / length, y: (to.y - from.y) / length };
    const at = (d: number): [number, number] => [from.x + u.x * d, from.y + u.y * d];
    if (i === 0) surface.moveTo(...at(c));
    if (i === side) tail(surface, at, { length, corner: c }, tip, from, u);
    surface.lineTo(...at(length - c));
    const k = c * (1 - QUARTER);
    const n = { x: -u.y, y: u.x };
    const turned = (d: number): [number, number] => [to.x + n.x * d, to.y + n.y * d];
    if (c > 0) surface.bezierCurveTo(...at(length - k), ...turned(k), ...turned(c));
  });
  surface.closePath();
}

/** 0 top, 1 right, 2 bottom, 3 left. */
function sideTowards(r: Rect, tip: Point): number {
  const beyond = [r.y - tip.y, tip.x - right(r), tip.y - bottom(r), r.x - tip.x];
  return beyond.indexOf(Math.max(...beyond));
}

function tail(
  surface: Surface,
  at: (d: number) => [number, number],
  { length, corner }: { length: number; corner: number },
  tip: Point,
  from: Point,
  u: Point,
): void {
  const room = length - 2 * corner;
  const base = Math.min(room, Math.min(BASE.most, Math.max(BASE.least, length * BASE.share)));
  const along = (tip.x - from.x) * u.x + (tip.y - from.y) * u.y;
  const middle = Math.min(Math.max(along, corner + base / 2), length - corner - base / 2);
  surface.lineTo(...at(middle - base / 2));
  surface.lineTo(tip.x, tip.y);
  surface.lineTo(...at(middle + base / 2));
}
