import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import sharp from 'sharp';
import { clipAnswerSchema, type Clip } from '@/core/contracts/clip';
import { centre } from '@/core/geometry/rect';
import { MatroskaTimes } from '@/core/clip/matroskaTimes';
import { similarity } from '@/core/likeness/similarity';
import { GET as recordedNow, POST as record } from '@/app/api/clips/display/route';
import * as one from '@/app/api/clips/[id]/route';
import * as pausing from '@/app/api/clips/[id]/pause/route';
import * as video from '@/app/api/clips/[id]/video/route';
import { POST as end } from '@/app/api/clips/[id]/end/route';
import { GET as frames } from '@/app/api/clips/[id]/frames/route';
import { startRows } from '@/tests/lib/rows';
import { XDisplay } from '@/tests/lib/xDisplay';
import { closeScreen } from '../display/connection';
import { coloursOf } from '../media/probe';
import { ScreenFilm } from '../clips/screenFilm';
import { changeSettings } from '../settings/settings';
import { getSteps } from '../shots/change';
import { picturesIn } from './clipFilms';
import { lookedThrough } from './clipLib';
import { busFor } from './lockBus';
import { at, begin, finish, jsonRequest, request } from './setup';

let display: XDisplay;
const SIZE = { width: 800, height: 600 };

beforeAll(async () => {
  await begin();
  display = await XDisplay.open(SIZE.width, SIZE.height, '');
  process.env.DISPLAY = display.name;
  startRows(display, '420x360+30+100');
  await display.windowId('rows');
  await display.run('xdotool', 'mousemove', '200', '300');
}, 60_000);
afterAll(async () => {
  closeScreen();
  await display.close();
  await finish();
});

const begun = (id: string, more: object = {}) =>
  record(jsonRequest('/x', 'POST', { id, title: 'Rows', pointer: false, ...more }), at({}));
const paused = (id: string, isPaused: boolean) =>
  pausing.PUT(jsonRequest('/x', 'PUT', { paused: isPaused }), at({ id }));
async function endedClip(id: string): Promise<Clip> {
  const answer = await end(jsonRequest('/x', 'POST', { pieces: 0 }), at({ id }));
  const clip = clipAnswerSchema.parse(await answer.json());
  if (clip.state !== 'ready') throw new Error(`It is ${clip.state}: ${clip.problem}`);
  return lookedThrough(id);
}
async function savedFilm(id: string): Promise<string> {
  const path = join(mkdtempSync(join(tmpdir(), 'rezzik-screen-')), 'film.mp4');
  const film = await (await video.GET(request('/x'), at({ id }))).arrayBuffer();
  writeFileSync(path, Buffer.from(film));
  return path;
}
/** A corner of each picture: red, green and blue. */
async function corners(id: string): Promise<number[][]> {
  return picturesIn(await savedFilm(id)).pictures.map((rgb) => [...rgb.subarray(0, 3)]);
}
const ground = (colour: string): Promise<string> => display.run('xsetroot', '-solid', colour);
const isNear = (seen: readonly number[] | undefined, colour: readonly number[]): boolean =>
  colour.every((value, i) => Math.abs(value - (seen?.[i] ?? NaN)) < 40);
const nowRecorded = async (): Promise<unknown> => (await recordedNow(request('/x'), at({}))).json();
const told = async (id: string) =>
  clipAnswerSchema.parse(await (await one.GET(request('/x'), at({ id }))).json());

async function until(what: string, test: () => Promise<boolean>): Promise<void> {
  for (let tries = 0; tries < 400; tries += 1) {
    if (await test()) return;
    await pause(50);
  }
  throw new Error(`Not yet: ${what}`);
}
/** More of it lies on the disk than now. */
async function goesOn(id: string): Promise<void> {
  const before = await told(id);
  await until('more of it', async () => {
    const now = await told(id);
    return 'pieces' in now && 'pieces' in before && now.pieces > before.pieces + 1;
  });
}

test('without leave nothing is recorded', async () => {
  expect((await begun(randomUUID())).status).toBe(403);
});

