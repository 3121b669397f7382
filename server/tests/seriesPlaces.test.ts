import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFile } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import type { SeriesInput } from '@/core/contracts/series';
import { XDisplay } from '@/tests/lib/xDisplay';
import { cutOut } from '@/tests/lib/pictures';
import { GET as missed } from '@/app/api/series/[id]/missed/route';
import { GET as moving } from '@/app/api/series/[id]/moving/route';
import { GET as shots } from '@/app/api/series/[id]/shots/route';
import { PATCH as changeSettings } from '@/app/api/settings/route';
import { closeScreen } from '../display/connection';
import { practiceSite } from '../pages/practice/site';
import { getFrame, getShot } from '../shots/rows';
import { begun, comes, entries, now, taken } from './seriesLib';
import { at, begin, finish, jsonRequest, request, testFolder } from './setup';

const run = promisify(execFile);

let display: XDisplay;

const allow = (what: object) => changeSettings(jsonRequest('/x', 'PATCH', what), at({}));

beforeAll(async () => {
  await begin();
  display = await XDisplay.open(800, 600);
  process.env.DISPLAY = display.name;
  await allow({ displayAllowed: true, pagesAllowed: true });
}, 60_000);
afterAll(async () => {
  closeScreen();
  await display.close();
  await finish();
});

/** Takes once what is said. @returns its series as it stands then, and its shot's id */
async function once(what: SeriesInput['what'], before?: Awaited<ReturnType<typeof begun>>) {
  const series = before ?? (await begun({ what }));
  await taken(await comes(await now(series)));
  const [entry] = await entries(shots, series);
  return { series: await now(series), id: entry?.shot?.id ?? '' };
}

const pixelsOf = async (id: string) => {
  const { data, info } = await sharp((await getFrame(id)).bytes)
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
};

test('a window by a part of its title, and a region, are what the X server shows there, and no more', async () => {
  const where = '40x10+100+50';
  display.start('xterm', '-title', 'Bed list, north', '-geometry', where, '-e', 'sleep 600');
  await display.windowId('Bed list, north');
  const window = await once({ source: 'display', kind: 'window', window: 'bed list' });
  expect(window.series).toMatchObject({ taken: 1, missed: 0 });
  const own = await pixelsOf(window.id);
  const { provenance, title } = await getShot(window.id);
  expect(provenance).toMatchObject({
    ...{ source: 'display', windowTitle: 'Bed list, north', series: 'Sensors' },
  });
  expect(title).toBe('Sensors 001');
  const region = { x: 120, y: 90, width: 160, height: 70 };
  const part = await once({ source: 'display', kind: 'region', region });
  const [seen, screen] = [await pixelsOf(part.id), await display.pixels()];
  const box = { left: region.x, top: region.y, width: region.width, height: region.height };
  expect(seen.data.equals(await cutOut(screen, box))).toBe(true);
  const whole = await once({ source: 'display', kind: 'full' });
  expect(await pixelsOf(whole.id)).toMatchObject({ width: 800, height: 600 });
  expect(own.width).toBeLessThan(500);
}, 60_000);

test('a display that is gone is missed until it is back', async () => {
  const what = { source: 'display', kind: 'full' } as const;
  const { series } = await once(what);
  process.env.DISPLAY = ':9877';
  closeScreen();
  await once(what, series);
  expect(await now(series)).toMatchObject({ taken: 1, missed: 1, state: 'running' });
  expect((await entries(missed, series))[0]?.why).toMatch(/display/i);
  process.env.DISPLAY = display.name;
  await once(what, series);
  expect(await now(series)).toMatchObject({ taken: 2, missed: 1 });
  await allow({ displayAllowed: false });
  await once(what, series);
  expect((await entries(missed, series))[0]?.why).toContain('may not read');
  await allow({ displayAllowed: true });
}, 60_000);

test('a web page by its address: taken, unchanged, and missed with the reason where it is not had', async () => {
  const address = `${await practiceSite()}label.png`;
  const what = { source: 'web', page: { address } } as const;
  const onlyChanged = { least: 0, watch: null, ignore: [] };
  const series = await begun({ what, onlyChanged });
  const first = await once(what, series);
  expect(first.series).toMatchObject({ taken: 1 });
  expect((await getShot(first.id)).provenance).toMatchObject({ source: 'web', address });
  expect((await once(what, series)).series).toMatchObject({ taken: 1, unchanged: 1 });
  await allow({ pagesAllowed: false });
  expect((await once(what, series)).series).toMatchObject({ taken: 1, missed: 1 });
  expect((await entries(missed, series))[0]?.why).toContain('Setup › Taking');
  await allow({ pagesAllowed: true });
  const nobody = await begun({ what: { source: 'web', page: { address: 'http://127.0.0.1:9/' } } });
  await once(what, nobody);
  expect((await entries(missed, nobody))[0]?.why).toBeTruthy();
}, 120_000);

test('its pictures are kept as one that moves, each as it leaves, for as long as said', async () => {
  const what = { source: 'desk', kind: 'window', window: 'Sensors' } as const;
  const { series } = await once(what);
  await new Promise((resolve) => setTimeout(resolve, 1100));
  const { id } = await once(what, series);
  const ask = (query: string) => moving(request(`/x?${query}`), at({ id: series.id }));
  const file = async (query: string) => Buffer.from(await (await ask(query)).arrayBuffer());
  const webp = await file('format=webp&seconds=1.5&longest=8000');
  const facts = await sharp(webp, { animated: true }).metadata();
  expect(facts).toMatchObject({ pages: 2, pageHeight: 430, width: 760, delay: [1500, 1500] });
  const last = await sharp(webp, { page: 1 }).ensureAlpha().raw().toBuffer();
  expect(last.equals((await pixelsOf(id)).data)).toBe(true);
  // Source: ImageMagick reads the GIF, hundredths of a second.
  const gif = join(testFolder('moving'), 'a.gif');
  writeFileSync(gif, await file('format=gif&seconds=0.5&longest=380'));
  const asked = ['-coalesce', '-format', '%wx%h %T\n', 'info:'];
  const { stdout } = await run('convert-im6.q16', [gif, ...asked]);
  expect(stdout.trim().split('\n')).toEqual(['380x215 50', '380x215 50']);
  expect((await ask('format=gif&day=2020-01-01')).status).toBe(404);
  expect((await ask('format=gif&longest=9000')).status).toBe(400);
}, 60_000);
