import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import sharp from 'sharp';
import { clipAnswerSchema, recordedNowSchema, type Clip } from '@/core/contracts/clip';
import { followedBy } from '@/core/document/follow';
import type { Point } from '@/core/geometry/point';
import { markSchema } from '@/core/marks/registry';
import { GET as recordedNow, POST as record } from '@/app/api/clips/display/route';
import { POST as followed } from '@/app/api/clips/[id]/followed/route';
import { GET as file } from '@/app/api/clips/[id]/copies/[job]/file/route';
import { POST as end } from '@/app/api/clips/[id]/end/route';
import { POST as still } from '@/app/api/clips/[id]/stills/route';
import { GET as picture } from '@/app/api/shots/[id]/picture/route';
import { limits } from '@/core/values/limits';
import { XDisplay } from '@/tests/lib/xDisplay';
import { closeScreen } from '../display/connection';
import { changeSettings } from '../settings/settings';
import { changeShot } from '../shots/change';
import { getShot } from '../shots/rows';
import { film, picturesIn } from './clipFilms';
import { begun as begunHere, ended, lookedThrough, piece, wanted } from './clipLib';
import { at, begin, finish, jsonRequest, request } from './setup';

let display: XDisplay;
let card: string;
const SIZE = { width: 800, height: 600 };
/** The card, as it lies at first within the frame that the window manager gives it. */
const CARD = { x: 0, y: 0, width: 200, height: 150 };
/** Its ground, and a square on it. */
const [GROUND, SQUARE] = [
  [200, 0, 200],
  [255, 255, 255],
];

beforeAll(async () => {
  await begin();
  display = await XDisplay.open(SIZE.width, SIZE.height);
  process.env.DISPLAY = display.name;
  await display.run('xsetroot', '-solid', '#008000');
  const script = join(mkdtempSync(join(tmpdir(), 'rezzik-card-')), 'card.tcl');
  writeFileSync(
    script,
    `wm title . "Card"; wm geometry . ${CARD.width}x${CARD.height}+60+80
. configure -background #c800c8
frame .s -background #ffffff; place .s -x 80 -y 50 -width 40 -height 40`,
  );
  display.start('wish', script);
  card = String(await display.windowId('Card'));
  await display.run('xdotool', 'mousemove', '790', '590');
  // From then on it has its frame.
  await isFramed();
  Object.assign(CARD, await where());
  await changeSettings({ displayAllowed: true });
}, 60_000);
afterAll(async () => {
  closeScreen();
  await display.close();
  await finish();
});

/** Of a busy machine, s. */
const UNSURE = 0.3;

const moveTo = (x: number, y: number) =>
  display.run('xdotool', 'windowmove', '--sync', card, String(x), String(y));

/** Where the card lies on the display. */
async function where(): Promise<Point> {
  const told = await display.run('xwininfo', '-id', card);
  const at = (side: string) =>
    Number(new RegExp(`Absolute upper-left ${side}: +(-?\\d+)`).exec(told)?.[1]);
  return { x: at('X'), y: at('Y') };
}
async function isFramed(): Promise<void> {
  for (;;) {
    const told = await display.run('xprop', '-id', card, '_NET_FRAME_EXTENTS');
    if (told.includes('=')) return;
    await pause(30);
  }
}
/** How far it lies from where it lay at first. */
async function far(): Promise<Point> {
  const { x, y } = await where();
  return { x: x - CARD.x, y: y - CARD.y };
}

async function until(seconds: number): Promise<void> {
  for (;;) {
    const { recording } = recordedNowSchema.parse(
      await (await recordedNow(request('/x'), at({}))).json(),
    );
    if ((recording?.seconds ?? 0) >= seconds) return;
    await pause(30);
  }
}

async function endedClip(id: string): Promise<Clip> {
  const answer = await end(jsonRequest('/x', 'POST', { pieces: 0 }), at({ id }));
  const clip = clipAnswerSchema.parse(await answer.json());
  if (clip.state !== 'ready') throw new Error(`It is ${clip.state}: ${clip.problem}`);
  return lookedThrough(id);
}

const near = (rgb: Uint8Array, [x, y]: readonly [number, number], colour: readonly number[] = []) =>
  colour.every((value, c) => Math.abs((rgb[3 * (y * CARD.width + x) + c] ?? 0) - value) < 48);
/** The card lies in the picture as it lay when it was chosen. */
const isCard = (rgb: Uint8Array): boolean =>
  (
    [
      [3, 3],
      [196, 3],
      [3, 146],
      [196, 146],
    ] as const
  ).every((corner) => near(rgb, corner, GROUND));

