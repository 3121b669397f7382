import { describe, expect, test } from '@jest/globals';
import { encode as encodeBmp } from 'bmp-ts';
import sharp from 'sharp';
import { crc32, deflateSync } from 'node:zlib';
import { hasAlpha, isPlainPng, pictureType } from '../frames/kind';
import { takeIn } from '../frames/intake';
import { gradient, gradientPng } from './setup';

const SIZE = { width: 31, height: 17 };
const raw = () => sharp(gradient(31, 17), { raw: { ...SIZE, channels: 3 } });
const pixels = (bytes: Uint8Array) => sharp(bytes).removeAlpha().raw().toBuffer();

function chunk(type: string, data: Uint8Array): Buffer {
  const body = Buffer.concat([Buffer.from(type), data]);
  const out = Buffer.alloc(body.length + 8);
  out.writeUInt32BE(data.length, 0);
  body.copy(out, 4);
  out.writeUInt32BE(crc32(body), body.length + 4);
  return out;
}

/** A PNG that says it is as large as asked, and holds hardly anything. */
function hollowPng(width: number, height: number): Buffer {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header.set([8, 2, 0, 0, 0], 8);
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    signature,
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(Buffer.alloc(1000))),
    chunk('IEND', new Uint8Array()),
  ]);
}

describe('every readable kind becomes an upright frame', () => {
  /** The file with nothing but its pixels. */
  const bare = (bytes: Buffer): Buffer =>
    Buffer.concat([
      bytes.subarray(0, 33),
      ...chunksOf(bytes)
        .filter((c) => ['IDAT', 'IEND'].includes(c.type))
        .map((c) => c.bytes),
    ]);

  test('PNG stays as it is when it holds nothing but pixels', async () => {
    const plain = bare(await gradientPng(31, 17));
    const frame = await takeIn(plain);
    expect(frame.original).toBeNull();
    expect(Buffer.from(frame.bytes).equals(plain)).toBe(true);
    expect(frame).toMatchObject(SIZE);
  });

  test('a channel of transparency that lets nothing through is left out; one that does stays', async () => {
    const rgba = await raw().ensureAlpha().raw().toBuffer();
    const size = { width: 31, height: 17, channels: 4 as const };
    const whole = await takeIn(bare(await sharp(rgba, { raw: size }).png().toBuffer()));
    expect(whole).toMatchObject({ ...SIZE, opaque: true, original: null });
    expect(hasAlpha(whole.bytes)).toBe(false);
    expect((await pixels(whole.bytes)).equals(gradientBuffer())).toBe(true);
    rgba[7] = 254;
    const bytes = bare(await sharp(rgba, { raw: size }).png().toBuffer());
    const free = await takeIn(bytes);
    expect(free).toMatchObject({ ...SIZE, opaque: false });
    expect(Buffer.from(free.bytes).equals(bytes)).toBe(true);
  });

  test.each(['webp', 'tiff', 'gif', 'avif'] as const)('%s', async (type) => {
    const source = raw();
    const bytes = await (
      type === 'webp'
        ? source.webp({ lossless: true })
        : type === 'tiff'
          ? source.tiff({ compression: 'lzw' })
          : type === 'gif'
            ? source.gif()
            : source.avif({ quality: 90 })
    ).toBuffer();
    expect(pictureType(bytes)).toBe(type);
    const frame = await takeIn(bytes);
    expect(frame).toMatchObject(SIZE);
    expect(frame.original?.type).toBe(type);
    if (type === 'webp' || type === 'tiff')
      expect((await pixels(frame.bytes)).equals(gradientBuffer())).toBe(true);
  });

  test('BMP, read back by a second decoder', async () => {
    const rgba = await raw().ensureAlpha().raw().toBuffer();
    const abgr = Buffer.alloc(rgba.length);
    for (let i = 0; i < rgba.length; i += 4)
      abgr.set([255, rgba[i + 2] ?? 0, rgba[i + 1] ?? 0, rgba[i] ?? 0], i);
    const bmp = encodeBmp({ data: abgr, ...SIZE, bitPP: 24 }).data;
    const frame = await takeIn(new Uint8Array(bmp));
    expect((await pixels(frame.bytes)).equals(gradientBuffer())).toBe(true);
  });

  // Source: EXIF 2.32, tag 0x0112: 6 means the picture must be turned by 90° clockwise.
  test('a turned JPEG is stored upright', async () => {
    const jpeg = await raw().jpeg({ quality: 100 }).withMetadata({ orientation: 6 }).toBuffer();
    const frame = await takeIn(jpeg);
    expect([frame.width, frame.height]).toEqual([17, 31]);
    const meta = await sharp(frame.bytes).metadata();
    expect(meta.orientation ?? 1).toBe(1);
    const turned = await sharp(gradient(31, 17), { raw: { ...SIZE, channels: 3 } })
      .rotate(90)
      .raw()
      .toBuffer();
    const got = await pixels(frame.bytes);
    expect(Math.abs((got[2] ?? 0) - (turned[2] ?? 0))).toBeLessThan(40);
  });

  test('16-bit and palette PNGs become 8-bit, their text chunks stay behind', async () => {
    const palette = await raw().png({ palette: true }).toBuffer();
    const frame = await takeIn(palette);
    expect(frame.original?.type).toBe('png');
    expect(isPlainPng(frame.bytes) || (await sharp(frame.bytes).metadata()).depth === 'uchar').toBe(
      true,
    );
  });
});

