import { afterAll, beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import type { SeriesInput } from '@/core/contracts/series';
import { XDisplay } from '@/tests/lib/xDisplay';
import { cutOut } from '@/tests/lib/pictures';
import { GET as missed } from '@/app/api/series/[id]/missed/route';
import { GET as shots } from '@/app/api/series/[id]/shots/route';
import { PATCH as changeSettings } from '@/app/api/settings/route';
import { closeScreen } from '../display/connection';
import { practiceSite } from '../pages/practice/site';
import { getFrame, getShot } from '../shots/rows';
import { begun, comes, entries, now, taken } from './seriesLib';
import { at, begin, finish, jsonRequest } from './setup';

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
