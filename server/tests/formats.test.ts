import { describe, expect, test } from '@jest/globals';
import jpegJs from 'jpeg-js';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { GifReader } from 'omggif';
import UTIF from 'utif2';
import ExifReader from 'exifreader';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { crc32 } from 'node:zlib';
import type { FormatName, FormatOptions } from '@/core/contracts/format';
import type { Facts } from '@/core/keep/facts';
import { crc32 as ownCrc } from '@/core/keep/pngText';
import { untouched } from '@/core/document/view';
import { formats } from '../formats';
import { optionsOf } from '../formats/contract';
import { plainPng } from '../formats/png';
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

const facts: Facts = {
  title: 'Seed order – slip & card',
  description: 'A slip with a number. Größe „A“ 種',
  origin: 'Practice desk',
  takenAt: '2026-11-23T14:02:11Z',
  software: 'Rezzik',
  density: 96,
};
const encoded = async (
  name: FormatName,
  from: Pixels,
  more: { quality?: number; options?: FormatOptions; facts?: Facts } = {},
): Promise<Buffer> => {
  const document = untouched(from);
  const frame = await plainPng(from);
  const size = { width: from.width, height: from.height };
  const shot = { frame, opaque: from.opaque, document, revision: 1, size };
  const wish = { quality: 90, options: {}, background: '#FFFFFF', facts, ...more };
  return Buffer.from(await formats[name].encode({ pixels: from, shot }, wish));
};
const png = (from: Pixels) => encoded('png', from);
const jpeg = (from: Pixels, quality: number) => encoded('jpeg', from, { quality });

const rgba = (bytes: Uint8Array) => sharp(bytes).ensureAlpha().raw().toBuffer();
const equal = (a: Uint8Array, b: Pixels) => Buffer.from(a).equals(Buffer.from(b.data));

/** Peak signal-to-noise ratio, dB, over all channels. */
function psnr(a: Uint8Array, b: Uint8Array | Uint8ClampedArray): number {
  const sum = a.reduce((total, value, i) => total + (value - (b[i] ?? 0)) ** 2, 0);
  return 10 * Math.log10(255 ** 2 / (sum / a.length));
}

// Source: W3C, Portable Network Graphics (PNG) Specification, Third Edition.
describe('PNG', () => {
  test('the CRC is that of the specification', () => {
    expect(crc32(Buffer.from('123456789')).toString(16)).toBe('cbf43926');
    expect(crc32(Buffer.from('IEND')).toString(16)).toBe('ae426082');
    expect(ownCrc(Buffer.from('123456789')).toString(16)).toBe('cbf43926');
    expect(ownCrc(Buffer.from('IEND')).toString(16)).toBe('ae426082');
  });

  test('signature, order and sums of its chunks, 96 dots per inch', async () => {
    const bytes = Buffer.from(await png(pixels()));
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
    const opaque = PNG.sync.read(Buffer.from(await png(pixels())));
    expect([opaque.width, opaque.height]).toEqual([width, height]);
    expect(Buffer.from(opaque.data).equals(Buffer.from(pixels().data))).toBe(true);
    const clear = PNG.sync.read(Buffer.from(await png(pixels(120))));
    expect(Buffer.from(clear.data).equals(Buffer.from(pixels(120).data))).toBe(true);
  });
});

// Source: ITU-T T.871 (JFIF); jpeg-js, a second decoder.
describe('JPEG', () => {
  test('says its density, and another decoder reads what sharp reads', async () => {
    const bytes = Buffer.from(await jpeg(pixels(), 92));
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
      [10, 50, 95].map(async (quality) => (await jpeg(pixels(), quality)).length),
    );
    expect([...sizes].sort((a, b) => a - b)).toEqual(sizes);
    const clear = await sharp(Buffer.from(await jpeg(pixels(0), 95)))
      .raw()
      .toBuffer();
    expect(Math.min(...clear)).toBeGreaterThan(250);
  });
});

/** Few colours, so that a palette loses nothing. */
function chequered(): Pixels {
  const data = new Uint8ClampedArray(64 * 32 * 4);
  for (let i = 0; i < 64 * 32; i += 1) {
    data.set((i >> 3) % 2 ? [213, 94, 0, 255] : [0, 114, 178, 255], i * 4);
  }
  return { data, width: 64, height: 32, opaque: true };
}

describe('a palette', () => {
  test('is used where nothing is lost, and only there', async () => {
    const small = await encoded('png', chequered(), { options: { palette: true } });
    expect(small[25]).toBe(3);
    expect(equal(await rgba(small), chequered())).toBe(true);
    const many = await encoded('png', pixels(), { options: { palette: true } });
    expect(many[25]).toBe(2);
    expect(equal(await rgba(many), pixels())).toBe(true);
  });
});

// Source: RFC 9649 (WebP); libwebp through sharp is the only decoder at hand beside ImageMagick's.
describe('WebP and AVIF', () => {
  test('lossless WebP gives the very pixels, also transparent ones', async () => {
    const bytes = await encoded('webp', pixels(120), { options: { lossless: true } });
    expect(equal(await rgba(bytes), pixels(120))).toBe(true);
    expect(bytes.toString('latin1', 0, 4) + bytes.toString('latin1', 8, 12)).toBe('RIFFWEBP');
  });
  test('with a loss they are near, and nearer with more quality', async () => {
    const smooth = pixels();
    for (let i = 0; i < width * height; i += 1) {
      smooth.data.set([(i % width) * 3, Math.floor(i / width) * 5, 128, 255], i * 4);
    }
    for (const name of ['webp', 'avif'] as const) {
      const [low, high] = [
        psnr(await rgba(await encoded(name, smooth, { quality: 20 })), smooth.data),
        psnr(await rgba(await encoded(name, smooth, { quality: 95 })), smooth.data),
      ];
      expect(high).toBeGreaterThan(35);
      expect(low).toBeLessThan(high);
    }
  });
});

