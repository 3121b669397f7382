import { describe, expect, test } from '@jest/globals';
import { ssim } from 'ssim.js';
import { randomFrom } from '../random/random';
import { similarity } from './similarity';

const picture = (
  width: number,
  height: number,
  value: (x: number, y: number, c: number) => number,
) => {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1)
      for (let c = 0; c < 4; c += 1) data[(y * width + x) * 4 + c] = c === 3 ? 255 : value(x, y, c);
  return { data, width, height };
};

/** A page of flat ground, lines and grain, and the same after something happened to it. */
function pair(seed: number, width: number, height: number, harm: number) {
  const next = randomFrom(seed);
  const before = picture(width, height, (x, y) =>
    y < height / 3 ? 250 : (x >> 2) % 7 === 0 ? 20 + next() * 30 : 200 + (y % 50),
  );
  const after = {
    ...before,
    data: before.data.map((v, i) => (i % 4 === 3 ? 255 : v + (next() - 0.5) * harm)),
  };
  return [before, after] as const;
}

// Source: ssim.js 3.5, the variant "fast" without its shrinking: the same definition.
describe('agrees with ssim.js on the same definition within 1e-4, place by place', () => {
  test.each([
    [1, 64, 48, 3],
    [2, 131, 97, 40],
    [3, 11, 11, 90],
    [4, 300, 12, 200],
    [5, 240, 180, 0],
  ])('seed %i, %i × %i, harm %i', (seed, width, height, harm) => {
    const [before, after] = pair(seed, width, height, harm);
    const wanted = ssim(before, after, { ssim: 'fast', downsample: false });
    const { likeness, map } = similarity(before, after);
    expect(Math.abs(likeness - wanted.mssim)).toBeLessThan(1e-4);
    expect([map.width, map.height]).toEqual([wanted.ssim_map.width, wanted.ssim_map.height]);
    const worst = Math.max(
      ...wanted.ssim_map.data.map((value, i) => Math.abs(value - (map.data[i] ?? 0))),
    );
    expect(worst).toBeLessThan(1e-4);
  });
});

test('a hue that is off by too little for lightness to tell is no difference', () => {
  const before = picture(64, 48, () => 100);
  const after = picture(64, 48, (_x, _y, c) => (c === 2 ? 101 : 100));
  expect(ssim(before, after, { ssim: 'fast', downsample: false }).mssim).toBeCloseTo(1, 9);
  expect(similarity(before, after).likeness).toBe(1);
});

test('where only a few places differ, it agrees with ssim.js, too', () => {
  const [before] = pair(9, 200, 150, 0);
  // In the corners, across the borders of the squares that are looked at, and single pixels.
  const places = [
    [0, 0],
    [199, 149],
    [31, 31],
    [32, 95],
    [64, 63],
    [120, 10],
    [199, 64],
  ] as const;
  const data = new Uint8ClampedArray(before.data);
  for (const [x, y] of places) data[(y * 200 + x) * 4] = 255 - (data[(y * 200 + x) * 4] ?? 0);
  const after = { ...before, data };
  const wanted = ssim(before, after, { ssim: 'fast', downsample: false });
  const { likeness, map } = similarity(before, after);
  expect(Math.abs(likeness - wanted.mssim)).toBeLessThan(1e-6);
  wanted.ssim_map.data.forEach((value, i) => expect(map.data[i]).toBeCloseTo(value, 4));
});

test('the very same is 1 everywhere; black and white share nothing', () => {
  const [same] = pair(7, 40, 30, 0);
  const { likeness, map } = similarity(same, same);
  expect(likeness).toBeCloseTo(1, 12);
  expect(Math.min(...Array.from(map.data))).toBeCloseTo(1, 9);
  const [black, white] = [picture(20, 20, () => 0), picture(20, 20, () => 255)];
  expect(similarity(black, white).likeness).toBeLessThan(0.001);
});

test('pictures that cannot be compared are refused in words', () => {
  const [a] = pair(1, 40, 30, 0);
  expect(() => similarity(a, { ...a, width: 30, height: 40 })).toThrow('sizes differ');
  const small = picture(10, 40, () => 0);
  expect(() => similarity(small, small)).toThrow('smaller than the window');
});
