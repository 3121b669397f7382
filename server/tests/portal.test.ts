import { afterAll, afterEach, beforeAll, expect, test } from '@jest/globals';
import { existsSync, mkdtempSync, symlinkSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import sharp from 'sharp';
import { randomFrom } from '@/core/random/random';
import { StandInPortal, type Manner } from '@/tests/lib/standInPortal';
import { describeDisplay, stillNow } from '../display/access';
import { takeDisplay } from '../take/takeDisplay';
import { closeSessionBus } from '../bus/bus';
import { portalStill } from '../display/portalStill';
import { changeSettings } from '../settings/settings';
import { getFrame, getShot } from '../shots/rows';
import { begin, finish } from './setup';

/** A desktop on Wayland, which gives pictures of its screens through its portal alone. */

const SIZE = { width: 320, height: 200 };
const folder = mkdtempSync(join(tmpdir(), 'rezzik-portal-'));
const noise = Buffer.alloc(SIZE.width * SIZE.height * 4, 255);
/** What no decoder may be given, whatever its name. */
const DRAWING = '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>';
let png: Buffer;
let portal: StandInPortal;
let made = 0;

beforeAll(async () => {
  await begin();
  await changeSettings({ displayAllowed: true });
  const next = randomFrom(5);
  for (let i = 0; i < noise.length; i += 1) if (i % 4 !== 3) noise[i] = next() * 256;
  png = await sharp(noise, { raw: { ...SIZE, channels: 4 } })
    .png()
    .toBuffer();
  portal = await StandInPortal.open();
  process.env.WAYLAND_DISPLAY = 'wayland-9';
  delete process.env.DISPLAY;
  process.env.DBUS_SESSION_BUS_ADDRESS = portal.address;
});
afterEach(() => closeSessionBus());
afterAll(async () => {
  delete process.env.WAYLAND_DISPLAY;
  delete process.env.DBUS_SESSION_BUS_ADDRESS;
  await portal.close();
  await finish();
});

/** The file that a desktop makes when it is asked. */
function newFile(bytes: string | Buffer = png): string {
  made += 1;
  const path = join(folder, `Screen ${made}.png`);
  writeFileSync(path, bytes);
  return path;
}

const giving = (path: string): Manner => ({ code: 0, uri: pathToFileURL(path).href });

test('it is there, without a list of windows, and says so', async () => {
  expect(await describeDisplay()).toMatchObject({
    ...{ available: true, noWindowList: true, windows: [], monitors: [] },
    reason: expect.stringContaining('may ask you first'),
  });
  expect(portal.asked).toEqual([]);
});

test('all screens are one picture, to the byte; the file made for it does not stay', async () => {
  let path = '';
  portal.manner = () => giving((path = newFile()));
  const still = await stillNow();
  expect(still).toMatchObject({ ...SIZE, noWindowList: true, windows: [], pointer: null });
  expect(Buffer.from((await still.pixels()).data).equals(noise)).toBe(true);
  expect(existsSync(path)).toBe(false);
  expect(portal.asked.at(-1)).toMatchObject({ interactive: false, modal: false });
});

test('a region is taken by the API, a window is refused in words', async () => {
  portal.manner = () => giving(newFile());
  const region = { x: 20, y: 30, width: 100, height: 50 };
  const { id } = await takeDisplay({ kind: 'region', region, pointer: false, delay: 0, then: [] });
  const shot = await getShot(id);
  expect(shot.document.view.crop).toEqual(region);
  expect(shot.provenance).toMatchObject({ source: 'display', display: 'Screen' });
  const frame = await sharp((await getFrame(id)).bytes)
    .ensureAlpha()
    .raw()
    .toBuffer();
  expect(frame.equals(noise)).toBe(true);
  await expect(
    takeDisplay({ kind: 'window', windowId: 7, pointer: false, delay: 0, then: [] }),
  ).rejects.toMatchObject({ status: 404, message: expect.stringContaining('which windows') });
});

test.each<[string, () => Manner, number, string]>([
  ['refuses', () => ({ code: 1 }), 403, 'was told not to'],
  ['ends', () => ({ code: 2 }), 503, 'gave no picture'],
  ['says nothing', () => null, 503, 'gave no picture'],
  ['gives no picture', () => giving(newFile('seeds')), 503, 'is no picture'],
  ['gives a drawing', () => giving(newFile(DRAWING)), 503, 'is no picture'],
  ['gives nothing at all', () => giving(join(folder, 'none.png')), 503, 'could not be read'],
  ['gives an address elsewhere', () => ({ code: 0, uri: 'https://beds.example/a' }), 503, 'read'],
  ['gives a link', () => giving(link()), 503, 'could not be read'],
])('a desktop that %s is told in plain words', async (_, manner, status, words) => {
  portal.manner = manner;
  const asked = portalStill(400);
  await expect(asked).rejects.toMatchObject({ status, message: expect.stringContaining(words) });
});

function link(): string {
  const path = join(folder, `link ${made}`);
  symlinkSync(newFile(), path);
  return path;
}

test('a file that was there before is read and stays', async () => {
  const path = newFile();
  utimesSync(path, 1_000_000, 1_000_000);
  portal.manner = () => giving(path);
  expect((await portalStill()).width).toBe(SIZE.width);
  expect(existsSync(path)).toBe(true);
});

test('without leave it is not asked; without a portal, or a bus, why is said', async () => {
  const count = portal.asked.length;
  await changeSettings({ displayAllowed: false });
  await expect(stillNow()).rejects.toMatchObject({ status: 403 });
  expect(portal.asked).toHaveLength(count);
  await changeSettings({ displayAllowed: true });
  const other = await StandInPortal.open('com.example.Beds');
  process.env.DBUS_SESSION_BUS_ADDRESS = other.address;
  await expect(stillNow()).rejects.toMatchObject({ status: 503, code: 'no-display' });
  closeSessionBus();
  process.env.DBUS_SESSION_BUS_ADDRESS = 'unix:path=/nowhere/bus';
  expect((await describeDisplay()).available).toBe(false);
  await other.close();
  process.env.DBUS_SESSION_BUS_ADDRESS = portal.address;
  expect((await describeDisplay()).available).toBe(true);
});

test('a bus that goes away is another the next time', async () => {
  const first = await StandInPortal.open();
  process.env.DBUS_SESSION_BUS_ADDRESS = first.address;
  first.manner = () => giving(newFile());
  expect((await stillNow()).width).toBe(SIZE.width);
  await first.close();
  const words = expect.any(String);
  await expect(stillNow()).rejects.toMatchObject({ status: 503, message: words });
  process.env.DBUS_SESSION_BUS_ADDRESS = portal.address;
  portal.manner = () => giving(newFile());
  expect((await stillNow()).width).toBe(SIZE.width);
});
