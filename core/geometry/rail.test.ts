import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { distance } from './point';
import { followRail, ontoRail, railCentre, snappedAngle, type Rail } from './rail';

const number = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
const point = fc.record({ x: number(500), y: number(500) });
const rail = fc.record({
  at: point,
  angle: fc.double({ min: 0, max: 360, noNaN: true }),
  radius: fc.option(fc.double({ min: 20, max: 900, noNaN: true })),
});

test('what is put on the edge stays there, and no place of the edge is nearer', () => {
  fc.assert(
    fc.property(rail, point, (r: Rail, p) => {
      const on = ontoRail(r, p);
      expect(distance(ontoRail(r, on), on)).toBeLessThan(1e-6);
      const other = ontoRail(r, { x: p.x + 13, y: p.y - 7 });
      expect(distance(p, on)).toBeLessThanOrEqual(distance(p, other) + 1e-6);
      const c = railCentre(r);
      if (c && r.radius !== null) expect(distance(c, on)).toBeCloseTo(r.radius, 6);
    }),
  );
});

test('a straight edge at 30° goes through its place; a stroke far away is left alone', () => {
  const edge: Rail = { at: { x: 100, y: 100 }, angle: 30, radius: null };
  const on = ontoRail(edge, { x: 200, y: 150 });
  expect((on.y - 100) / (on.x - 100)).toBeCloseTo(Math.tan(Math.PI / 6), 9);
  expect(followRail(edge, { x: 100, y: 400 }, 30)).toEqual({ x: 100, y: 400 });
  expect(followRail(edge, { x: 100, y: 110 }, 30)).not.toEqual({ x: 100, y: 110 });
});

test.each([
  [46.5, 45],
  [43.1, 45],
  [50, 50],
  [-1, 0],
  [359, 0],
  [187.5, 187.5],
])('%d° becomes %d°', (angle, expected) => {
  expect(snappedAngle(angle)).toBeCloseTo(expected, 9);
});
