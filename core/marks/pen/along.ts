import { distance, type Point } from '../../geometry/point';
import type { StrokeMark } from '../shared/strokeMark';

/** A place of a stroke, with the pressure there, 0–1. */
export interface Dab extends Point {
  pressure: number;
}

/** More places are not looked at: a stroke to and fro over the whole frame has millions. */
const MOST_DABS = 200_000;

/** Places along the smoothed stroke, at most `wanted` pixels apart, or further on an endless one. */
export function alongStroke(mark: StrokeMark, wanted: number): Dab[] {
  const all = mark.points.map(([x, y, pressure]): Dab => ({ x, y, pressure }));
  const [first] = all;
  if (!first) return [];
  const length = all.reduce((sum, p, i) => sum + distance(p, all[i - 1] ?? p), 0);
  const step = Math.max(wanted, length / MOST_DABS);
  const dabs: Dab[] = [first];
  let from = first;
  const curve = (c: Dab, to: Dab) => {
    const length = distance(from, c) + distance(c, to);
    const count = Math.max(1, Math.ceil(length / step));
    for (let i = 1; i <= count; i += 1) {
      const t = i / count;
      const mix = (a: number, b: number, d: number) =>
        a * (1 - t) ** 2 + 2 * b * t * (1 - t) + d * t * t;
      dabs.push({
        x: mix(from.x, c.x, to.x),
        y: mix(from.y, c.y, to.y),
        pressure: mix(from.pressure, c.pressure, to.pressure),
      });
    }
    from = to;
  };
  for (let i = 1; i < all.length; i += 1) {
    const corner = all[i] ?? first;
    const next = all[i + 1];
    curve(corner, next ? halfway(corner, next) : corner);
  }
  return dabs;
}

const halfway = (a: Dab, b: Dab): Dab => ({
  x: (a.x + b.x) / 2,
  y: (a.y + b.y) / 2,
  pressure: (a.pressure + b.pressure) / 2,
});
