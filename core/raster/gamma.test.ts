import { describe, expect, test } from '@jest/globals';
import { gammaOfPng, withExponent } from './gamma';

/** Chunks of a PNG without their checksums, which nobody looks at here. */
function png(...chunks: [type: string, data: number[]][]): Uint8Array {
  const parts = chunks.map(([type, data]) => [
    ...[0, 0, 0, data.length],
    ...Buffer.from(type, 'latin1'),
    ...data,
    ...[0, 0, 0, 0],
  ]);
  return Uint8Array.from([137, 80, 78, 71, 13, 10, 26, 10, ...parts.flat()]);
}
const HEADER: [string, number[]] = ['IHDR', Array.from({ length: 13 }, () => 0)];
const gAMA = (value: number): [string, number[]] => [
  'gAMA',
  [value >>> 24, (value >> 16) & 255, (value >> 8) & 255, value & 255],
];

const MANY = Array.from({ length: 2_000 }, (): [string, number[]] => ['tEXt', []]);

describe('the gamma of a PNG', () => {
  test('linear samples are brought to a screen of 2.2', () => {
    expect(gammaOfPng(png(HEADER, gAMA(100_000), ['IDAT', []]))).toBeCloseTo(1 / 2.2);
  });

  test.each([
    ['is not said', png(HEADER, ['IDAT', []])],
    ['is that of screens', png(HEADER, gAMA(45_455), ['IDAT', []])],
    ['is nearly that of screens', png(HEADER, gAMA(44_000), ['IDAT', []])],
    ['stands beside a profile', png(HEADER, gAMA(100_000), ['iCCP', [1]], ['IDAT', []])],
    ['stands beside sRGB', png(HEADER, ['sRGB', [0]], gAMA(100_000), ['IDAT', []])],
    ['stands behind the pixels', png(HEADER, ['IDAT', []], gAMA(100_000))],
    ['stands behind more chunks than anybody writes', png(HEADER, ...MANY, gAMA(100_000))],
    ['is nothing', png(HEADER, gAMA(0), ['IDAT', []])],
    ['is cut off', png(HEADER, gAMA(100_000)).subarray(0, 41)],
  ])('that %s changes nothing', (_, bytes) => {
    expect(gammaOfPng(bytes)).toBeNull();
  });
});

// Values worked out by hand: 255 · (n / 255) ^ (1 / 2.2).
test('the exponent changes colours and leaves transparency', () => {
  expect([...withExponent(Uint8Array.of(0, 255, 64, 64), 4, 1 / 2.2)]).toEqual([0, 255, 136, 64]);
  expect([...withExponent(Uint8Array.of(128, 7), 2, 1 / 2.2)]).toEqual([186, 7]);
  expect([...withExponent(Uint8Array.of(64, 128, 7), 3, 1)]).toEqual([64, 128, 7]);
});

test('samples of 16 bits become ones of 8', () => {
  expect([...withExponent(Uint16Array.of(0, 65_535, 16_448, 32_896), 4, 1 / 2.2)]).toEqual([
    0, 255, 136, 128,
  ]);
});