test('a window that scrolls: every picture is what the screen showed, its words as clear', async () => {
  await changeSettings({ displayAllowed: true });
  const id = randomUUID();
  expect((await begun(id)).status).toBe(201);
  await goesOn(id);
  const first = await display.pixels();
  // One at a time.
  expect((await begun(randomUUID())).status).toBe(409);
  await display.run('xdotool', 'click', '5', 'click', '5');
  await until('it scrolled', async () => !(await display.pixels()).data.equals(first.data));
  await goesOn(id);
  const last = await display.pixels();
  const clip = await endedClip(id);
  expect(clip).toMatchObject({ ...SIZE, fineColours: true, title: 'Rows' });
  expect(clip.provenance).toMatchObject({ source: 'display', frames: clip.times.length });
  // Players guess what is not said, by how large it is.
  expect(await coloursOf(await savedFilm(id))).toEqual({
    ...{ format: 'yuv444p', range: 'tv', matrix: 'bt709' },
  });
  // Even: none is left out for long.
  const apart = clip.times.slice(1).map((time, i) => time - (clip.times[i] ?? 0));
  expect(apart.filter((time) => time > 0.2).length).toBeLessThanOrEqual(apart.length / 20);
  for (const [when, screen] of [
    [0, first],
    [clip.times.at(-1) ?? 0, last],
  ] as const) {
    const png = await (await frames(request(`/x?at=${when}`), at({ id }))).arrayBuffer();
    const raw = await sharp(Buffer.from(png)).ensureAlpha().raw().toBuffer();
    const data = new Uint8ClampedArray(raw);
    expect(
      similarity({ ...screen, data: new Uint8ClampedArray(screen.data) }, { ...SIZE, data })
        .likeness,
    ).toBeGreaterThan(0.994);
  }
}, 60_000);

test('paused, nothing of the screen is looked at, and what comes later follows on', async () => {
  const [red, green, blue] = [
    [255, 0, 0],
    [0, 255, 0],
    [0, 0, 255],
  ] as const;
  expect((await paused(randomUUID(), true)).status).toBe(404);
  const id = randomUUID();
  await ground('#ff0000');
  expect((await begun(id)).status).toBe(201);
  await goesOn(id);
  // Asked for twice it is one pause.
  const both = await Promise.all([paused(id, true), paused(id, true)]);
  expect(both.map(({ status }) => status)).toEqual([204, 204]);
  const [before, , now] = [await told(id), await ground('#00ff00'), await nowRecorded()];
  expect(before).toMatchObject({ state: 'going', paused: true });
  expect(now).toMatchObject({ recording: { id, paused: true } });
  await pause(1_000);
  expect(await told(id)).toEqual({ ...before, room: expect.any(Number) });
  await ground('#0000ff');
  await paused(id, false);
  await goesOn(id);
  expect(await told(id)).toMatchObject({ paused: false });
  const { times } = await endedClip(id);
  const seen = await corners(id);
  expect(seen).toHaveLength(times.length);
  expect([isNear(seen[0], red), isNear(seen.at(-1), blue)]).toEqual([true, true]);
  expect(seen.filter((one) => isNear(one, green))).toEqual([]);
  const apart = times.slice(1).map((time, i) => time - (times[i] ?? 0));
  expect(Math.min(...apart)).toBeGreaterThan(0);
  // On a busy machine a picture is missing; the pause took a second longer than that.
  expect(Math.max(...apart)).toBeLessThan(0.9);
}, 60_000);

test('clicks and keys are marks at their place and time, which undo takes back', async () => {
  const id = randomUUID();
  await ground('#000000');
  await begun(id, { pressed: ['clicks', 'keys'] });
  await goesOn(id);
  await display.run('xdotool', 'mousemove', '600', '500');
  await ground('#ffffff');
  const since = performance.now();
  await display.run('xdotool', 'click', '1', 'key', 'ctrl+s');
  const took = (performance.now() - since) / 1000;
  await goesOn(id);
  await display.run('xdotool', 'type', '--delay', '40', 'Bean 12');
  await display.run('xdotool', 'key', 'shift', 'key', 'F5', 'click', '5');
  await goesOn(id);
  // Nothing is noted while it pauses.
  await paused(id, true);
  await display.run('xdotool', 'key', 'p', 'click', '1', 'key', 'q');
  await paused(id, false);
  await goesOn(id);
  const { document } = await endedClip(id);
  const words = document.marks.map((mark) => ('text' in mark && mark.text) || mark.kind);
  expect(words.slice(0, 2)).toEqual(['oval', expect.stringMatching(/^Ctrl\+S$/)]);
  // On a busy machine a pause may part them, or a picture show more than one of them.
  expect(words.slice(2).join(' ')).toMatch(/Bean.*12.*F5$/);
  const [ring] = document.marks;
  expect(ring && 'width' in ring && centre({ height: 0, ...ring })).toMatchObject({ x: 600 });
  const lit = (await corners(id)).findIndex((one) => isNear(one, [255, 255, 255]));
  // It was clicked right after, as soon as the program was there that does: fifteen pictures a second.
  const after = (ring?.time?.from ?? NaN) - lit;
  expect(after).toBeGreaterThanOrEqual(-4);
  expect(after).toBeLessThanOrEqual(4 + 15 * took);
  const { steps, position } = await getSteps(id);
  expect([steps.map(({ label }) => label), position]).toEqual([['Clicks and keys shown'], 1]);
}, 60_000);