/** The pictures of a clip as they leave. */
async function leaving(id: string): Promise<Buffer[]> {
  const { id: job } = await wanted(id, { folderId: null, format: 'mp4' });
  const bytes = await (await file(request('/x'), at({ id, job }))).arrayBuffer();
  const path = join(mkdtempSync(join(tmpdir(), 'rezzik-card-')), 'card.mp4');
  writeFileSync(path, Buffer.from(bytes));
  expect(readFileSync(path).length).toBeGreaterThan(1000);
  return picturesIn(path).pictures;
}

test('the view goes with a window that is moved, and what lies on it does', async () => {
  const id = randomUUID();
  const shown = { crop: CARD, of: SIZE };
  // Moved after it was chosen, before anything is recorded.
  await moveTo(CARD.x + 10, CARD.y + 20);
  const before = await far();
  const follow = { window: Number(card), x: CARD.x, y: CARD.y };
  const wish = { id, title: 'Card', pointer: false, display: 'all', shown, follow };
  expect((await record(jsonRequest('/x', 'POST', wish), at({}))).status).toBe(201);
  await until(1);
  await moveTo(300, 220);
  await until(2);
  for (let step = 1; step <= 10; step += 1) await moveTo(300 + 20 * step, 220 - 10 * step);
  const seconds = 4;
  await until(seconds);
  // A part of it is beyond the edge, as far as which the view goes.
  await moveTo(700, 100);
  const after = await far();
  await until(4.6);
  const clip = await endedClip(id);
  const { view } = clip.document;
  expect(view.crop).toEqual(CARD);
  expect(before.x).toBeGreaterThan(5);
  expect(view.follow?.[0]).toEqual({ from: 0, ...before });
  expect(view.follow?.at(-1)).toMatchObject(after);
  // Some of it is off the screen.
  expect(CARD.x + after.x + CARD.width).toBeGreaterThan(SIZE.width);
  expect(clip.leaves).toEqual({ width: CARD.width, height: CARD.height });
  const pictures = await leaving(id);
  expect(pictures).toHaveLength(clip.times.length);
  const whole = pictures.filter((_, i) => (clip.times[i] ?? 9) < seconds);
  const moves = (view.follow ?? []).map(({ from }) => clip.times[from] ?? 0);
  // While it moves, a picture may have been taken between two looks at where it is.
  const isSettled = (time: number): boolean =>
    moves.every((at) => at === 0 || Math.abs(at - time) > UNSURE);
  const settled = whole
    .map((rgb, i) => ({ rgb, time: clip.times[i] ?? NaN }))
    .filter(({ time }) => isSettled(time));
  expect(settled.length).toBeGreaterThan(8);
  const wrong = settled.filter(({ rgb }) => !isCard(rgb) || !near(rgb, [100, 70], SQUARE));
  expect({ moves, wrong: wrong.map(({ time }) => time) }).toEqual({ moves, wrong: [] });
  const cover = markSchema.parse({
    ...{ id: 'c', kind: 'cover', x: CARD.x + 70, y: CARD.y + 40, width: 60, height: 60 },
    colour: '#000000',
  });
  await changeShot(id, {
    revision: clip.marksRevision,
    document: { ...clip.document, marks: [cover] },
  });
  const covered = (await leaving(id)).slice(0, whole.length);
  expect(covered.filter((rgb) => near(rgb, [100, 70], [0, 0, 0]))).toHaveLength(whole.length);
  expect(covered.filter((rgb) => near(rgb, [90, 55], SQUARE))).toEqual([]);
}, 90_000);

test('a still of it shows it where it is, all of the screen behind it', async () => {
  const id = randomUUID();
  await moveTo(80, 100);
  const begun = await where();
  const follow = { window: Number(card), ...begun };
  const crop = { ...CARD, ...begun };
  const wish = { id, pointer: false, display: 'all', shown: { crop, of: SIZE }, follow };
  await record(jsonRequest('/x', 'POST', wish), at({}));
  await until(0.6);
  await moveTo(400, 300);
  const moved = await where();
  await until(1.4);
  const { times } = await endedClip(id);
  const last = times.at(-1) ?? 0;
  const picked = await still(jsonRequest('/x', 'POST', { at: last }), at({ id }));
  const { id: shot } = (await picked.json()) as { id: string };
  const { document, width, height } = await getShot(shot);
  expect({ width, height }).toEqual(SIZE);
  expect(document.view).toEqual({ crop: { ...CARD, ...moved } });
  const answer = await picture(request('/x?format=png'), at({ id: shot }));
  const rgb = await sharp(Buffer.from(await answer.arrayBuffer()))
    .removeAlpha()
    .raw()
    .toBuffer();
  expect(isCard(rgb)).toBe(true);
}, 60_000);

