import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import PerspT from 'perspective-transform';
import { homography, isSound, photographedRatio, squaredSize, type Quad } from './homography';
import { apply, inverse, multiply, rotation, translation, type Matrix } from './matrix';
import type { Point } from './point';
import { mappedRect, mappingOf, stretching, turning } from './mapping';

const coordinate = fc.integer({ min: -50, max: 50 });
/** A square whose corners are each pulled a little. */
const quad = fc
  .tuple(
    coordinate,
    coordinate,
    coordinate,
    coordinate,
    coordinate,
    coordinate,
    coordinate,
    coordinate,
  )
  .map(([a, b, c, d, e, f, g, h]): Quad => [
    { x: 100 + a, y: 100 + b },
    { x: 400 + c, y: 100 + d },
    { x: 400 + e, y: 300 + f },
    { x: 100 + g, y: 300 + h },
  ])
  .filter((q) => isSound(q));

const SIZE = 400;
const unit = (q: Quad): Quad => {
  const [a, b, c, d] = q.map(({ x, y }) => ({ x: x / SIZE, y: y / SIZE })) as [
    Point,
    Point,
    Point,
    Point,
  ];
  return [a, b, c, d];
};

const flat = (q: Quad): number[] => q.flatMap(({ x, y }) => [x, y]);

describe('four corners', () => {
  // Solved 4-point homography: R. Hartley, A. Zisserman, Multiple View Geometry, ch. 4;
  // perspective-transform solves the eight equations by another way, and rounds them to 1e-10:
  // corners of about unit size keep that below what is asked.
  test('agree with perspective-transform on random corners', () => {
    fc.assert(
      fc.property(
        quad,
        quad,
        fc.array(fc.tuple(coordinate, coordinate), { minLength: 4 }),
        (large, wide, places) => {
          const [from, to] = [unit(large), unit(wide)];
          const ours = homography(from, to);
          const theirs = PerspT(flat(from), flat(to));
          for (const [dx, dy] of places) {
            const p = { x: (250 + dx * 2) / SIZE, y: (200 + dy) / SIZE };
            const [x = NaN, y = NaN] = theirs.transform(p.x, p.y);
            const mine = apply(ours, p);
            const scale = Math.max(1, Math.abs(x), Math.abs(y));
            expect(Math.abs(mine.x - x) / scale).toBeLessThan(1e-9);
            expect(Math.abs(mine.y - y) / scale).toBeLessThan(1e-9);
          }
        },
      ),
    );
  });

  test('go where they shall, and back', () => {
    fc.assert(
      fc.property(quad, quad, (from, to) => {
        const there = homography(from, to);
        const back = inverse(there);
        from.forEach((p, i) => {
          const q = apply(there, p);
          expect(q.x).toBeCloseTo(to[i]?.x ?? NaN, 6);
          expect(q.y).toBeCloseTo(to[i]?.y ?? NaN, 6);
          const home = apply(back, q);
          expect(home.x).toBeCloseTo(p.x, 5);
          expect(home.y).toBeCloseTo(p.y, 5);
        });
      }),
    );
  });

  test('that cross or fold are not sound', () => {
    const [a, b, c, d] = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 10, y: 10 },
      { x: 0, y: 10 },
    ];
    expect(isSound([a, b, c, d])).toBe(true);
    expect(isSound([b, a, c, d])).toBe(false);
    expect(isSound([d, c, b, a])).toBe(false);
    expect(isSound([a, b, { x: 2, y: 2 }, d])).toBe(false);
  });
});

/** A sheet of a known ratio as a pinhole camera sees it: turned about two axes, some way off. */
function photographed(ratio: number, tilt: number, swing: number, focal: number): Quad {
  const middle = { x: 800, y: 600 };
  const corner = (sx: number, sy: number) => {
    const [x, y] = [(sx * ratio) / 2, sy / 2];
    const [ct, st] = [Math.cos(tilt), Math.sin(tilt)];
    const [cs, ss] = [Math.cos(swing), Math.sin(swing)];
    const [y1, z1] = [y * ct, y * st];
    const [x2, z2] = [x * cs + z1 * ss, -x * ss + z1 * cs];
    const depth = 3 + z2;
    return { x: middle.x + (focal * x2) / depth, y: middle.y + (focal * y1) / depth };
  };
  return [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
}

describe('a photographed page', () => {
  // Z. Zhang, L. He, Whiteboard scanning and image enhancement: exact for a pinhole camera.
  test.each([
    [Math.SQRT1_2, 0.5, 0.4],
    [16 / 9, -0.35, 0.6],
    [1, 0.7, -0.3],
  ])('gets its ratio %f back', (ratio, tilt, swing) => {
    const seen = photographed(ratio, tilt, swing, 1400);
    expect(photographedRatio(seen, { x: 800, y: 600 })).toBeCloseTo(ratio, 6);
    const { width, height } = squaredSize(seen, { x: 800, y: 600 });
    expect(width / height).toBeCloseTo(ratio, 1);
  });

  test('seen straight on keeps its sides', () => {
    const sheet = photographed(1.5, 0, 0, 1400);
    expect(photographedRatio(sheet, { x: 800, y: 600 })).toBeNull();
    expect(squaredSize(sheet, { x: 800, y: 600 })).toEqual({ width: 700, height: 467 });
  });
});

describe('maps', () => {
  test('quarter turns are exact', () => {
    expect(rotation(90)).toEqual([0, -1, 0, 1, 0, 0, 0, 0, 1]);
    const four = [1, 2, 3].reduce<Matrix>((m) => multiply(rotation(90), m), rotation(90));
    expect(four.map((v) => v + 0)).toEqual([1, 0, 0, 0, 1, 0, 0, 0, 1]);
    expect(apply(rotation(90), { x: 3, y: 0 })).toEqual({ x: 0, y: 3 });
  });

  test('a map without a way back says so', () => {
    expect(() => inverse([1, 0, 0, 2, 0, 0, 0, 0, 1])).toThrow(RangeError);
  });

  test('a turned rectangle keeps its size and adds its angle', () => {
    const r = { x: 10, y: 20, width: 40, height: 10 };
    const map = turning({ x: 100, y: 100 }, 30);
    const once = mappedRect(r, 0, map);
    expect(once.width).toBeCloseTo(40);
    expect(once.height).toBeCloseTo(10);
    expect(once.angle).toBeCloseTo(30);
    expect(mappedRect(once, once.angle, map).angle).toBeCloseTo(60);
  });

  test('a quarter turn of an upright rectangle leaves it upright', () => {
    const map = mappingOf(multiply(translation(100, 0), rotation(90)), { x: 0, y: 0 });
    expect(map.angle).toBeCloseTo(90);
    expect(mappedRect({ x: 10, y: 20, width: 40, height: 10 }, 0, map)).toEqual({
      x: 70,
      y: 10,
      width: 10,
      height: 40,
      angle: 0,
    });
  });

  test('mirroring is seen in the map', () => {
    const map = mappingOf([-1, 0, 200, 0, 1, 0, 0, 0, 1], { x: 5, y: 5 });
    expect(map).toMatchObject({ mirrored: true, angle: 0 });
  });

  test('stretching leaves a side of no length as it is', () => {
    const map = stretching(
      { x: 0, y: 0, width: 0, height: 10 },
      { x: 5, y: 5, width: 9, height: 20 },
    );
    expect(map.point({ x: 0, y: 10 })).toEqual({ x: 5, y: 25 });
  });
});
