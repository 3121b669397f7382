import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { ClipboardReader } from '@/tests/lib/clipboardReader';
import { randomFrom } from '@/core/random/random';
import { sql } from '../db/sql';
import { storeArriving } from '../take/arriving';
import { copyToDisplay } from '../display/clipboard';
import { env } from '../base/env';
import { dropTheRest } from '../erase/dropRest';
import { getShot } from '../shots/rows';
import { storeShot } from '../shots/store';
import { covered, display, drag, onOneScreen, routine, taken, told, until, xdo } from './keyScreen';

/** What other programs get from the clipboard, and when it is there. */

onOneScreen();

const SIZE = { width: 500, height: 400 };
const noise = Buffer.alloc(SIZE.width * SIZE.height * 3);
let shot: string;

beforeAll(async () => {
  const next = randomFrom(7);
  for (let i = 0; i < noise.length; i += 1) noise[i] = next() * 256;
  const picture = await sharp(noise, { raw: { ...SIZE, channels: 3 } })
    .png()
    .toBuffer();
  ({ id: shot } = await storeShot({ picture }));
});

/** The clipboard in one form, as another program reads it. */
const pasted = (form: string): Promise<Buffer> =>
  display.bytes('xclip', '-selection', 'clipboard', '-t', form, '-o');

