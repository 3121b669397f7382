import type { Point } from '../geometry/point';
import { bottom, right, type Rect } from '../geometry/rect';

/** The edge nearest to `value` within reach, among those that pass beside `across`. */
function nearest(
  value: number,
  edges: readonly { at: number; from: number; to: number }[],
  across: number,
  reach: number,
): number {
  let best = value;
  let distance = reach;
  for (const edge of edges) {
    if (across < edge.from - reach || across > edge.to + reach) continue;
    const d = Math.abs(edge.at - value);
    if (d < distance) {
      best = edge.at;
      distance = d;
    }
  }
  return best;
}

/** Draws a place softly to the edges of parts: each coordinate by itself, within `reach` pixels. */
export function snapTo(parts: readonly Rect[], reach: number): (at: Point) => Point {
  const upright = parts.flatMap((r) =>
    [r.x, right(r)].map((at) => ({ at, from: r.y, to: bottom(r) })),
  );
  const level = parts.flatMap((r) =>
    [r.y, bottom(r)].map((at) => ({ at, from: r.x, to: right(r) })),
  );
  return ({ x, y }) => ({ x: nearest(x, upright, y, reach), y: nearest(y, level, x, reach) });
}
