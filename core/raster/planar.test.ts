import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { randomFrom } from '../random/random';
import {
  blankPlanar,
  cutPlanar,
  planarLength,
  planarOf,
  planarPixels,
  putPlanar,
  rgbaOf,
  type PlanarPixels,
} from './planar';
import { cutPixels, type RgbaPixels } from './pixels';
import type { Planes } from './yCbCr';

const tv: Planes = { half: false, full: false, matrix: 'bt709' };
const whole = { min: 1, max: 9 };
const sizes = fc.record({ width: fc.integer(whole), height: fc.integer(whole) });
const allPlanes = fc.record({
  ...{ half: fc.boolean(), full: fc.boolean() },
  matrix: fc.constantFrom('bt709', 'bt601'),
}) as fc.Arbitrary<Planes>;

const pixelsOf = (size: { width: number; height: number }, of: (i: number) => number[]) => {
  const data = new Uint8ClampedArray(size.width * size.height * 4);
  for (let i = 0; i < data.length / 4; i += 1) data.set([...of(i), 255], 4 * i);
  return { ...size, data } satisfies RgbaPixels;
};
/** Something else in each sample. */
const filled = (size: { width: number; height: number }, planes: Planes): PlanarPixels => {
  const all = planarPixels(size, planes);
  all.data.forEach((_, i) => (all.data[i] = 40 + ((i * 37) % 170)));
  return all;
};

// The bars of 100 % (ITU-R BT.801-1 for BT.601; the same of BT.709-6 by its items 3.2 to 3.5).
test.each([
  ['white', [255, 255, 255], [235, 128, 128], [235, 128, 128]],
  ['yellow', [255, 255, 0], [210, 16, 146], [219, 16, 138]],
  ['cyan', [0, 255, 255], [170, 166, 16], [188, 154, 16]],
  ['green', [0, 255, 0], [145, 54, 34], [173, 42, 26]],
  ['magenta', [255, 0, 255], [106, 202, 222], [78, 214, 230]],
  ['red', [255, 0, 0], [81, 90, 240], [63, 102, 240]],
  ['blue', [0, 0, 255], [41, 240, 110], [32, 240, 118]],
  ['black', [0, 0, 0], [16, 128, 128], [16, 128, 128]],
])('%s is what the standards say, both ways', (_, colour, bt601, bt709) => {
  const pixels = pixelsOf({ width: 1, height: 1 }, () => colour);
  for (const [matrix, told] of [['bt601', bt601] as const, ['bt709', bt709] as const]) {
    const planar = planarOf(pixels, { ...tv, matrix });
    expect([...planar.data]).toEqual(told);
    const back = [...rgbaOf(planar).data].slice(0, 3);
    expect(back.every((value, i) => Math.abs(value - (colour[i] ?? 0)) <= 2)).toBe(true);
  }
});

test('of the full range white is 255, and red is 255 in its own colour', () => {
  const of = (colour: number[]) => [
    ...planarOf(
      pixelsOf({ width: 1, height: 1 }, () => colour),
      { ...tv, full: true },
    ).data,
  ];
  expect(of([255, 255, 255])).toEqual([255, 128, 128]);
  expect(of([255, 0, 0])).toEqual([54, 99, 255]);
});

test('there and back, no colour is off by more than 2; grey not at all in the full range', () => {
  const colour = fc.tuple(...[0, 1, 2].map(() => fc.integer({ min: 0, max: 255 })));
  fc.assert(
    fc.property(sizes, allPlanes, colour, (size, planes, one) => {
      const there = rgbaOf(
        planarOf(
          pixelsOf(size, () => one),
          planes,
        ),
      );
      const off = [...there.data].map((value, i) => Math.abs(value - ([...one, 255][i % 4] ?? 0)));
      expect(Math.max(...off)).toBeLessThanOrEqual(2);
      const grey = pixelsOf(size, (i) => [i, i, i]);
      if (planes.full) expect(rgbaOf(planarOf(grey, planes))).toEqual(grey);
    }),
  );
});