test('a picture is read back by another program in every form, also in increments', async () => {
  await copyToDisplay(shot);
  const targets = (await pasted('TARGETS')).toString().trim().split('\n');
  expect(targets).toEqual([
    ...['TARGETS', 'TIMESTAMP', 'MULTIPLE'],
    ...['image/png', 'image/bmp', 'text/html', 'text/uri-list'],
  ]);
  const png = await pasted('image/png');
  // More than fits into one request.
  expect(png.length).toBeGreaterThan(500_000);
  expect((await sharp(png).raw().toBuffer()).equals(noise)).toBe(true);
  // Read by ImageMagick, which has its own reader of BMP.
  const options = { input: await pasted('image/bmp'), maxBuffer: 1 << 26 };
  const read = execFileSync('convert', ['bmp:-', '-depth', '8', 'rgb:-'], options);
  expect(read.equals(noise)).toBe(true);
  const html = (await pasted('text/html')).toString();
  expect(Buffer.from(/base64,([^"]+)/.exec(html)?.[1] ?? '', 'base64')).toEqual(png);
  const [address = ''] = (await pasted('text/uri-list')).toString().split('\r\n');
  const file = fileURLToPath(address);
  expect(readFileSync(file)).toEqual(png);
  expect(statSync(file).mode & 0o077).toBe(0);
  // Nothing of it stays where the rest of a shot is dropped for good, or something else is copied.
  await dropTheRest(shot, 1, false);
  expect(existsSync(file)).toBe(false);
  expect((await pasted('TARGETS')).toString()).not.toContain('text/uri-list');
  expect((await pasted('image/png')).equals(png)).toBe(true);
}, 90_000);

const words = (...numbers: number[]): Buffer => Buffer.from(Uint32Array.from(numbers).buffer);

test('several forms are had at once, what is not there becomes none, and the time is told', async () => {
  const asker = await ClipboardReader.open(display.name);
  const before = await asker.since();
  await copyToDisplay(shot);
  const [multiple, pair, timestamp, html, moon, a, b, c] = (await Promise.all(
    ['MULTIPLE', 'ATOM_PAIR', 'TIMESTAMP', 'text/html', 'text/moon', 'A', 'B', 'C'].map((name) =>
      asker.atom(name),
    ),
  )) as [number, number, number, number, number, number, number, number];
  const pairs = await asker.atom('PAIRS');
  asker.write(pairs, pair, words(timestamp, a, moon, b, html, c));
  expect(await asker.convert(multiple, pairs)).toBe(pairs);
  expect((await asker.read(pairs)).data).toEqual(words(timestamp, a, moon, 0, html, c));
  const since = await asker.read(a);
  expect(since.format).toBe(32);
  expect(since.data.readUInt32LE(0)).toBeGreaterThan(before);
  // The large one comes in increments: its size stands there first.
  expect((await asker.read(c)).type).toBe(await asker.atom('INCR'));
  expect(await asker.convert(moon, b)).toBe(0);
  asker.close();
}, 90_000);

test('who is still reading the picture before gets all of it', async () => {
  await copyToDisplay(shot);
  const asker = await ClipboardReader.open(display.name);
  const [image, place, incr] = await Promise.all(
    ['image/png', 'PLACE', 'INCR'].map((name) => asker.atom(name)),
  );
  if (!image || !place) throw new Error('no atoms');
  await asker.convert(image, place);
  expect((await asker.read(place)).type).toBe(incr);
  const small = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#204030' } })
    .png()
    .toBuffer();
  const { id } = await storeShot({ picture: small });
  await copyToDisplay(id);
  const got = await asker.rest(place);
  expect((await sharp(got).raw().toBuffer()).equals(noise)).toBe(true);
  asker.close();
});

const arriving = (): string => join(env().dataDir, 'arriving');

test('what is dragged over can be pasted before it is stored, and is in a file until then', async () => {
  await routine('f9', { kind: 'region', atOnce: true, then: [{ do: 'copy' }] });
  const truth = await display.pixels();
  let release = (): void => undefined;
  const held = sql().begin(async (tx) => {
    await tx`lock table shots in exclusive mode`;
    await new Promise<void>((resolve) => (release = resolve));
  });
  await xdo('key', 'F9');
  await covered();
  await drag([60, 100], [260, 220]);
  // Of that size is nothing else that was copied here.
  const png = await until<Buffer>('the picture on the clipboard', async () => {
    const bytes = await pasted('image/png').catch(() => null);
    if (!bytes) return false;
    const { width, height } = await sharp(bytes).metadata();
    return width === 200 && height === 120 && bytes;
  });
  const { data } = await sharp(png).raw().toBuffer({ resolveWithObject: true });
  const row = (y: number) => truth.data.subarray(((100 + y) * 1280 + 60) * 4).subarray(0, 800);
  for (const y of [0, 60, 119]) {
    const rgb = row(y).filter((_, i) => i % 4 !== 3);
    expect(data.subarray(y * 600, y * 600 + 600)).toEqual(rgb);
  }
  expect(told).toEqual([]);
  const [file = ''] = readdirSync(arriving()).filter((name) => name.endsWith('.png'));
  expect(readFileSync(join(arriving(), file))).toEqual(png);
  release();
  await held;
  const { shot: id = '', lines } = await taken();
  expect(lines).toEqual(['Copied: paste it anywhere']);
  expect(file).toBe(`${id}.png`);
  expect((await getShot(id)).document.view.crop).toMatchObject({ x: 60, y: 100, width: 200 });
  expect(readdirSync(arriving())).toEqual([]);
}, 90_000);

test('what cannot be stored is said to be copied, and is stored later', async () => {
  await routine('f9', { kind: 'region', atOnce: true, then: [{ do: 'copy' }] });
  await sql()`alter table shots rename to shots_away`;
  await xdo('key', 'F9');
  await covered();
  await drag([60, 100], [250, 220]);
  const { lines, shot: none } = await until('the answer', () => told[0]);
  await sql()`alter table shots_away rename to shots`;
  expect(none).toBeUndefined();
  expect(lines[0]).toMatch(/^Copied: paste it anywhere\. It could not be stored;/);
  expect((await sharp(await pasted('image/png')).metadata()).width).toBe(190);
  const [file = ''] = readdirSync(arriving()).filter((name) => name.endsWith('.png'));
  await storeArriving();
  expect(await getShot(file.slice(0, -4))).toMatchObject({ width: 190, height: 120 });
  expect(readdirSync(arriving())).toEqual([]);
}, 90_000);

test('what a killed Rezzik had only copied is stored at the next start; what is no picture stays', async () => {
  const id = '5eed0000-0000-4000-8000-000000000001';
  const other = '5eed0000-0000-4000-8000-000000000002';
  const picture = await sharp(noise, { raw: { ...SIZE, channels: 3 } })
    .png()
    .toBuffer();
  const takenAt = '2026-03-02T10:00:00.000Z';
  mkdirSync(arriving(), { recursive: true });
  writeFileSync(join(arriving(), `${id}.png`), picture);
  const facts = { source: 'display', takenAt, windowTitle: 'Bed list' };
  writeFileSync(join(arriving(), `${id}.json`), JSON.stringify(facts));
  writeFileSync(join(arriving(), `${other}.png`), 'seeds');
  writeFileSync(join(arriving(), '.rezzik-half.part'), 'se');
  await storeArriving();
  const shot = await getShot(id);
  expect(shot).toMatchObject({ width: 500, provenance: facts });
  expect(readdirSync(arriving())).toEqual([`${other}.png`]);
});
