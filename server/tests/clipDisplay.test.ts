import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import sharp from 'sharp';
import { clipAnswerSchema } from '@/core/contracts/clip';
import { similarity } from '@/core/likeness/similarity';
import { POST as record } from '@/app/api/clips/display/route';
import * as one from '@/app/api/clips/[id]/route';
import { POST as end } from '@/app/api/clips/[id]/end/route';
import { GET as frames } from '@/app/api/clips/[id]/frames/route';
import { startRows } from '@/tests/lib/rows';
import { XDisplay } from '@/tests/lib/xDisplay';
import '../clips/finish';
import { closeScreen } from '../display/connection';
import { changeSettings } from '../settings/settings';
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

const begun = (id: string) =>
  record(jsonRequest('/x', 'POST', { id, title: 'Rows', pointer: false }), at({}));
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
  const answer = await end(jsonRequest('/x', 'POST', { pieces: 0 }), at({ id }));
  const clip = clipAnswerSchema.parse(await answer.json());
  if (clip.state !== 'ready') throw new Error(`It is ${clip.state}: ${clip.problem}`);
  expect(clip).toMatchObject({ ...SIZE, fineColours: true, title: 'Rows' });
  expect(clip.provenance).toMatchObject({ source: 'display', frames: clip.times.length });
  // Even: none is left out for long.
  const apart = clip.times.slice(1).map((time, i) => time - (clip.times[i] ?? 0));
  expect(apart.filter((time) => time > 0.2).length).toBeLessThanOrEqual(apart.length / 20);
  for (const [when, screen] of [
    [0, first],
    [clip.times.at(-1) ?? 0, last],
  ] as const) {
    const png = await (await frames(request(`/x?at=${when}`), at({ id }))).arrayBuffer();
    const data = await sharp(Buffer.from(png)).ensureAlpha().raw().toBuffer();
    expect(similarity(screen, { ...SIZE, data }).likeness).toBeGreaterThan(0.994);
  }
}, 60_000);
