import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import sharp from 'sharp';
import { randomFrom } from '../../random/random';
import type { RgbaPixels } from '../../raster/pixels';
import { adjustSchema, filterOf, order, withAmount, type Adjust } from './adjust';
import { adjustPixels } from './pixels';

/** One pixel of a colour, adjusted. */
function of(colour: readonly [number, number, number], adjust: Omit<Adjust, 'on'>): number[] {
  const pixels = { data: new Uint8ClampedArray([...colour, 255]), width: 1, height: 1 };
  adjustPixels(pixels, { on: 'picture', ...adjust });
  expect(pixels.data[3]).toBe(255);
  return [...pixels.data.subarray(0, 3)];
}

const red = [255, 0, 0] as const;
const slate = [64, 96, 128] as const;

// Source: W3C, Filter Effects Module Level 1, §§ 9 and 13; worked out by hand from its
// formulas, times 255 and rounded.
describe('the formulas of the filter primitives', () => {
  test.each([
    ['brightness 150 %', slate, { brightness: 150 }, [96, 144, 192]],
    ['brightness 250 % holds at white', slate, { brightness: 250 }, [160, 240, 255]],
    ['brightness 0 is black', slate, { brightness: 0 }, [0, 0, 0]],
    // 0.5 × v + 0.25
    ['contrast 50 %', [0, 128, 255], { contrast: 50 }, [64, 128, 191]],
    // 2 × v − 0.5
    ['contrast 200 %', [32, 128, 160], { contrast: 200 }, [0, 129, 193]],
    ['contrast 0 is middle grey', slate, { contrast: 0 }, [128, 128, 128]],
    // 0.213, 0.213, 0.213
    ['saturation 0 of red', red, { saturation: 0 }, [54, 54, 54]],
    // 0.213 + 0.787 × 0.5 and 0.213 − 0.213 × 0.5
    ['saturation 50 % of red', red, { saturation: 50 }, [155, 27, 27]],
    // 0.213 + 0.787 × 2 = 1.787; 0.213 − 0.426 = −0.213: both held
    ['saturation 200 % of red', red, { saturation: 200 }, [255, 0, 0]],
    // 0.2126, 0.7152, 0.0722
    ['greyscale of red', red, { grey: 100 }, [54, 54, 54]],
    ['greyscale of green', [0, 255, 0], { grey: 100 }, [182, 182, 182]],
    ['greyscale of blue', [0, 0, 255], { grey: 100 }, [18, 18, 18]],
    // 0.2126 + 0.7874 × 0.5 and 0.2126 − 0.2126 × 0.5
    ['greyscale 50 % of red', red, { grey: 50 }, [155, 27, 27]],
    ['inverted', slate, { inverted: 100 }, [191, 159, 127]],
    // 0.25 + v × 0.5
    ['inverted by 25 %', [0, 128, 255], { inverted: 25 }, [64, 128, 191]],
  ] as const)('%s', (_, colour, adjust, expected) => {
    expect(of(colour, adjust)).toEqual(expected);
  });

  test('each is held within black and white before the next, and rounded once, at the end', () => {
    // 64 × 3 = 192, 96 × 3 and 128 × 3 held at 255; then 0.5 × v + 0.25.
    expect(of(slate, { brightness: 300, contrast: 50 })).toEqual([160, 191, 191]);
    // 121.2 ÷ 255 × 3 − 1; rounded to 121 between the two it would come to 108.
    expect(of([120, 120, 120], { brightness: 101, contrast: 300 })).toEqual([109, 109, 109]);
    expect(of([255, 255, 255], { brightness: 50, inverted: 100 })).toEqual([128, 128, 128]);
  });
});

const held = (v: number): number => Math.min(1, Math.max(0, v));

/** Source: W3C, Filter Effects Module Level 1, § 13: one step after the other, as it is written there. */
function stepByStep(
  colour: readonly number[],
  amounts: Required<Omit<Adjust, 'on' | 'sharpened'>>,
): number[] {
  const { brightness, contrast, saturation, grey, inverted } = amounts;
  const [b, c, s, i] = [brightness / 100, contrast / 100, saturation / 100, inverted / 100];
  const g = 1 - grey / 100;
  const [x = 0, y = 0, z = 0] = colour
    .map((v) => held((v / 255) * b))
    .map((v) => held(v * c + 0.5 - 0.5 * c));
  const [u = 0, v = 0, w = 0] = [
    (0.213 + 0.787 * s) * x + (0.715 - 0.715 * s) * y + (0.072 - 0.072 * s) * z,
    (0.213 - 0.213 * s) * x + (0.715 + 0.285 * s) * y + (0.072 - 0.072 * s) * z,
    (0.213 - 0.213 * s) * x + (0.715 - 0.715 * s) * y + (0.072 + 0.928 * s) * z,
  ].map(held);
  return [
    (0.2126 + 0.7874 * g) * u + (0.7152 - 0.7152 * g) * v + (0.0722 - 0.0722 * g) * w,
    (0.2126 - 0.2126 * g) * u + (0.7152 + 0.2848 * g) * v + (0.0722 - 0.0722 * g) * w,
    (0.2126 - 0.2126 * g) * u + (0.7152 - 0.7152 * g) * v + (0.0722 + 0.9278 * g) * w,
  ]
    .map(held)
    .map((value) => held(value * (1 - 2 * i) + i) * 255);
}

