import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { z } from 'zod';
import { screenStillSchema } from '@/core/contracts/display';
import { heldAnswerSchema, heldMomentsSchema } from '@/core/contracts/held';
import { storedSchema } from '@/core/contracts/shot';
import { XDisplay } from '@/tests/lib/xDisplay';
import * as heldRoute from '@/app/api/display/held/route';
import { GET as moments } from '@/app/api/display/held/moments/route';
import { GET as picture } from '@/app/api/display/held/[moment]/picture/route';
import { POST as takeMoment } from '@/app/api/display/held/[moment]/shots/route';
import { POST as stillMoment } from '@/app/api/display/held/[moment]/stills/route';
import { GET as stillPixels } from '@/app/api/display/stills/[id]/pixels/route';
import { PATCH as changeSettings } from '@/app/api/settings/route';
import { closeScreen } from '../display/connection';
import { stopHolding } from '../display/held/holding';
import { getFrame, getShot } from '../shots/rows';
import { busFor } from './lockBus';
import { at, begin, finish, jsonRequest, request } from './setup';

const SCREEN = { width: 1200, height: 800 };
let display: XDisplay;

const allow = (displayAllowed: boolean) =>
  changeSettings(jsonRequest('/api/settings', 'PATCH', { displayAllowed }), at({}));

beforeAll(async () => {
  await begin();
  display = await XDisplay.open(SCREEN.width, SCREEN.height);
  process.env.DISPLAY = display.name;
  await allow(true);
}, 60_000);
afterAll(async () => {
  stopHolding();
  closeScreen();
  await display.close();
  await finish();
});

const hold = (on: boolean) =>
  heldRoute.PATCH(jsonRequest('/api/display/held', 'PATCH', { on }), at({}));
const goOn = () =>
  heldRoute.PATCH(jsonRequest('/api/display/held', 'PATCH', { goOn: true }), at({}));
const stands = async () =>
  heldAnswerSchema.parse(await (await heldRoute.GET(request('/api/display/held'), at({}))).json());
const askMoments = () => moments(request('/api/display/held/moments'), at({}));
const film = async () => heldMomentsSchema.parse(await (await askMoments()).json()).moments;
const of = (moment: number) => at({ moment: String(moment) });
const asked = (moment: number) => request(`/api/display/held/${moment}`, { method: 'POST' });

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
/** Longer than between two looks. */
const LOOKED = 700;

/** The pixels of a moment as it is stilled. */
async function pixelsOf(moment: number): Promise<Buffer> {
  const answer = await stillMoment(asked(moment), of(moment));
  const { id } = screenStillSchema.parse(await answer.json());
  const pixels = await stillPixels(request(`/api/display/stills/${id}/pixels`), at({ id }));
  return Buffer.from(await pixels.arrayBuffer());
}

test('a window that is closed by then is in the moment before, to the pixel, as it was called', async () => {
  expect(await stands()).toEqual({ on: false });
  const close = display.start('xlogo', '-title', 'Gone soon', '-geometry', '300x200+500+300');
  const windowId = await display.windowId('Gone soon');
  await pause(LOOKED);
  const truth = await display.pixels();
  expect((await hold(true)).status).toBe(200);
  await pause(LOOKED);
  await close();
  await pause(LOOKED);
  expect(await stands()).toMatchObject({ on: true, shortened: false });

  const held = await film();
  expect(held.length).toBeGreaterThan(1);
  const [first] = held;
  const now = held.at(-1);
  if (!first || !now) throw new Error('no moments');
  expect(now.until).toBeNull();
  expect((await pixelsOf(first.id)).equals(truth.data)).toBe(true);
  expect((await pixelsOf(now.id)).equals(truth.data)).toBe(false);
  expect((await pixelsOf(now.id)).equals((await display.pixels()).data)).toBe(true);

  // As a window, by the place it had then.
  const wish = { kind: 'window', windowId };
  const answer = await takeMoment(jsonRequest('/x', 'POST', wish), of(first.id));
  expect(answer.status).toBe(201);
  const shot = await getShot(storedSchema.parse(await answer.json()).id);
  expect(shot.provenance).toMatchObject({
    ...{
      source: 'display',
      windowTitle: 'Gone soon',
      takenAt: new Date(first.since).toISOString(),
    },
  });
  const { data } = await sharp((await getFrame(shot.id)).bytes)
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  expect(data.equals(truth.data)).toBe(true);

  const looked = await picture(request('/api/display/held/1/picture?width=300'), of(first.id));
  expect(await sharp(Buffer.from(await looked.arrayBuffer())).metadata()).toMatchObject({
    ...{ format: 'jpeg', width: 300, height: 200 },
  });
}, 60_000);

