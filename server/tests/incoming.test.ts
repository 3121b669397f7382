import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { greyProfile } from '@/tests/lib/greyProfile';
import { withProfile } from '@/core/keep/pngText';
import { takeIn } from '../frames/intake';
import { gradient } from './setup';

// Pictures as other programs write them, held against what those programs see in them.

let work: string;
beforeAll(() => void (work = mkdtempSync(join(tmpdir(), 'rezzik-incoming-'))));
afterAll(() => rmSync(work, { recursive: true, force: true }));

const at = (name: string): string => join(work, name);
const convert = (...args: string[]): Buffer => execFileSync('convert', args);
const colours = (bytes: Uint8Array | string): Promise<Buffer> =>
  sharp(bytes).toColourspace('srgb').removeAlpha().raw().toBuffer();
const taken = async (bytes: Uint8Array): Promise<Buffer> => colours((await takeIn(bytes)).bytes);

function worst(a: Uint8Array, b: Uint8Array): number {
  expect(a.length).toBe(b.length);
  return a.reduce((most, value, i) => Math.max(most, Math.abs(value - (b[i] ?? 0))), 0);
}

const refusal = (bytes: Uint8Array): Promise<unknown> =>
  takeIn(bytes).then(
    () => 'read',
    (error: { status: number; code: string; message: string }) => [
      error.status,
      error.code,
      error.message,
    ],
  );

describe('profiles of 16 bits', () => {
  const SIZE = ['-size', '64x4', '-depth', '16', '-endian', 'LSB'];
  const ramp = (channels: number): Buffer => {
    const samples = Buffer.alloc(64 * 4 * channels * 2);
    for (let i = 0; i < 64 * 4; i += 1) {
      for (let c = 0; c < channels; c += 1) {
        samples.writeUInt16LE(((i % 64) * 1040 + c * 9000) % 65_536, (i * channels + c) * 2);
      }
    }
    return samples;
  };

  beforeAll(async () => {
    writeFileSync(at('grey.icc'), greyProfile(1));
    const wide = sharp({ create: { width: 1, height: 1, channels: 3, background: '#888888' } });
    const { icc } = await sharp(await wide.withIccProfile('p3').png().toBuffer()).metadata();
    writeFileSync(at('wide.icc'), icc ?? '');
    writeFileSync(at('ramp.rgb'), ramp(3));
    writeFileSync(at('ramp.gray'), ramp(1));
  });

  // The truth is Little CMS itself: tificc of liblcms2-utils.
  test.each([
    ['rgb', 'wide'],
    ['gray', 'grey'],
  ])('%s', async (kind, profile) => {
    const source = [...SIZE, `${kind}:${at(`ramp.${kind}`)}`];
    const how = ['-profile', at(`${profile}.icc`), '-compress', 'none'];
    convert(...source, ...how, at(`${kind}.tif`));
    convert(...source, ...how, at(`${kind}.png`));
    execFileSync('tificc', ['-w8', at(`${kind}.tif`), at('truth.tif')], { stdio: 'ignore' });
    const truth = await colours(at('truth.tif'));
    expect(worst(await taken(readFileSync(at(`${kind}.tif`))), truth)).toBeLessThanOrEqual(2);
    expect(worst(await taken(readFileSync(at(`${kind}.png`))), truth)).toBeLessThanOrEqual(2);
    // It does say something: without it the colours are others.
    const bare = convert(...source, '-depth', '8', 'png:-');
    expect(worst(await colours(bare), truth)).toBeGreaterThan(10);
  });
});

test('a profile inside a BMP is heeded', async () => {
  const profile = readFileSync(at('wide.icc'));
  const size = { width: 4, height: 2, channels: 3 as const };
  const pixels = Buffer.from(Array.from({ length: 24 }, (_, i) => (i * 37) % 256));
  const rows = [1, 0].flatMap((y) => {
    const row = pixels.subarray(y * 12, y * 12 + 12);
    return [0, 3, 6, 9].flatMap((x) => [row[x + 2] ?? 0, row[x + 1] ?? 0, row[x] ?? 0]);
  });
  const header = Buffer.alloc(14 + 124);
  header.write('BM', 0, 'latin1');
  header.writeUInt32LE(header.length, 10);
  header.writeUInt32LE(124, 14);
  header.writeInt32LE(size.width, 18);
  header.writeInt32LE(size.height, 22);
  header.writeUInt16LE(1, 26);
  header.writeUInt16LE(24, 28);
  header.writeUInt32LE(0x4d424544, 14 + 56);
  header.writeUInt32LE(124 + rows.length, 14 + 112);
  header.writeUInt32LE(profile.length, 14 + 116);
  const bmp = Buffer.concat([header, Buffer.from(rows), profile]);
  const png = await sharp(pixels, { raw: size }).png().toBuffer();
  const truth = await colours(withProfile(png, deflateSync(profile)));
  expect(worst(await taken(bmp), truth)).toBeLessThanOrEqual(1);
  expect(worst(truth, pixels)).toBeGreaterThan(5);
});

