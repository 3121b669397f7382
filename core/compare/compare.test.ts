import { describe, expect, test } from '@jest/globals';
import pixelmatch from 'pixelmatch';
import { randomFrom } from '../random/random';
import type { RgbaPixels } from '../raster/pixels';
import { compare } from './compare';
import { differences } from './differences';

const OPAQUE = 0xff000000;

/** A page with rows of something like words, each row another one; `scrolled` down by so much. */
function page(width: number, height: number, scrolled = 0, seed = 5): RgbaPixels {
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  const words = new Uint32Array(data.buffer);
  for (let line = Math.floor(scrolled / 20); line * 20 < scrolled + height; line += 1) {
    const next = randomFrom(seed + line);
    for (let x = 20; x < width - 20; x += 4 + Math.floor(next() * 9)) {
      const ink = OPAQUE | (next() * 0x7f7f7f);
      const high = 3 + Math.floor(next() * 9);
      for (let y = line * 20 - scrolled + 2; y < line * 20 - scrolled + 2 + high; y += 1) {
        if (y < 0 || y >= height) continue;
        for (let u = x; u < x + 3; u += 1) words[y * width + u] = ink;
      }
    }
  }
  return { data, width, height };
}

function cut({ data, width }: RgbaPixels, x: number, y: number, w: number, h: number): RgbaPixels {
  const from = new Uint32Array(data.buffer);
  const part = new Uint32Array(w * h);
  for (let v = 0; v < h; v += 1)
    part.set(from.subarray((y + v) * width + x, (y + v) * width + x + w), v * w);
  return { data: new Uint8ClampedArray(part.buffer), width: w, height: h };
}

function filled(
  pixels: RgbaPixels,
  x: number,
  y: number,
  w: number,
  h: number,
  word: number,
): RgbaPixels {
  const data = new Uint8ClampedArray(pixels.data);
  const words = new Uint32Array(data.buffer);
  for (let v = y; v < y + h; v += 1)
    words.fill(word, v * pixels.width + x, v * pixels.width + x + w);
  return { ...pixels, data };
}

describe('how they are shifted', () => {
  const long = page(640, 900);
  test.each([
    ['scrolled', cut(long, 0, 0, 640, 400), cut(long, 0, 137, 640, 400), { x: 0, y: 137 }],
    ['scrolled up', cut(long, 0, 300, 640, 400), cut(long, 0, 60, 640, 400), { x: 0, y: -240 }],
    ['moved sideways', cut(long, 0, 0, 500, 400), cut(long, 90, 0, 500, 400), { x: 90, y: 0 }],
    [
      'a region drawn a little otherwise',
      cut(long, 40, 30, 500, 400),
      cut(long, 52, 23, 500, 400),
      { x: 12, y: -7 },
    ],
    ['a part of it', long, cut(long, 100, 200, 300, 300), { x: 100, y: 200 }],
    ['the same', long, long, { x: 0, y: 0 }],
  ])('%s', (_, first, second, shift) => {
    const found = compare(first, second);
    expect(found.shift).toEqual(shift);
    expect([found.pixels, found.places]).toEqual([0, []]);
  });

  test('a head that stays while the rest is scrolled does not hide that', () => {
    const head = (pixels: RgbaPixels) =>
      filled(filled(pixels, 0, 0, 640, 48, OPAQUE | 0x5e8c79), 30, 12, 90, 20, OPAQUE);
    const [first, second] = [head(cut(long, 0, 0, 640, 400)), head(cut(long, 0, 100, 640, 400))];
    expect(compare(first, second).shift).toEqual({ x: 0, y: 100 });
  });

  test('pictures of other things are not laid on each other anyhow', () => {
    expect(compare(page(400, 300), page(400, 300, 0, 900)).shift).toEqual({ x: 0, y: 0 });
  });
});

describe('where they differ', () => {
  const first = page(640, 400);
  const red = OPAQUE | 0x0000ff;

  test('places are outlined, close ones together, the largest first', () => {
    const second = filled(
      filled(filled(first, 100, 100, 60, 30, red), 400, 300, 9, 9, red),
      412,
      300,
      9,
      9,
      red,
    );
    const { places, pixels } = differences(first, second);
    expect(places).toEqual([
      { x: 100, y: 100, width: 60, height: 30 },
      { x: 400, y: 300, width: 21, height: 9 },
    ]);
    expect(pixels).toBe(60 * 30 + 2 * 81);
  });

  // pixelmatch, which counts every pixel whose colour differs when its threshold is 0.
  test('pixels are counted as pixelmatch counts them', () => {
    const second = filled(filled(first, 33, 44, 70, 12, OPAQUE | 0xfefefe), 5, 380, 300, 3, red);
    const { width, height } = first;
    const counted = pixelmatch(first.data, second.data, undefined, width, height, {
      threshold: 0,
      includeAA: true,
    });
    expect(differences(first, second).pixels).toBe(counted);
  });

  test('what nobody sees is counted and not outlined; a picture that is larger has no place there', () => {
    const second = filled(first, 600, 0, 30, 14, OPAQUE | 0xf4f4f4);
    const { places, pixels } = differences(
      filled(first, 600, 0, 30, 14, OPAQUE | 0xffffff),
      second,
    );
    expect([places, pixels]).toEqual([[], 30 * 14]);
    const { both } = differences(first, page(700, 500));
    expect(both).toEqual({ x: 0, y: 0, width: 640, height: 400 });
  });

  test('pictures that do not meet differ nowhere', () => {
    expect(differences(first, first, { x: 640, y: 0 })).toEqual({
      ...{ pixels: 0, places: [] },
      both: { x: 640, y: 0, width: 0, height: 400 },
    });
  });
});
