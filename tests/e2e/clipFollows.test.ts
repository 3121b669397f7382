import { beforeEach, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import sharp from 'sharp';
import { clipSchema, type Clip } from '@/core/contracts/clip';
import { firstWay } from '@/core/contracts/way';
import { read, setWay } from './lib/app';
import { app, browser, inOneBrowser } from './lib/suite';

inOneBrowser();
beforeEach(() => setWay({ ...firstWay, display: 'Left', kind: 'clip', records: 'window' }));

const stands = async (): Promise<string> => {
  const css = 'section[aria-label="Recording"] [role="status"]';
  return (await browser.driver.findElements(By.css(css)))[0]?.getText() ?? '';
};
const isPast = (seconds: number): Promise<void> =>
  app.until(`${seconds} s are recorded`, async () => {
    const [, now = '0'] = /0:(\d\d\.\d) of/.exec(await stands()) ?? [];
    return Number(now) > seconds;
  });
const clipOf = async (id: string): Promise<Clip> =>
  clipSchema.parse(await (await read(`/api/clips/${id}`)).json());

/** A picture of a clip as it leaves. */
async function leaving(id: string, at: number): Promise<Buffer> {
  const answer = await read(`/api/clips/${id}/frames?at=${at}&marks=true`);
  return sharp(Buffer.from(await answer.arrayBuffer()))
    .removeAlpha()
    .raw()
    .toBuffer();
}

/** Of the values of two pictures, those that differ. */
const differing = (a: Buffer, b: Buffer): number =>
  a.filter((value, i) => Math.abs(value - (b[i] ?? 0)) > 60).length / a.length;

test('the view goes with a window of the desk, until it is told to stay', async () => {
  await app.go('/take');
  await app.sees('It is followed when it is moved');
  await app.clickAt(await app.desk(), await app.onDesk('title:register'));
  await app.keys(Key.ENTER);
  await app.sees('Record this window');
  await app.keys(Key.ENTER);
  await isPast(0.6);
  const title = await app.onDesk('title:register');
  await app.drag(await app.desk(), title, { x: title.x + 60, y: title.y + 40 });
  await isPast(2.5);
  await app.keys(Key.ENTER);
  await app.sees('The view follows the window');
  const id = (await browser.driver.getCurrentUrl()).slice(-36);
  const { document, times, width, height } = await clipOf(id);
  const { crop, follow = [] } = document.view;
  const { x = 0, y = 0 } = follow.at(-1) ?? {};
  // A pixel of the page is some of the desk.
  expect([x > 30, y > 20]).toEqual([true, true]);
  expect(crop.x + crop.width + x).toBeLessThanOrEqual(width);
  expect(crop.y + crop.height + y).toBeLessThanOrEqual(height);
  const last = times.at(-1) ?? 0;
  const [first, moved] = [await leaving(id, 0.3), await leaving(id, last)];
  expect(moved).toHaveLength(first.length);
  expect(differing(first, moved)).toBeLessThan(0.02);
  // Where it was, something else is by now.
  await app.keys(Key.END, 'm');
  await app.stage();
  await app.keys('k');
  await app.moreSettings();
  await app.click('Follow no window');
  await app.until('it stays', async () => (await clipOf(id)).document.view.follow === undefined);
  expect(differing(first, await leaving(id, last))).toBeGreaterThan(0.05);
  await app.keys(Key.ESCAPE);
  await app.chord(Key.CONTROL, 'z');
  await app.until('it follows', async () => (await clipOf(id)).document.view.follow !== undefined);
}, 120_000);