test('steps that are taken as one come to what they come to one after the other', () => {
  const amount = (most: number) => fc.integer({ min: 0, max: most });
  const wanted = fc.record({
    ...{ brightness: amount(300), contrast: amount(300), saturation: amount(300) },
    ...{ grey: amount(100), inverted: amount(100) },
  });
  const channel = fc.integer({ min: 0, max: 255 });
  fc.assert(
    fc.property(wanted, fc.tuple(channel, channel, channel), (amounts, colour) => {
      const made = of(colour, amounts);
      stepByStep(colour, amounts).forEach((exact, i) => {
        expect(Math.abs((made[i] ?? NaN) - exact)).toBeLessThanOrEqual(0.5 + 1e-6);
      });
    }),
    { numRuns: 1000 },
  );
});

/** Noise that is opaque. */
function noise(width: number, height: number): RgbaPixels {
  const next = randomFrom(7);
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < data.length; i += 1) data[i] = i % 4 === 3 ? 255 : next() * 256;
  return { data, width, height };
}

describe('sharpened', () => {
  const size = { width: 40, height: 30 };

  // Source: libvips, conv, through sharp.convolve, with the same kernel; it repeats the edge, too.
  test.each([50, 100, 200])('by %i %, as libvips convolves', async (sharpened) => {
    const pixels = noise(size.width, size.height);
    const raw = { ...size, channels: 4 as const };
    const a = sharpened / 100;
    const kernel = [1, 2, 1, 2, 4, 2, 1, 2, 1].map(
      (w, i) => (i === 4 ? 16 : 0) + a * ((i === 4 ? 16 : 0) - w),
    );
    const expected = await sharp(Buffer.from(pixels.data), { raw })
      .removeAlpha()
      .convolve({ width: 3, height: 3, kernel, scale: 16 })
      .raw()
      .toBuffer();
    adjustPixels(pixels, { on: 'picture', sharpened });
    let most = 0;
    for (let i = 0; i < size.width * size.height; i += 1) {
      for (let c = 0; c < 3; c += 1) {
        const by = (pixels.data[i * 4 + c] ?? 0) - (expected[i * 3 + c] ?? 0);
        most = Math.max(most, Math.abs(by));
      }
    }
    expect(most).toBeLessThanOrEqual(1);
  });

  test('reads nothing of what may not be known, and changes what is there all the same', () => {
    const [one, other] = [noise(9, 9), noise(9, 9)];
    const known = new Uint8Array(81).fill(1);
    for (let y = 3; y < 6; y += 1) {
      for (let x = 3; x < 6; x += 1) {
        known[y * 9 + x] = 0;
        other.data.set([0, 255, 0, 255], (y * 9 + x) * 4);
      }
    }
    const before = [...one.data];
    for (const pixels of [one, other])
      adjustPixels(pixels, { on: 'picture', sharpened: 150 }, known);
    for (let i = 0; i < 81; i += 1) {
      if (!known[i]) continue;
      const at = (data: ArrayLike<number>) => [0, 1, 2, 3].map((c) => data[i * 4 + c]);
      expect(at(one.data)).toEqual(at(other.data));
    }
    expect([...one.data]).not.toEqual(before);
  });
});

test('transparent pixels stay as they are, and are not read by others', () => {
  const data = new Uint8ClampedArray([10, 20, 30, 0, 200, 200, 200, 255, 200, 200, 200, 255]);
  const pixels = { data, width: 3, height: 1 };
  adjustPixels(pixels, { on: 'picture', inverted: 100, sharpened: 200 });
  expect([...data]).toEqual([10, 20, 30, 0, 55, 55, 55, 255, 55, 55, 55, 255]);
});

test('pixels that begin at an odd place in memory are adjusted where they are', () => {
  const memory = new ArrayBuffer(11);
  const data = new Uint8ClampedArray(memory, 3, 8);
  data.set([1, 2, 3, 255, 4, 5, 6, 255]);
  adjustPixels({ data, width: 2, height: 1 }, { on: 'picture', inverted: 100 });
  expect([...data]).toEqual([254, 253, 252, 255, 251, 250, 249, 255]);
});

test('what changes nothing is not said', () => {
  const some = withAmount(undefined, 'contrast', 130);
  expect(some).toEqual({ on: 'picture', contrast: 130 });
  expect(withAmount(some, 'grey', 100)).toEqual({ on: 'picture', contrast: 130, grey: 100 });
  expect(withAmount({ on: 'all', contrast: 130 }, 'contrast', 100)).toBeUndefined();
  expect(filterOf({ on: 'all', grey: 100, contrast: 130, sharpened: 50 })).toBe(
    'contrast(130%) grayscale(100%)',
  );
});

test('an amount beyond what there is is refused', () => {
  for (const name of order) {
    expect(adjustSchema.safeParse({ on: 'all', [name]: 100 }).success).toBe(true);
    expect(adjustSchema.safeParse({ on: 'all', [name]: -1 }).success).toBe(false);
    expect(adjustSchema.safeParse({ on: 'all', [name]: 301 }).success).toBe(false);
    expect(adjustSchema.safeParse({ on: 'all', [name]: 1.5 }).success).toBe(false);
  }
});