test('one colour for four pixels is their mean, at odd edges of those that are there', () => {
  const half = { ...tv, half: true, full: true };
  const pixels = pixelsOf({ width: 3, height: 1 }, (i) => (i === 0 ? [255, 0, 0] : [0, 0, 255]));
  const { data } = planarOf(pixels, half);
  expect(data).toHaveLength(3 + 2 + 2);
  const alone = planarOf(
    pixelsOf({ width: 1, height: 1 }, () => [0, 0, 255]),
    half,
  ).data;
  expect([data[4], data[6]]).toEqual([alone[1], alone[2]]);
  const mixed = planarOf(
    pixelsOf({ width: 1, height: 1 }, () => [127.5, 0, 127.5]),
    half,
  ).data;
  expect(Math.abs((data[3] ?? 0) - (mixed[1] ?? 0))).toBeLessThanOrEqual(1);
});

describe('parts', () => {
  const even = (planes: Planes, n: number) => (planes.half ? n - (n % 2) : n);

  test('what is cut out is what was there, and put back changes nothing', () => {
    fc.assert(
      fc.property(sizes, allPlanes, fc.nat(8), fc.nat(8), (size, planes, dx, dy) => {
        const all = filled(size, planes);
        const [x, y] = [dx % size.width, dy % size.height].map((n) => even(planes, n));
        const part = { x: x ?? 0, y: y ?? 0, width: 0, height: 0 };
        Object.assign(part, { width: size.width - part.x, height: size.height - part.y });
        const cut = cutPlanar(all, part);
        expect(rgbaOf(cut)).toEqual(cutPixels(rgbaOf(all), part));
        const copy = planarPixels(size, planes, all.data.slice());
        putPlanar(copy, cut, part);
        expect(copy.data).toEqual(all.data);
        expect(cut.data).toHaveLength(planarLength(part, planes));
      }),
    );
  });

  test('put elsewhere it is seen there, and nowhere else', () => {
    const planes = { ...tv, half: true };
    const all = planarOf(
      pixelsOf({ width: 8, height: 6 }, () => [255, 255, 255]),
      planes,
    );
    putPlanar(
      all,
      planarOf(
        pixelsOf({ width: 2, height: 2 }, () => [0, 0, 0]),
        planes,
      ),
      {
        ...{ x: 4, y: 2 },
      },
    );
    const dark = [...rgbaOf(all).data].flatMap((v, i) => (i % 4 === 0 && v < 5 ? [i / 4] : []));
    expect(dark).toEqual([20, 21, 28, 29]);
  });

  test('of what is made blank nothing is left, nor in the colours that are for others, too', () => {
    const half = { ...tv, half: true };
    const size = { width: 8, height: 6 };
    const parts = [
      { x: 1, y: 1, width: 4, height: 3 },
      { x: 4, y: 2, width: 3, height: 3 },
    ];
    const isIn = (x: number, y: number) =>
      parts.some((p) => x >= p.x && y >= p.y && x < p.x + p.width && y < p.y + p.height);
    fc.assert(
      fc.property(allPlanes, fc.integer(), fc.integer(), (planes, ...seeds) => {
        const [first, second] = seeds.map((seed) => {
          const next = randomFrom(seed);
          const of = (i: number): number[] =>
            isIn(i % 8, Math.floor(i / 8)) ? [next() * 255, next() * 255, 0] : [i, 200 - i, 90];
          const all = planarOf(pixelsOf(size, of), planes);
          blankPlanar(all, parts);
          return [...all.data];
        });
        expect(first).toEqual(second);
      }),
    );
    const all = filled(size, half);
    const before = all.data.slice();
    blankPlanar(all, parts);
    const bright = [...all.data].slice(0, 48);
    bright.forEach((value, i) =>
      expect(value).toBe(isIn(i % 8, Math.floor(i / 8)) ? 16 : before[i]),
    );
    // The first row of colours is for pixels above the parts, too: it is what is beside it.
    expect(all.data[48 + 3]).toBe(before[48 + 3]);
    expect(all.data[48 + 2]).toBe(before[48 + 3]);
  });
});

test('what was not painted on keeps its very samples, also such as no colour gives', () => {
  fc.assert(
    fc.property(sizes, allPlanes, fc.nat(80), (size, planes, at) => {
      const planar = filled(size, planes);
      const rgba = rgbaOf(planar);
      const same = planarOf(rgba, planes, { planar, rgba });
      expect(same.data).toEqual(planar.data);
      const painted = { ...rgba, data: rgba.data.slice() };
      const i = at % (size.width * size.height);
      painted.data.set([0, 0, 0], 4 * i);
      const made = planarOf(painted, planes, { planar, rgba });
      const others = [...made.data].slice(0, size.width * size.height);
      others.forEach((value, n) => n !== i && expect(value).toBe(planar.data[n]));
    }),
  );
});