describe('what is refused', () => {
  const refused = async (bytes: Uint8Array) =>
    takeIn(bytes).then(
      () => null,
      (error: { status: number; code: string }) => [error.status, error.code],
    );

  test('no picture, nothing, a drawing', async () => {
    expect(await refused(Buffer.from('hello, this is text'))).toEqual([415, 'not-a-picture']);
    expect(await refused(new Uint8Array())).toEqual([422, 'empty']);
    expect(
      await refused(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>')),
    ).toEqual([415, 'not-a-picture']);
  });

  const drawing = '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>';
  const boxed = (length: number, brand: string, rest: string) => {
    const head = Buffer.alloc(4);
    head.writeUInt32BE(length);
    return Buffer.concat([head, Buffer.from(`ftyp${brand}\0\0\0\0${brand}${rest}`)]);
  };
  test.each([
    ['in a comment', Buffer.from(`<!--ftypavif avif-->${drawing}`)],
    ['in a comment with boxes', Buffer.from(`<!--ftypavif\0\0\0\0avif-->\0\0\0\x20meta${drawing}`)],
    ['behind a true type box', boxed(20, 'avif', drawing)],
    ['with another brand', boxed(20, 'heic', '\0\0\0\x20meta')],
    ['with a box longer than the file', boxed(200, 'avif', drawing)],
  ])('a drawing that calls itself an AV1 picture: %s', async (_, bytes) => {
    expect(pictureType(bytes)).toBeNull();
    expect(await refused(bytes)).toEqual([415, 'not-a-picture']);
  });

  test('no decoder of drawings or documents is there to be reached', async () => {
    await expect(sharp(Buffer.from(drawing)).metadata()).rejects.toThrow('unsupported');
    await expect(sharp(Buffer.from('%PDF-1.4\n')).metadata()).rejects.toThrow('unsupported');
    const real = await raw().avif().toBuffer();
    expect(pictureType(real)).toBe('avif');
  });

  test.each(['png', 'jpeg', 'webp', 'tiff', 'gif'] as const)(
    'a %s that is cut short',
    async (type) => {
      const whole = await raw().resize(400, 300).toFormat(type).toBuffer();
      expect((await refused(whole.subarray(0, Math.floor(whole.length / 2))))?.[0]).toBe(422);
    },
  );

  test('a small file that unpacks to gigapixels', async () => {
    const before = process.memoryUsage().rss;
    expect(await refused(hollowPng(60_000, 60_000))).toEqual([413, 'too-many-pixels']);
    expect(await refused(hollowPng(12_000, 12_000))).toEqual([413, 'too-many-pixels']);
    expect(process.memoryUsage().rss - before).toBeLessThan(400e6);
  });

  test('a PNG of no size, and one whose pixels are missing', async () => {
    expect((await refused(hollowPng(0, 10)))?.[0]).toBe(422);
    expect((await refused(hollowPng(500, 500)))?.[0]).toBe(422);
  });

  test('a BMP whose header promises more than it holds', async () => {
    const bmp = Buffer.alloc(100);
    bmp.write('BM');
    bmp.writeUInt32LE(54, 10);
    bmp.writeInt32LE(5000, 18);
    bmp.writeInt32LE(5000, 22);
    bmp.writeUInt16LE(24, 28);
    expect((await refused(bmp))?.[0]).toBe(422);
    bmp.writeInt32LE(0, 18);
    expect((await refused(bmp))?.[0]).toBe(422);
  });

  test('noise behind every known beginning', async () => {
    const starts = [
      [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a],
      [0xff, 0xd8, 0xff],
      [...Buffer.from('GIF89a')],
      [...Buffer.from('BM')],
      [0x49, 0x49, 0x2a, 0],
    ];
    for (const [seed, start] of starts.entries()) {
      const noise = Uint8Array.from(
        { length: 3000 },
        (_, i) => start[i] ?? (i * 7919 + seed * 104729) % 251,
      );
      expect((await refused(noise))?.[0]).toBeGreaterThanOrEqual(413);
    }
  });
});

const gradientBuffer = (): Buffer => Buffer.from(gradient(31, 17));

function chunksOf(png: Buffer): { type: string; bytes: Buffer }[] {
  const chunks = [];
  for (let at = 8; at < png.length;) {
    const length = png.readUInt32BE(at);
    chunks.push({
      type: png.toString('latin1', at + 4, at + 8),
      bytes: png.subarray(at, at + 12 + length),
    });
    at += 12 + length;
  }
  return chunks;
}