test('a program that begins late, and tells late when it began: the view is where the window was', async () => {
  // As on a busy machine, and longer.
  const slow = mkdtempSync(join(tmpdir(), 'rezzik-slow-'));
  const program = execFileSync('which', ['ffmpeg'], { encoding: 'utf8' }).trim();
  writeFileSync(join(slow, 'ffmpeg'), `#!/bin/sh\nsleep 1.5; exec ${program} "$@"\n`);
  chmodSync(join(slow, 'ffmpeg'), 0o755);
  const { PATH } = process.env;
  const id = randomUUID();
  await moveTo(80, 100);
  const begun = await where();
  const follow = { window: Number(card), ...begun };
  const shown = { crop: { ...CARD, ...begun }, of: SIZE };
  process.env.PATH = `${slow}:${PATH}`;
  try {
    await record(
      jsonRequest('/x', 'POST', { id, pointer: false, display: 'all', shown, follow }),
      at({}),
    );
  } finally {
    process.env.PATH = PATH;
  }
  await pause(700);
  await moveTo(400, 300);
  const moved = await where();
  await until(1.5);
  const { document, times } = await endedClip(id);
  const far = { x: moved.x - begun.x, y: moved.y - begun.y };
  // It lies there from the first picture on, long after all that was noted.
  expect(document.view.follow).toEqual([{ from: 0, ...far }]);
  expect(times.at(-1)).toBeGreaterThan(1);
  const wrong = (await leaving(id)).filter((rgb) => !isCard(rgb));
  expect(wrong).toHaveLength(0);
}, 60_000);

test('a page tells where a window lies, too; out of all measure, it is a clip all the same', async () => {
  const id = randomUUID();
  const shown = { crop: { x: 10, y: 10, width: 40, height: 30 }, of: { width: 320, height: 192 } };
  await begunHere(id, { shown });
  const tell = (some: unknown) =>
    followed(jsonRequest('/x', 'POST', some), at({ id })).then(({ status }) => status);
  expect(await tell([{ at: 0.5, x: 40, y: 20 }])).toBe(204);
  expect(await tell([{ at: 1, x: 9_000, y: 1e9 }])).toBe(400);
  expect(await tell([{ at: 1, x: 7_000, y: -7_000 }])).toBe(204);
  expect((await piece(id, 0, film(30))).status).toBe(200);
  expect((await ended(id, 1)).status).toBe(200);
  const { document } = await lookedThrough(id);
  const { follow } = document.view;
  // The film has half the size of what the page saw.
  expect([5, 10, 20].map((n) => followedBy(follow, n))).toMatchObject([
    { x: 0, y: 0 },
    { x: 20, y: 10 },
    { x: 3_500, y: -3_500 },
  ]);
  expect([404, 409]).toContain(await tell([{ at: 2, x: 0, y: 0 }]));
  expect((await wanted(id, { folderId: null, format: 'gif' })).state).toBe('done');
}, 60_000);

test('a window that moves all the time is followed to the end, wherever it is said to be', async () => {
  const id = randomUUID();
  // The film has four times the size of what the page saw.
  const shown = { crop: { x: 2, y: 2, width: 20, height: 15 }, of: { width: 40, height: 24 } };
  await begunHere(id, { shown });
  const moves = Array.from({ length: 9_000 }, (_, i) => ({ at: i / 6_000, x: i % 50, y: 0 }));
  const last = { at: 1.8, x: 30_000, y: -5 };
  for (const some of [moves.slice(0, 5_000), moves.slice(5_000), [last]]) {
    const { status } = await followed(jsonRequest('/x', 'POST', some), at({ id }));
    expect(status).toBe(204);
  }
  expect((await piece(id, 0, film(30))).status).toBe(200);
  expect((await ended(id, 1)).status).toBe(200);
  const { document } = await lookedThrough(id);
  const { follow } = document.view;
  // At one second, 6 000 of them were noted.
  expect(followedBy(follow, 15).x).toBe(4 * (6_000 % 50));
  expect(followedBy(follow, 29)).toMatchObject({ x: limits.side, y: -20 });
}, 60_000);
