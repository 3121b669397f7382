import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { DELETE as stop, GET as ask } from '@/app/api/jobs/[id]/route';
import { POST as take } from '@/app/api/display/shots/route';
import { jobSchema, type Job } from '@/core/contracts/page';
import { startRows } from '@/tests/lib/rows';
import { XDisplay } from '@/tests/lib/xDisplay';
import { json, sql } from '../db/sql';
import { closeScreen } from '../display/connection';
import { workAlone } from '../jobs/run';
import { changeSettings } from '../settings/settings';
import { getFrame, getShot } from '../shots/rows';
import { at, begin, finish, jsonRequest, request } from './setup';

let display: XDisplay;
let rows = 0;

beforeAll(async () => {
  await begin();
  display = await XDisplay.open(1000, 700, '');
  process.env.DISPLAY = display.name;
  await changeSettings({ displayAllowed: true });
  startRows(display, '420x360+30+200');
  rows = Number(await display.windowId('rows'));
  await display.run('xdotool', 'mousemove', '900', '40');
}, 60_000);
afterAll(async () => {
  closeScreen();
  await display.close();
  await finish();
});

const shots = async () => (await sql()`select 1 from shots`).length;
async function long(wish: object, query = '?wait=1') {
  const body = { kind: 'long', ...wish };
  const answer = await take(jsonRequest(`/api/display/shots${query}`, 'POST', body), at({}));
  return {
    status: answer.status,
    body: (await answer.json()) as Job & { error?: { code: string } },
  };
}
const job = async (id: string): Promise<Job> =>
  jobSchema.parse(await (await ask(request(`/api/jobs/${id}`), at({ id }))).json());
async function until(what: string, test: () => Promise<boolean> | boolean): Promise<void> {
  const end = Date.now() + 30_000;
  while (!(await test())) {
    if (Date.now() > end) throw new Error(`Not yet: ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}
async function frameOf(id: string) {
  const { bytes } = await getFrame(id);
  return sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
}
/** Rows of a picture from one row on, without what is beside `width` pixels of them. */
const part = (
  { data, width }: { data: Uint8Array; width: number },
  top: number,
  [left, across]: readonly [number, number],
): Buffer =>
  Buffer.concat(
    Array.from({ length: 200 }, (_, row) => {
      const from = ((top + row) * width + left) * 4;
      return Buffer.from(data.subarray(from, from + across * 4));
    }),
  );
const seen = () => display.pixels(String(rows));
const scrollTo = (button: '4' | '5') =>
  display.run(
    'xdotool',
    'mousemove',
    '200',
    '400',
    'click',
    '--repeat',
    '60',
    '--delay',
    '4',
    button,
  );

beforeEach(async () => {
  await scrollTo('4');
  await display.run('xdotool', 'mousemove', '900', '40');
});

test('a window is scrolled to its end, and all of it is one shot', async () => {
  const first = await seen();
  const { status, body } = await long({ windowId: rows, title: 'All rows' });
  expect(status).toBe(201);
  const last = await seen();
  expect(await display.run('xdotool', 'getmouselocation')).toContain('x:900 y:40');
  const { data, info } = await frameOf(body.id);
  const whole = { data, width: info.width };
  expect(info.height).toBeGreaterThan(70 * 15);
  // Without a window manager there is no frame around it.
  expect(info.width).toBe(first.width);
  expect(part(whole, 0, [0, 300]).equals(part(first, 0, [0, 300]))).toBe(true);
  const end = info.height - last.height;
  expect(part(whole, end + 100, [0, 300]).equals(part(last, 100, [0, 300]))).toBe(true);
  const { title, provenance } = await getShot(body.id);
  expect(title).toBe('All rows');
  expect(provenance).toMatchObject({ source: 'display', windowTitle: 'rows' });
  expect(provenance.frames).toBeGreaterThan(3);
  expect(Date.parse(provenance.until ?? '')).toBeGreaterThan(Date.parse(provenance.takenAt));
}, 90_000);

test('the other way it comes out the same; a region of it alone, too', async () => {
  await scrollTo('5');
  const up = await long({ windowId: rows, direction: 'up' });
  const down = await long({ windowId: rows });
  const [a, b] = [await frameOf(up.body.id), await frameOf(down.body.id)];
  expect(a.info.height).toBe(b.info.height);
  expect(a.data.equals(b.data)).toBe(true);
  await scrollTo('4');
  const region = { x: 60, y: 240, width: 200, height: 240 };
  const some = await frameOf((await long({ region })).body.id);
  expect(some.info.width).toBe(200);
  expect(some.info.height).toBeGreaterThan(240 + 600);
}, 120_000);

test('where nothing moves it is what is seen, and that is said', async () => {
  const region = { x: 600, y: 200, width: 120, height: 120 };
  const { status, body } = await long({ region });
  expect(status).toBe(201);
  expect(body.said).toEqual(['Nothing moved there: it is what is seen of it.']);
}, 60_000);

test('it can be stopped, and nothing of it is left; what it is of may go in the middle', async () => {
  const before = await shots();
  const { status, body } = await long({ windowId: rows }, '?wait=0');
  // A quick computer is done before it is asked.
  expect([201, 202]).toContain(status);
  const slow = { windowId: rows, delay: 60 };
  const { body: waiting } = await long(slow, '');
  expect(waiting.state).not.toBe('done');
  const stopped = await stop(request(`/api/jobs/${waiting.id}`), at({ id: waiting.id }));
  expect(stopped.status).toBe(204);
  expect(await job(waiting.id)).toMatchObject({ state: 'stopped', shot: null });
  if (status === 202) await until('the first', async () => (await job(body.id)).state === 'done');
  expect(await shots()).toBe(before + 1);
  expect((await long({ windowId: 4_711 })).status).toBe(404);
}, 120_000);

test('one that was cut short is not taken by itself when Rezzik is back', async () => {
  const before = await shots();
  const id = '0b5e8c79-0000-4000-8000-00000000c0de';
  // As a killed process leaves it: begun, and due again once its lease has run out.
  await sql()`insert into slow_takes (id, shot_id, wish, begun_at)
    values (${id}, ${id}, ${json({ kind: 'long', windowId: rows })}, now())`;
  await sql()`insert into jobs (id, kind) values (${id}, 'long')`;
  await workAlone('long');
  const { state, problem, code } = await job(id);
  expect([state, code]).toEqual(['stopped', 'cut-short']);
  expect(problem).toMatch(/ended in the middle of it/);
  expect(await shots()).toBe(before);
}, 60_000);

test('without leave it is not asked for', async () => {
  await changeSettings({ displayAllowed: false });
  expect(await long({ windowId: rows })).toMatchObject({
    ...{ status: 403, body: { error: { code: 'not-allowed' } } },
  });
  await changeSettings({ displayAllowed: true });
});
