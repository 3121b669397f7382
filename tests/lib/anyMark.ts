import fc from 'fast-check';
import { firstStyles, kindOf, markNames, type Mark } from '@/core/marks/registry';

const point = fc.record({
  x: fc.integer({ min: -10, max: 190 }),
  y: fc.integer({ min: -10, max: 130 }),
});
const names = markNames.filter((name) => !kindOf(name).everywhere && name !== 'piece');

/** Of every kind that lies at a place, as its tool makes it on some 200 × 140 pixels. */
export const anyMark: fc.Arbitrary<Mark> = fc
  .tuple(fc.constantFrom(...names), point, point, fc.boolean())
  .map(([name, from, to, halo]) => ({
    ...kindOf(name).create('a', [from, { x: from.x, y: to.y }, to], firstStyles[name]),
    ...(halo && { halo: '#FFFFFF' }),
  }))
  .filter((mark) => !kindOf(mark).tooSmall(mark));