test('while the moments are looked at none comes; when it goes on, what stands then is seen', async () => {
  const before = await film();
  const close = display.start('xlogo', '-title', 'Meanwhile', '-geometry', '200x200+100+100');
  await display.windowId('Meanwhile');
  await pause(LOOKED);
  expect(await film()).toEqual(before);
  await goOn();
  await pause(LOOKED);
  const after = await film();
  expect(after.length).toBeGreaterThan(before.length);
  expect((await pixelsOf(after.at(-1)?.id ?? 0)).equals((await display.pixels()).data)).toBe(true);
  await close();
  await goOn();
}, 30_000);

test('nonsense is refused, and what is gone is said to be gone', async () => {
  expect((await stillMoment(asked(0), at({ moment: 'x' }))).status).toBe(404);
  expect((await stillMoment(asked(0), of(999_999))).status).toBe(410);
  expect((await picture(request('/x?width=1'), of(1))).status).toBe(400);
  const wish = jsonRequest('/x', 'POST', { kind: 'window', delay: 3 });
  expect((await takeMoment(wish, of(1))).status).toBe(400);
}, 30_000);

test('switched off, nothing of it is left; and it may not be begun where the screen may not be read', async () => {
  await hold(false);
  expect(await stands()).toEqual({ on: false });
  // A page that goes on with a film does not begin anew what was ended meanwhile.
  await goOn();
  expect(await stands()).toEqual({ on: false });
  const answer = await askMoments();
  expect(answer.status).toBe(409);
  const { error } = z
    .object({ error: z.object({ message: z.string() }) })
    .parse(await answer.json());
  expect(error.message).toContain('Nothing is held');

  await hold(true);
  await allow(false);
  expect(await stands()).toMatchObject({ on: false, why: expect.stringContaining('may not read') });
  expect((await hold(true)).status).toBe(403);
  await allow(true);
}, 30_000);

test('where neither bus is had, it is said that a lock is not heard', async () => {
  delete process.env.DBUS_SESSION_BUS_ADDRESS;
  process.env.DBUS_SYSTEM_BUS_ADDRESS = 'unix:path=/nowhere/bus';
  await hold(true);
  expect(await stands()).toMatchObject({ on: true, locks: false });
  await hold(false);
}, 30_000);

async function untilOff(): Promise<void> {
  for (let i = 0; i < 100 && (await stands()).on; i += 1) await pause(50);
}

test('locking the screen ends it, as the desktop tells', async () => {
  const { sender, end } = await busFor('DBUS_SESSION_BUS_ADDRESS');
  const tell = (locked: boolean) => {
    const of = 'org.example.desk.ScreenSaver';
    sender.sendSignal('/org/example/desk/ScreenSaver', of, 'ActiveChanged', 'b', [locked]);
  };
  await hold(true);
  expect(await stands()).toMatchObject({ on: true, locks: true });
  tell(false);
  await pause(300);
  expect((await stands()).on).toBe(true);
  tell(true);
  await untilOff();
  expect(await stands()).toEqual({ on: false, why: 'The screen was locked.' });
  await end();
}, 30_000);

test('locking the screen ends it, as the session manager tells', async () => {
  const { sender, end } = await busFor('DBUS_SYSTEM_BUS_ADDRESS');
  await hold(true);
  expect(await stands()).toMatchObject({ on: true, locks: true });
  const manager = 'org.freedesktop.login1.Session';
  sender.sendSignal('/org/freedesktop/login1/session/_31', manager, 'Lock');
  await untilOff();
  expect(await stands()).toEqual({ on: false, why: 'The screen was locked.' });
  await end();
}, 30_000);

test('a bus that takes the call and never answers holds nothing up', async () => {
  const path = join(mkdtempSync(join(tmpdir(), 'rezzik-silent-')), 'bus');
  const silent = createServer((socket) => void socket.resume()).listen(path);
  process.env.DBUS_SESSION_BUS_ADDRESS = `unix:path=${path}`;
  process.env.DBUS_SYSTEM_BUS_ADDRESS = `unix:path=${path}`;
  await hold(true);
  expect(await stands()).toMatchObject({ on: true, locks: false });
  await hold(false);
  delete process.env.DBUS_SESSION_BUS_ADDRESS;
  silent.close();
}, 15_000);

test('a display that is gone ends it, in words', async () => {
  const other = await XDisplay.open(640, 480);
  process.env.DISPLAY = other.name;
  await hold(true);
  expect(await stands()).toMatchObject({ on: true });
  await other.close();
  for (let i = 0; i < 100 && (await stands()).on; i += 1) await pause(100);
  expect(await stands()).toMatchObject({ on: false, why: expect.stringContaining('display') });
  expect((await askMoments()).status).toBe(409);
}, 30_000);
