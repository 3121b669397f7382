import { expect, test } from '@jest/globals';
import sharp from 'sharp';
import { randomFrom } from '../random/random';
import { blurLine, blurPlane, blurReach } from './blur';

const [width, height] = [120, 90];

/** Blots of white on black, with room around them. */
function blots(): Float32Array {
  const random = randomFrom(5);
  const plane = new Float32Array(width * height);
  for (let i = 0; i < 6; i += 1) {
    const [x0, y0] = [30 + Math.floor(random() * 40), 30 + Math.floor(random() * 20)];
    for (let y = y0; y < y0 + 12; y += 1) plane.fill(255, y * width + x0, y * width + x0 + 14);
  }
  return plane;
}

// Source: libvips' Gaussian, through sharp. Three boxes come near one (W3C, Filter Effects Module
// Level 1, feGaussianBlur), worst where they are small: those for 2 have a deviation of 2.12.
test.each([0.8, 1.5, 2, 2.6, 4, 7.5])('blurred by %d it is as libvips blurs', async (deviation) => {
  const plane = blots();
  const blurred = blurPlane(plane, width, height, deviation);
  const theirs = await sharp(Buffer.from(plane), { raw: { width, height, channels: 1 } })
    .blur({ sigma: deviation, precision: 'float', minAmplitude: 0.001 })
    .toColourspace('b-w')
    .raw()
    .toBuffer();
  const off = blurred.map((value, i) => Math.abs(value - (theirs[i] ?? 0)));
  expect(Math.max(...off)).toBeLessThanOrEqual(0.05 * 255);
  expect(off.reduce((sum, v) => sum + v, 0) / off.length).toBeLessThanOrEqual(0.01 * 255);
});

test.each([0.5, 1, 2, 3.3, 10])(
  'by %d nothing is lost, and nothing goes further than told',
  (s) => {
    const reach = blurReach(s);
    const side = 2 * reach + 41;
    const plane = new Float32Array(side * side);
    for (let y = reach + 10; y < reach + 30; y += 1) {
      plane.fill(1, y * side + reach + 10, y * side + reach + 30);
    }
    const blurred = blurPlane(plane, side, side, s);
    expect(blurred.reduce((sum, v) => sum + v, 0)).toBeCloseTo(400, 1);
    const row = (y: number) => blurred.subarray(y * side, (y + 1) * side);
    const sum = (values: Float32Array) => values.reduce((all, v) => all + Math.abs(v), 0);
    expect(sum(row(9))).toBeCloseTo(0, 4);
    expect(sum(row(reach + 29 + reach + 1))).toBeCloseTo(0, 4);
    // The same to both sides.
    expect(row(reach + 20)[reach + 9 - Math.ceil(s)]).toBeCloseTo(
      row(reach + 20)[reach + 30 + Math.ceil(s)] ?? 0,
      5,
    );
  },
);

test('a rectangle is blurred as its width and its height are', () => {
  const plane = new Float32Array(60 * 60);
  for (let y = 20; y < 40; y += 1) plane.fill(1, y * 60 + 15, y * 60 + 45);
  const line = (from: number, to: number) => blurLine(new Float32Array(60).fill(1, from, to), 3);
  const [across, down] = [line(15, 45), line(20, 40)];
  const blurred = blurPlane(plane, 60, 60, 3);
  blurred.forEach((value, i) => {
    const [x, y] = [i % 60, Math.floor(i / 60)];
    expect(value).toBeCloseTo((across[x] ?? 0) * (down[y] ?? 0), 4);
  });
});

test('by nothing it stays as it is', () => {
  const plane = blots();
  expect(blurPlane(plane, width, height, 0)).toBe(plane);
  expect(blurReach(0)).toBe(0);
});