test('it ends by itself when it is as long as it may be', async () => {
  let ended: unknown = 'not yet';
  const heard: Buffer[] = [];
  const film = new ScreenFilm({
    ...{ part: { x: 0, y: 0, ...SIZE }, pointer: false, most: 2 },
    heard: (piece) => heard.push(piece),
    over: (why) => (ended = why),
  });
  await until('it has ended', () => Promise.resolve(ended !== 'not yet'));
  expect(ended).toBeNull();
  expect(film.recorded).toBeGreaterThan(1.5);
  const reader = new MatroskaTimes();
  reader.read(Buffer.concat(heard));
  const { times } = reader;
  expect((times.at(-1) ?? NaN) - (times[0] ?? NaN)).toBeLessThan(2);
  expect(times.length).toBeGreaterThan(15);
}, 30_000);

test('a screen that is locked is not looked at until somebody says that it goes on', async () => {
  const { sender, end: endBus } = await busFor('DBUS_SESSION_BUS_ADDRESS');
  const id = randomUUID();
  await begun(id);
  await goesOn(id);
  const of = 'org.example.desk.ScreenSaver';
  sender.sendSignal('/org/example/desk/ScreenSaver', of, 'ActiveChanged', 'b', [true]);
  await until('it pauses', async () => {
    const now = await told(id);
    return 'paused' in now && now.paused === true;
  });
  sender.sendSignal('/org/example/desk/ScreenSaver', of, 'ActiveChanged', 'b', [false]);
  await pause(300);
  expect(await told(id)).toMatchObject({ paused: true });
  await paused(id, false);
  await goesOn(id);
  await endedClip(id);
  await endBus();
}, 60_000);

test('without the program that records nothing begins, and the command that installs it is said', async () => {
  const { PATH } = process.env;
  process.env.PATH = mkdtempSync(join(tmpdir(), 'rezzik-path-'));
  try {
    const id = randomUUID();
    const answer = await begun(id);
    expect(answer.status).toBe(501);
    expect(await answer.text()).toContain('sudo apt-get install -y ffmpeg');
    expect((await one.GET(request('/x'), at({ id }))).status).toBe(404);
    expect(await nowRecorded()).toEqual({ recording: null });
  } finally {
    process.env.PATH = PATH;
  }
});

test.each([-3600, 3600])(
  'a clock that is set by %p s takes no picture and no time',
  async (by) => {
    const id = randomUUID();
    const setTo = join(mkdtempSync(join(tmpdir(), 'rezzik-clock-')), 'clock');
    const set = (seconds: number): void =>
      writeFileSync(setTo, `${seconds < 0 ? '' : '+'}${seconds}`);
    // Of the program that records, and of no other. The loader fills in $LIB.
    const faked = {
      LD_PRELOAD: '/usr/$LIB/faketime/libfaketime.so.1',
      FAKETIME_TIMESTAMP_FILE: setTo,
      ...{ FAKETIME_NO_CACHE: '1', FAKETIME_DONT_FAKE_MONOTONIC: '1' },
    };
    set(by);
    const told = execFileSync('date', ['+%s'], { env: { ...process.env, ...faked } });
    expect(Math.abs(Number(told.toString()) - Date.now() / 1000 - by)).toBeLessThan(60);
    set(0);
    Object.assign(process.env, faked);
    const since = performance.now();
    await begun(id);
    for (const name of Object.keys(faked)) delete process.env[name];
    await goesOn(id);
    set(by);
    await goesOn(id);
    await goesOn(id);
    const lasted = (performance.now() - since) / 1000;
    const { times } = await endedClip(id);
    const apart = times.slice(1).map((time, i) => time - (times[i] ?? 0));
    expect(Math.max(...apart)).toBeLessThan(0.9);
    // It comes as fast as it was taken: at least half of the time of looking at it.
    expect(times.at(-1)).toBeGreaterThan(lasted / 2);
    expect(times.at(-1)).toBeLessThan(lasted + 1);
  },
  60_000,
);

test('a display that goes in the middle: what was recorded until then is a clip', async () => {
  const other = await XDisplay.open(640, 480, '');
  process.env.DISPLAY = other.name;
  const id = randomUUID();
  expect((await begun(id)).status).toBe(201);
  await goesOn(id);
  await other.close();
  await until('it is a clip', async () => (await told(id)).state === 'ready');
  await lookedThrough(id);
  expect(await told(id)).toMatchObject({ width: 640, height: 480 });
  expect(await nowRecorded()).toEqual({ recording: null });
  // Nobody is in the way of the next one.
  process.env.DISPLAY = display.name;
  const next = randomUUID();
  expect((await begun(next)).status).toBe(201);
  await goesOn(next);
  await endedClip(next);
}, 60_000);
