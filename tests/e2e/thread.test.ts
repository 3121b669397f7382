import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdirSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import jpegJs from 'jpeg-js';
import { By, Key, until } from 'selenium-webdriver';
import { App, getPixels, getShot, pixelAt, WAIT } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;
const folder = join(process.env.REZZIK_ROOTS ?? '', 'thread');

beforeAll(async () => {
  mkdirSync(folder, { recursive: true });
  await fetch(`${appUrl()}/api/folders`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      name: 'Thread',
      path: folder,
      format: 'jpeg',
      quality: 90,
      pattern: '{title}',
      isDefault: true,
    }),
  });
  browser = await openBrowser();
  app = new App(browser.driver);
}, 120_000);

afterAll(() => browser.close());

test('the whole thread: open menu, delay, region, arrow, text, JPEG in a folder', async () => {
  const desk = await app.take();
  await app.click('Region');
  await app.click('2 s');
  await app.click('Take a region');
  await app.clickAt(desk, await app.onDesk('menu:Labels'));
  const still = await browser.driver.wait(
    until.elementLocated(By.css('[data-testid="still"]')),
    WAIT,
  );
  const { width } = await still.getRect();
  const scale = width / 1440;
  await app.drag(still, { x: 40 * scale, y: 40 * scale }, { x: 760 * scale, y: 420 * scale });
  for (const [label, value] of [
    ['Left', 48],
    ['Top', 46],
    ['Width', 700],
    ['Height', 400],
  ] as const) {
    await app.type(label, String(value));
  }
  await app.click('Take this region');
  const id = await app.marked();
  const view = { x: 48, y: 46, width: 700, height: 400 };
  expect((await getStored(id)).document.view.crop).toEqual(view);

  const stage = await browser.driver.findElement(By.css('[data-testid="stage"]'));
  await app.keys('a');
  await app.drag(
    stage,
    await app.stagePoint(view, { x: 600, y: 380 }),
    await app.stagePoint(view, { x: 460, y: 180 }),
  );
  await app.keys('t');
  await app.clickAt(stage, await app.stagePoint(view, { x: 500, y: 395 }));
  const field = await browser.driver.wait(until.elementLocated(By.css('textarea')), WAIT);
  await field.sendKeys('Preview first', Key.ESCAPE);
  await app.stored();

  const shot = await getShot(id);
  expect(shot.document.marks.map((m) => m.kind)).toEqual(['arrow', 'text']);
  const picture = await getPixels(id, 'picture');
  expect([picture.width, picture.height]).toEqual([700, 400]);
  // The arrow's shaft, half way: vermillion, exactly.
  expect(pixelAt(picture, 530 - 48, 280 - 46)).toEqual([0xd5, 0x5e, 0, 255]);
  // The menu is open in the picture: its white paper lies where the register's table would be.
  const closed = await getPixels(id, 'frame');
  expect(pixelAt(closed, 520, 230 - 46 + 30)).toEqual([255, 255, 255, 255]);

  await app.chord(Key.CONTROL, Key.ENTER);
  await app.click('Keep in 1 place');
  const path = await (
    await browser.driver.wait(until.elementLocated(By.css('[data-testid="path"]')), WAIT)
  ).getText();
  expect(readdirSync(folder)).toHaveLength(1);
  expect(path).toBe(join(folder, readdirSync(folder)[0] ?? ''));
  const bytes = readFileSync(path);
  const jpeg = jpegJs.decode(bytes);
  expect([jpeg.width, jpeg.height]).toEqual([700, 400]);
  const at = ((280 - 46) * 700 + (530 - 48)) * 4;
  [0xd5, 0x5e, 0].forEach((value, i) =>
    expect(Math.abs((jpeg.data[at + i] ?? 0) - value)).toBeLessThan(24),
  );
}, 120_000);

test('Keep right after the take waits for a picture that is still being put aside', async () => {
  await app.take();
  await browser.driver.executeScript(`
    const slow = Blob.prototype.arrayBuffer;
    Blob.prototype.arrayBuffer = async function () {
      await new Promise((resolve) => setTimeout(resolve, 1500));
      return slow.call(this);
    };`);
  await app.keys('1');
  await app.click('0 s');
  await app.keys(Key.ENTER);
  const id = await app.marked();
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('Waiting until the shot is stored');
  await app.named('Clipboard');
  expect((await getShot(id)).width).toBe(1440);
}, 60_000);

test('the clipboard holds the very picture that keeping would write', async () => {
  const { driver } = browser;
  await driver.sendDevToolsCommand('Browser.grantPermissions', {
    permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
    origin: appUrl(),
  });
  await app.take();
  await app.keys('1');
  await app.click('0 s');
  await app.keys(Key.ENTER);
  const id = await app.marked();
  await app.keys('b');
  const stage = await driver.findElement(By.css('[data-testid="stage"]'));
  await app.drag(stage, { x: 200, y: 200 }, { x: 400, y: 330 });
  await app.stored();
  await app.chord(Key.CONTROL, 'c');
  await app.sees('Paste the picture anywhere.');
  const copied = await app.pasted();
  const kept = await getPixels(id, 'picture');
  expect([copied.width, copied.height]).toEqual([1440, 900]);
  expect(Buffer.compare(copied.data, kept.data)).toBe(0);
}, 120_000);

async function getStored(id: string) {
  await app.until(
    'the shot is stored',
    async () => (await fetch(`${appUrl()}/api/shots/${id}`)).ok,
  );
  return getShot(id);
}
