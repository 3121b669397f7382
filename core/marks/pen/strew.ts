import { distance } from '../../geometry/point';
import type { Surface } from '../../drawing/surface';
import { randomFrom, seedOf } from '../../random/random';
import { firstStrewn } from '../stamp/names';
import { paintDrawing } from '../stamp/paint';
import type { PenMark } from './schema';
import { alongStroke } from './along';

/** More are not strewn, however long the stroke: they lie further apart then. */
export const MOST_STREWN = 2_000;

/** Side of a stamp for a thickness, both in pixels. */
const sideOf = (thickness: number): number => Math.max(8, thickness * 3);

/** Shares of a stamp's side. */
const APART = 0.9;
const ASIDE = 0.6;

/** How far a stamp can reach from the stroke, pixels. */
export const strewReach = (thickness: number): number => sideOf(thickness) * 1.8;

interface Strewn {
  x: number;
  y: number;
  side: number;
  /** Clockwise, radians. */
  angle: number;
}

/**
 * Where the stamps of a stroke lie: evenly along it, each a little aside, turned and of a size of
 * its own, larger under pressure. The same for the same mark on every painting.
 */
export function strewn(mark: PenMark): Strewn[] {
  const next = randomFrom(seedOf(mark.id));
  const dabs = alongStroke(mark, 2);
  const side = sideOf(mark.thickness);
  const length = dabs.reduce((sum, dab, i) => sum + distance(dab, dabs[i - 1] ?? dab), 0);
  const step = Math.max(side * APART, length / (MOST_STREWN - 1));
  const placed: Strewn[] = [];
  let left = 0;
  dabs.forEach((dab, i) => {
    left -= distance(dab, dabs[i - 1] ?? dab);
    if (left > 0 || placed.length >= MOST_STREWN) return;
    left += step;
    const size = side * (0.75 + 0.5 * next()) * (0.7 + 0.6 * dab.pressure);
    const away = 2 * Math.PI * next();
    const far = side * ASIDE * next();
    placed.push({
      x: dab.x + Math.cos(away) * far,
      y: dab.y + Math.sin(away) * far,
      side: size,
      angle: (next() - 0.5) * Math.PI,
    });
  });
  return placed;
}

/** Stamps scattered along the stroke. */
export function paintStrew(surface: Surface, mark: PenMark): void {
  const { colour, strewn: stamp = firstStrewn } = mark;
  for (const { x, y, side, angle } of strewn(mark)) {
    surface.save();
    surface.translate(x, y);
    surface.rotate(angle);
    paintDrawing(surface, stamp, { x: -side / 2, y: -side / 2, width: side, height: side, colour });
    surface.restore();
  }
}
