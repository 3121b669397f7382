import type { Point } from './point';
import { bottom, centre, right, union, type Rect } from './rect';

export type Side = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom';

/** How far each rectangle moves so that all share one side or middle of what surrounds them. */
export function aligned(rects: readonly Rect[], side: Side): Point[] {
  const all = union(rects);
  const by = (r: Rect): Point => {
    if (side === 'left') return { x: all.x - r.x, y: 0 };
    if (side === 'right') return { x: right(all) - right(r), y: 0 };
    if (side === 'centre') return { x: centre(all).x - centre(r).x, y: 0 };
    if (side === 'top') return { x: 0, y: all.y - r.y };
    if (side === 'bottom') return { x: 0, y: bottom(all) - bottom(r) };
    return { x: 0, y: centre(all).y - centre(r).y };
  };
  return rects.map(by);
}

/** How far each moves so that the gaps between neighbours are equal; the outermost stay. */
export function distributed(rects: readonly Rect[], along: 'x' | 'y'): Point[] {
  const length = (r: Rect) => (along === 'x' ? r.width : r.height);
  const order = rects.map((r, i) => ({ r, i })).sort((a, b) => a.r[along] - b.r[along]);
  const first = order[0]?.r;
  const last = order.at(-1)?.r;
  const moves = rects.map((): Point => ({ x: 0, y: 0 }));
  if (!first || !last || rects.length < 3) return moves;
  const inside = rects.reduce((sum, r) => sum + length(r), 0);
  const gap = (last[along] + length(last) - first[along] - inside) / (rects.length - 1);
  let at = first[along];
  for (const { r, i } of order) {
    moves[i] = along === 'x' ? { x: at - r.x, y: 0 } : { x: 0, y: at - r.y };
    at += length(r) + gap;
  }
  return moves;
}

/** A line that something snapped to: at `at` across the other axis. */
export interface Guide {
  axis: 'x' | 'y';
  at: number;
}

/** How far a rectangle is moved on so that its sides or middle meet those of others. */
export interface Snapped {
  by: Point;
  guides: Guide[];
}

/** @param reach farther than this nothing snaps, in pixels */
export function snapToOthers(r: Rect, others: readonly Rect[], reach: number): Snapped {
  const lines = (o: Rect, axis: 'x' | 'y') =>
    axis === 'x' ? [o.x, centre(o).x, right(o)] : [o.y, centre(o).y, bottom(o)];
  const guides: Guide[] = [];
  const best = (axis: 'x' | 'y'): number => {
    let least = { by: 0, far: reach, at: 0, found: false };
    for (const other of others) {
      for (const to of lines(other, axis)) {
        for (const from of lines(r, axis)) {
          const far = Math.abs(to - from);
          if (far < least.far) least = { by: to - from, far, at: to, found: true };
        }
      }
    }
    if (least.found) guides.push({ axis, at: least.at });
    return least.by;
  };
  return { by: { x: best('x'), y: best('y') }, guides };
}