test('a GIF without its end mark', async () => {
  const whole = await sharp(gradient(31, 17), { raw: { width: 31, height: 17, channels: 3 } })
    .gif()
    .toBuffer();
  const got = await taken(whole.subarray(0, -1));
  expect(got.equals(await taken(whole))).toBe(true);
});

describe('what is sound but not read says so', () => {
  const tiff = (...how: string[]): Buffer => {
    convert('-size', '32x32', 'gradient:red-blue', ...how, at('kind.tif'));
    return readFileSync(at('kind.tif'));
  };
  const says = (kind: string) => [
    415,
    'not-read',
    `Rezzik cannot read ${kind}. Nothing was stored.`,
  ];

  test('BigTIFF', async () => {
    tiff('-compress', 'none');
    execFileSync('tiffcp', ['-8', at('kind.tif'), at('big.tif')]);
    expect(await refusal(readFileSync(at('big.tif')))).toEqual(says('a BigTIFF'));
  });

  test('Lab', async () => {
    expect(await refusal(tiff('-colorspace', 'Lab'))).toEqual(says('a TIFF in Lab colours'));
  });

  test('tiles of separate planes', async () => {
    tiff('-compress', 'none', '-depth', '8');
    execFileSync('tiffcp', [
      '-t',
      '-w',
      '16',
      '-l',
      '16',
      '-p',
      'separate',
      at('kind.tif'),
      at('planes.tif'),
    ]);
    const kind = 'a TIFF in tiles of separate planes';
    expect(await refusal(readFileSync(at('planes.tif')))).toEqual(says(kind));
  });

  test('more than 16 bits', async () => {
    const kind = 'a TIFF with 32 bits for each colour';
    expect(await refusal(tiff('-compress', 'none', '-depth', '32'))).toEqual(says(kind));
  });

  test('JPEG of 12 bits and without loss, by their frame headers', async () => {
    const jpeg = await sharp(gradient(31, 17), { raw: { width: 31, height: 17, channels: 3 } })
      .jpeg()
      .toBuffer();
    const frame = jpeg.indexOf(Buffer.from([0xff, 0xc0]));
    expect(frame).toBeGreaterThan(0);
    const deep = Buffer.from(jpeg);
    deep[frame + 4] = 12;
    expect(await refusal(deep)).toEqual(says('a JPEG of 12 bits'));
    const lossless = Buffer.from(jpeg);
    lossless[frame + 1] = 0xc3;
    expect(await refusal(lossless)).toEqual(says('a JPEG without loss'));
  });

  test('another way of packing a TIFF is not called damage, a cut one is', async () => {
    const file = tiff('-compress', 'none');
    const other = Buffer.from(file);
    const little = other[0] === 0x49;
    const read = (at: number) => (little ? other.readUInt16LE(at) : other.readUInt16BE(at));
    const directory = little ? other.readUInt32LE(4) : other.readUInt32BE(4);
    const entry = Array.from({ length: read(directory) }, (_, i) => directory + 2 + 12 * i).find(
      (one) => read(one) === 259,
    );
    if (little) other.writeUInt16LE(34_925, (entry ?? 0) + 8);
    else other.writeUInt16BE(34_925, (entry ?? 0) + 8);
    expect(await refusal(other)).toEqual(says('this kind of TIFF'));
    const lost = Buffer.concat([file.subarray(0, 8), Buffer.alloc(file.length - 8)]);
    const cut = 'This picture is damaged or cut short. Nothing was stored.';
    expect(await refusal(lost)).toEqual([422, 'damaged', cut]);
  });
});
