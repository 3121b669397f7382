import { describe, expect, test } from '@jest/globals';
import jpegJs from 'jpeg-js';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { crc32 } from 'node:zlib';
import { formats } from '../keep/formats';
import type { Pixels } from '../paint/flatten';
import { gradient } from './setup';

const width = 65;
const height = 33;
const rgb = gradient(width, height);
const pixels = (alpha = 255): Pixels => {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < width * height; i += 1)
    data.set([rgb[i * 3] ?? 0, rgb[i * 3 + 1] ?? 0, rgb[i * 3 + 2] ?? 0, alpha], i * 4);
  return { data, width, height, opaque: alpha === 255 };
};

// Source: W3C, Portable Network Graphics (PNG) Specification, Third Edition.
describe('PNG', () => {
  test('the CRC is that of the specification', () => {
    expect(crc32(Buffer.from('123456789')).toString(16)).toBe('cbf43926');
    expect(crc32(Buffer.from('IEND')).toString(16)).toBe('ae426082');
  });

  test('signature, order and sums of its chunks, 96 dots per inch', async () => {
    const bytes = Buffer.from(await formats.png.encode(pixels(), { quality: 100 }));
    expect([...bytes.subarray(0, 8)]).toEqual([137, 80, 78, 71, 13, 10, 26, 10]);
    const types = [];
    for (let at = 8; at < bytes.length;) {
      const length = bytes.readUInt32BE(at);
      const body = bytes.subarray(at + 4, at + 8 + length);
      expect(bytes.readUInt32BE(at + 8 + length)).toBe(crc32(body));
      types.push(body.toString('latin1', 0, 4));
      if (types.at(-1) === 'pHYs') {
        const perMetre = body.readUInt32BE(4);
        expect(Math.round(perMetre * 0.0254)).toBe(96);
        expect(body[12]).toBe(1);
      }
      at += 12 + length;
    }
    expect(types[0]).toBe('IHDR');
    expect(types.at(-1)).toBe('IEND');
    expect(types).toContain('pHYs');
    expect(types.indexOf('pHYs')).toBeLessThan(types.indexOf('IDAT'));
  });

  // Source: pngjs, a second decoder.
  test('pixels are equal when read by another decoder, opaque and not', async () => {
    const opaque = PNG.sync.read(Buffer.from(await formats.png.encode(pixels(), { quality: 100 })));
    expect([opaque.width, opaque.height]).toEqual([width, height]);
    expect(Buffer.from(opaque.data).equals(Buffer.from(pixels().data))).toBe(true);
    const clear = PNG.sync.read(
      Buffer.from(await formats.png.encode(pixels(120), { quality: 100 })),
    );
    expect(Buffer.from(clear.data).equals(Buffer.from(pixels(120).data))).toBe(true);
  });
});

// Source: ITU-T T.871 (JFIF); jpeg-js, a second decoder.
describe('JPEG', () => {
  test('says its density, and another decoder reads what sharp reads', async () => {
    const bytes = Buffer.from(await formats.jpeg.encode(pixels(), { quality: 92 }));
    expect(bytes.toString('latin1', 6, 10)).toBe('JFIF');
    expect(bytes[13]).toBe(1);
    expect([bytes.readUInt16BE(14), bytes.readUInt16BE(16)]).toEqual([96, 96]);
    const other = jpegJs.decode(bytes, { formatAsRGBA: false });
    const own = await sharp(bytes).raw().toBuffer();
    let most = 0;
    own.forEach((value, i) => (most = Math.max(most, Math.abs(value - (other.data[i] ?? 0)))));
    expect(most).toBeLessThanOrEqual(4);
  });

  test('less quality gives fewer bytes, transparent parts turn white', async () => {
    const sizes = await Promise.all(
      [10, 50, 95].map(
        async (quality) => (await formats.jpeg.encode(pixels(), { quality })).length,
      ),
    );
    expect([...sizes].sort((a, b) => a - b)).toEqual(sizes);
    const clear = await sharp(Buffer.from(await formats.jpeg.encode(pixels(0), { quality: 95 })))
      .raw()
      .toBuffer();
    expect(Math.min(...clear)).toBeGreaterThan(250);
  });
});
