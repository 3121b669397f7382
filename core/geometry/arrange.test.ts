import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { aligned, distributed, snapToOthers } from './arrange';
import { measure } from './measure';
import { right, type Rect } from './rect';

const rect = fc.record({
  x: fc.integer({ min: -500, max: 500 }),
  y: fc.integer({ min: -500, max: 500 }),
  width: fc.integer({ min: 1, max: 300 }),
  height: fc.integer({ min: 1, max: 300 }),
});
const moved = (r: Rect, by: { x: number; y: number }): Rect => ({
  ...r,
  x: r.x + by.x,
  y: r.y + by.y,
});

describe('arranging', () => {
  test('aligned right, all right sides are one, and nothing moves up or down', () => {
    fc.assert(
      fc.property(fc.array(rect, { minLength: 2, maxLength: 8 }), (rects) => {
        const by = aligned(rects, 'right');
        const sides = rects.map((r, i) => right(moved(r, by[i] ?? { x: 0, y: 0 })));
        expect(new Set(sides).size).toBe(1);
        expect(by.every((b) => b.y === 0)).toBe(true);
      }),
    );
  });

  test('distributed, the gaps are equal, the first and the far side of the last stay', () => {
    const apart = fc.uniqueArray(rect, { minLength: 3, maxLength: 8, selector: (r) => r.x });
    fc.assert(
      fc.property(apart, (rects) => {
        const by = distributed(rects, 'x');
        const order = rects
          .map((r, i) => ({ was: r, now: moved(r, by[i] ?? { x: 0, y: 0 }) }))
          .sort((a, b) => a.was.x - b.was.x);
        const gaps = order.slice(1).map(({ now }, i) => now.x - right(order[i]?.now ?? now));
        for (const gap of gaps) expect(gap).toBeCloseTo(gaps[0] ?? NaN, 6);
        expect(order[0]?.now.x).toBe(order[0]?.was.x);
        const last = order.at(-1);
        expect(last && right(last.now)).toBeCloseTo(last ? right(last.was) : NaN, 6);
      }),
    );
  });

  test('a side snaps to the nearest of the others within reach, and not beyond it', () => {
    const still = [{ x: 100, y: 100, width: 50, height: 40 }];
    const near = { x: 153, y: 300, width: 20, height: 20 };
    expect(snapToOthers(near, still, 6)).toEqual({
      by: { x: -3, y: 0 },
      guides: [{ axis: 'x', at: 150 }],
    });
    expect(snapToOthers({ ...near, x: 160 }, still, 6).by).toEqual({ x: 0, y: 0 });
  });
});

test('a 3-4-5 triangle measures 3, 4 and 5, whichever way it is drawn', () => {
  expect(measure({ x: 40, y: 10 }, { x: 10, y: 50 })).toMatchObject({
    x: 10,
    y: 10,
    width: 30,
    height: 40,
    diagonal: 50,
    area: 1200,
  });
  expect(measure({ x: 0, y: 0 }, { x: 10, y: 10 }).angle).toBeCloseTo(45, 9);
});
