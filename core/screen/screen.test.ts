import { describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { fromBase64, toBase64 } from '../raster/base64';
import { scaleSmoothly, type RgbaPixels } from '../raster/pixels';
import { findParts, partsAt } from './parts';
import { fromPremultipliedArgb, toRgba, toRgbaWithAlpha, type PixelLayout } from './pixels';

const bgrx: PixelLayout = {
  bitsPerPixel: 32,
  red: 0xff0000,
  green: 0xff00,
  blue: 0xff,
  bigEndian: false,
  rowPad: 32,
};

describe('pixels of a display', () => {
  test('32 bits, in the usual order and in the other', () => {
    const bytes = Uint8Array.from([3, 2, 1, 99, 30, 20, 10, 0]);
    expect([...toRgba(bytes, 2, 1, bgrx)]).toEqual([1, 2, 3, 255, 10, 20, 30, 255]);
    const other = Uint8Array.from([99, 1, 2, 3]);
    expect([...toRgba(other, 1, 1, { ...bgrx, bigEndian: true })]).toEqual([1, 2, 3, 255]);
    const rgbx = { ...bgrx, red: 0xff, blue: 0xff0000 };
    expect([...toRgba(Uint8Array.from([1, 2, 3, 0]), 1, 1, rgbx)]).toEqual([1, 2, 3, 255]);
  });

  test('16 bits, rows padded to 32', () => {
    const rgb565 = { ...bgrx, bitsPerPixel: 16, red: 0xf800, green: 0x7e0, blue: 0x1f };
    const bytes = new Uint8Array(8);
    const view = new DataView(bytes.buffer);
    view.setUint16(0, 0xf800, true);
    view.setUint16(4, 0x07e0, true);
    expect([...toRgba(bytes, 1, 2, rgb565)]).toEqual([255, 0, 0, 255, 0, 255, 0, 255]);
  });

  test('what cannot be read is said', () => {
    expect(() => toRgba(new Uint8Array(3), 1, 1, { ...bgrx, bitsPerPixel: 8 })).toThrow('8 bits');
    expect(() => toRgba(new Uint8Array(7), 2, 1, bgrx)).toThrow('too few');
  });

  test('where a window can be transparent, its colours are as they were before that', () => {
    // Half transparent orange, nothing at all, and what an opaque part drew without saying so.
    const bytes = Uint8Array.from([0, 64, 128, 128, 0, 0, 0, 0, 30, 20, 10, 0]);
    const part = { x: 2, y: 0, width: 1, height: 1 };
    const read = (layout: PixelLayout) => [...toRgbaWithAlpha(bytes, 3, 1, layout, part)];
    expect(read(bgrx)).toEqual([255, 128, 0, 128, 0, 0, 0, 0, 10, 20, 30, 255]);
    const swapped = { ...bgrx, red: bgrx.blue, blue: bgrx.red };
    expect(read(swapped).slice(0, 4)).toEqual([0, 128, 255, 128]);
  });

  test('a pointer’s pixels are taken out of their opacity', () => {
    expect([...fromPremultipliedArgb(Uint8Array.from([0, 64, 128, 128, 9, 9, 9, 0]))]).toEqual([
      255, 128, 0, 128, 0, 0, 0, 0,
    ]);
  });
});

describe('small pictures', () => {
  // RFC 4648 §10, test vectors.
  test.each([
    ['', ''],
    ['f', 'Zg=='],
    ['fo', 'Zm8='],
    ['foo', 'Zm9v'],
    ['foob', 'Zm9vYg=='],
    ['fooba', 'Zm9vYmE='],
    ['foobar', 'Zm9vYmFy'],
  ])('base64 of “%s”', (plain, packed) => {
    expect(toBase64([...plain].map((c) => c.charCodeAt(0)))).toBe(packed);
    expect(String.fromCharCode(...fromBase64(packed))).toBe(plain);
  });

  test('smooth scaling agrees with libvips’ cubic kernel within rounding', async () => {
    const data = new Uint8ClampedArray(16 * 16 * 4);
    for (let i = 0; i < 256; i += 1) {
      data.set([(i * 37) % 256, (i * 11) % 256, i, 255], i * 4);
    }
    const mine = scaleSmoothly({ data, width: 16, height: 16 }, 8, 8);
    const theirs = await sharp(data, { raw: { width: 16, height: 16, channels: 4 } })
      .resize(8, 8, { kernel: 'cubic', fastShrinkOnLoad: false })
      .raw()
      .toBuffer();
    const differences = [...mine.data].map((v, i) => Math.abs(v - (theirs[i] ?? 0)));
    const inner = differences.filter((_, i) => {
      const [x, y] = [(i >> 2) % 8, (i >> 2) >> 3];
      return x > 1 && x < 6 && y > 1 && y < 6;
    });
    expect(Math.max(...inner)).toBeLessThanOrEqual(3);
  });

  test('an even picture stays even, whatever its opacity', () => {
    const data = new Uint8ClampedArray(5 * 5 * 4);
    for (let i = 0; i < 25; i += 1) data.set([200, 100, 50, 128], i * 4);
    const { data: big } = scaleSmoothly({ data, width: 5, height: 5 }, 13, 11);
    for (let i = 0; i < big.length; i += 4) {
      expect([...big.subarray(i, i + 4)]).toEqual([200, 100, 50, 128]);
    }
  });
});

describe('parts', () => {
  /** A ground with boxes drawn on it, the later over the earlier. */
  function draw(boxes: [number, number, number, number, number][]): RgbaPixels {
    const [width, height] = [300, 200];
    const data = new Uint8ClampedArray(width * height * 4).fill(240);
    for (const [x, y, w, h, grey] of boxes) {
      for (let row = y; row < y + h; row += 1) {
        data.fill(grey, (row * width + x) * 4, (row * width + x + w) * 4);
      }
    }
    return { data, width, height };
  }

  test('a button on a panel: both, with their borders, the panel first', () => {
    const parts = findParts(
      draw([
        [40, 30, 200, 120, 90],
        [41, 31, 198, 118, 255],
        [60, 60, 80, 26, 60],
      ]),
    );
    expect(parts).toEqual([
      { x: 40, y: 30, width: 200, height: 120 },
      { x: 60, y: 60, width: 80, height: 26 },
    ]);
    expect(partsAt(parts, { x: 70, y: 70 })).toEqual([parts[1], parts[0]]);
    expect(partsAt(parts, { x: 5, y: 5 })).toEqual([]);
  });

  test('a title above its window makes one more part of both', () => {
    const parts = findParts(
      draw([
        [50, 40, 160, 24, 70],
        [50, 64, 160, 90, 255],
      ]),
    );
    expect(parts).toContainEqual({ x: 50, y: 40, width: 160, height: 114 });
  });

  test('told that it is late, it gives what it has seen whole, from the top', () => {
    const rows = draw([
      [20, 10, 100, 30, 90],
      [20, 60, 100, 40, 90],
      [20, 120, 100, 30, 90],
    ]);
    const late = (after: number) => {
      let asked = 0;
      return () => (asked += 1) > after;
    };
    const whole = findParts(rows);
    expect(whole).toHaveLength(3);
    expect(findParts(rows, late(80))).toEqual([{ x: 20, y: 10, width: 100, height: 30 }]);
    expect(findParts(rows, late(119))).toEqual(whole.filter((part) => part.y < 100));
    expect(findParts(rows, late(0))).toEqual([]);
  });

  test('nothing is found on an even ground, and noise is no part', () => {
    expect(findParts(draw([]))).toEqual([]);
    const noise = draw([]);
    for (let i = 0, v = 1; i < noise.data.length; i += 1) {
      v = (v * 48271) % 0x7fffffff;
      noise.data[i] = v & 255;
    }
    expect(findParts(noise)).toEqual([]);
  });
});
