import { z } from 'zod';
import type { Point } from '../../geometry/point';
import { bottom, right, type Rect } from '../../geometry/rect';
import { randomFrom } from '../../random/random';
import type { Part } from './contract';

const sides = ['top', 'right', 'bottom', 'left'] as const;
export type Side = (typeof sides)[number];

const schema = z.strictObject({
  top: z.boolean(),
  right: z.boolean(),
  bottom: z.boolean(),
  left: z.boolean(),
  /** How far the tear reaches into the picture. */
  depth: z.int().min(1).max(400),
  /** The same seed tears in the same way. */
  seed: z.int().min(0).max(9999),
});
export type Ragged = z.infer<typeof schema>;

export const ragged: Part<typeof schema> = {
  label: 'Ragged edge',
  schema,
  first: { top: false, right: false, bottom: true, left: false, depth: 16, seed: 1 },
};

/** Waves of a tear: how long each is, in depths, and its share of it. Fibres are the finest. */
const waves = [
  { length: 5, share: 0.5 },
  { length: 1.6, share: 0.3 },
  { length: 0.4, share: 0.2 },
] as const;

/** Between two points of a tear: fine enough for the shortest wave, coarse enough for any picture. */
const stepOf = (depth: number): number => Math.max(1.5, depth * 0.2);

/** How far in a torn side lies along it, 0 to `depth`: value noise of a few waves. */
function tear(length: number, { depth }: Ragged, random: () => number): (t: number) => number {
  const layers = waves.map((wave) => {
    const step = Math.max(2, wave.length * depth);
    const values = Array.from({ length: Math.ceil(length / step) + 2 }, random);
    return { step, values, share: wave.share };
  });
  return (t) =>
    layers.reduce((sum, { step, values, share }) => {
      const at = Math.min(Math.max(t, 0), length) / step;
      const [i, f] = [Math.floor(at), at - Math.floor(at)];
      const smooth = f * f * (3 - 2 * f);
      const [a = 0, b = 0] = [values[i], values[i + 1]];
      return sum + share * (a + (b - a) * smooth);
    }, 0) * depth;
}

const hundredth = (v: number): number => Math.round(v * 100) / 100;

/** The points of each side, in the order of `sides`, clockwise from the top left corner. */
export type Torn = Record<Side, Point[]>;

/**
 * What is left of a rectangle with some sides torn off.
 * @param nth of several pieces, each of which is torn in its own way
 */
export function tornOutline(r: Rect, how: Ragged, nth = 0): Torn {
  const depth = Math.min(how.depth, r.width / 3, r.height / 3);
  const own = { ...how, depth };
  // Where two sides meet, each begins where the other may lie.
  const inset = (side: Side) => (how[side] ? depth / 2 : 0);
  const [x0, x1] = [r.x + inset('left'), right(r) - inset('right')];
  const [y0, y1] = [r.y + inset('top'), bottom(r) - inset('bottom')];
  const along = (side: Side, from: number, to: number, place: (t: number, d: number) => Point) => {
    if (!how[side]) return [place(from, 0), place(to, 0)];
    const random = randomFrom(how.seed * 4096 + nth * 64 + sides.indexOf(side));
    const length = to - from;
    const into = tear(length, own, random);
    const count = Math.max(2, Math.ceil(length / stepOf(depth)));
    return Array.from({ length: count + 1 }, (_, i) => {
      const t = (i / count) * length;
      return place(from + t, into(t));
    });
  };
  const at = (x: number, y: number): Point => ({ x: hundredth(x), y: hundredth(y) });
  return {
    top: along('top', x0, x1, (t, d) => at(t, r.y + d)),
    right: along('right', y0, y1, (t, d) => at(right(r) - d, t)),
    bottom: along('bottom', x0, x1, (t, d) => at(t, bottom(r) - d)).reverse(),
    left: along('left', y0, y1, (t, d) => at(r.x + d, t)).reverse(),
  };
}

export const outlineOf = (torn: Torn): Point[] => sides.flatMap((side) => torn[side]);

/** The sides that are torn. */
export const tornSides = (how: Ragged): Side[] => sides.filter((side) => how[side]);