// Source: GIF89a; omggif, a second decoder.
describe('GIF', () => {
  test('few colours are exact for another decoder, and the words stand in a comment', async () => {
    const bytes = await encoded('gif', chequered(), { options: { dithering: 0 } });
    const reader = new GifReader(bytes);
    const out = new Uint8Array(64 * 32 * 4);
    reader.decodeAndBlitFrameRGBA(0, out);
    expect(equal(out, chequered())).toBe(true);
    expect(bytes.includes(Buffer.from(facts.description, 'utf8'))).toBe(true);
  });
});

// Source: TIFF 6.0; utif2, a second decoder.
describe('TIFF', () => {
  test.each(['deflate', 'lzw', 'none'])(
    'by %s is exact for another decoder',
    async (compression) => {
      const bytes = await encoded('tiff', pixels(), { options: { compression } });
      const [page] = UTIF.decode(bytes);
      if (!page) throw new Error('no page');
      UTIF.decodeImage(bytes, page);
      expect(equal(UTIF.toRGBA8(page), pixels())).toBe(true);
    },
  );
});

// Source: Microsoft, bitmap storage (memory); Debian's ImageMagick, a second decoder.
describe('BMP', () => {
  const magick = (bytes: Buffer): Buffer => {
    const folder = mkdtempSync(join(tmpdir(), 'rezzik-bmp-'));
    writeFileSync(join(folder, 'a.bmp'), bytes);
    return execFileSync('convert-im6.q16', [join(folder, 'a.bmp'), '-depth', '8', 'rgba:-'], {
      maxBuffer: 1 << 26,
    });
  };
  test.each([
    ['24', 24],
    ['32', 32],
  ])('of %s bits is read by another decoder, its fields as they shall be', async (depth, bits) => {
    const bytes = await encoded('bmp', pixels(), { options: { depth } });
    expect(bytes.toString('latin1', 0, 2)).toBe('BM');
    expect(bytes.readUInt32LE(2)).toBe(bytes.length);
    expect([bytes.readInt32LE(18), bytes.readInt32LE(22), bytes.readUInt16LE(28)]).toEqual([
      width,
      height,
      bits,
    ]);
    // 96 dots per inch are 3780 a metre.
    expect(bytes.readInt32LE(38)).toBe(3780);
    expect(equal(magick(bytes), pixels())).toBe(true);
  });
});

// Source: poppler and librsvg from Debian, other makers' readers.
describe('PDF and SVG', () => {
  const inFolder = (name: string, bytes: Buffer): string => {
    const path = join(mkdtempSync(join(tmpdir(), 'rezzik-doc-')), name);
    writeFileSync(path, bytes);
    return path;
  };
  test('a PDF has its page, its words and its facts', async () => {
    const bytes = await encoded('pdf', pixels(), { options: { paper: 'a4', lie: 'upright' } });
    const path = inFolder('a.pdf', bytes);
    const about = execFileSync('pdfinfo', ['-isodates', path], { encoding: 'utf8' });
    expect(about).toContain(`Title:           ${facts.title}`);
    expect(about).toMatch(/Page size: +595\.\d+ x 841\.\d+ pts \(A4\)/);
    expect(about).toMatch(/Pages: +1\b/);
    expect(about).toContain('2026-11-23T14:02:11');
    expect(execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' })).toContain(
      'A slip with a number.',
    );
  });
  test('an SVG is drawn by librsvg as the picture is', async () => {
    const bytes = await encoded('svg', pixels());
    const path = inFolder('a.svg', bytes);
    const drawn = execFileSync('rsvg-convert', ['--format=png', path], { maxBuffer: 1 << 26 });
    expect(equal(await rgba(drawn), pixels())).toBe(true);
    expect(bytes.toString('utf8')).toContain('<title>Seed order – slip &amp; card</title>');
  });
});

// Source: IPTC Photo Metadata 2021.1; ISO 16684-1; read back by exifreader.
describe('facts inside', () => {
  test.each(['png', 'jpeg', 'webp', 'avif', 'tiff'] as const)(
    '%s says title, description and time',
    async (name) => {
      const tags = ExifReader.load(await encoded(name, pixels()), { expanded: true });
      const xmp = tags.xmp as Record<string, { description: string } | undefined> | undefined;
      expect(xmp?.title?.description).toBe(facts.title);
      expect(xmp?.description?.description).toBe(facts.description);
      expect(xmp?.AltTextAccessibility?.description).toBe(facts.description);
      expect(xmp?.CreateDate?.description).toBe(facts.takenAt);
      expect(tags.exif?.Software?.description ?? xmp?.CreatorTool?.description).toBe('Rezzik');
    },
  );
  test('a PNG has them as text chunks, too', async () => {
    const tags = ExifReader.load(await encoded('png', pixels()), { expanded: true });
    const texts = tags.pngText as Record<string, { description: string } | undefined> | undefined;
    expect(texts?.Title?.description).toBe(facts.title);
    expect(texts?.['Creation Time']?.description).toBe(facts.takenAt);
  });
});

test('options a format does not have, or values it does not know, are refused', () => {
  const schema = optionsOf(formats.jpeg);
  expect(schema.safeParse({ chroma: 'halved', progressive: true }).success).toBe(true);
  expect(schema.safeParse({ chroma: 'quartered' }).success).toBe(false);
  expect(schema.safeParse({ lossless: true }).success).toBe(false);
  for (const format of Object.values(formats)) {
    expect(optionsOf(format).safeParse({}).success).toBe(true);
  }
});
