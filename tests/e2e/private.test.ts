import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import type { Worker } from 'tesseract.js';
import { testShaper } from '@/tests/lib/shaper';
import { drawnScreens } from '../private/drawn';
import { askThings, measuredPages } from '../private/pages';
import { recognise, startRecogniser } from '../private/recogniser';
import { knownSchema, readRecorded, record, type Screen } from '../private/recorded';
import { scoresOf, type KnownThing } from '../private/score';
import { App, getPixels, getShot, pixelAt, sendShot } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;
let worker: Worker;
beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  worker = await startRecogniser();
  await browser.driver.sendDevToolsCommand('Browser.grantPermissions', {
    permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
    origin: appUrl(),
  });
}, 120_000);
afterAll(async () => {
  await worker.terminate();
  await browser.close();
});

/** What is found in a picture, by the recogniser itself. */
async function readLive(name: string, png: Buffer, known: readonly KnownThing[]): Promise<Screen> {
  const passes = [];
  for (const scale of [1, 2]) passes.push(await recognise(worker, png, scale));
  return { name, known: [...known], passes };
}

async function pageScreen(i: number): Promise<Screen> {
  await browser.driver.get(measuredPages[i]?.address ?? '');
  const png = Buffer.from(await browser.driver.takeScreenshot(), 'base64');
  const known = knownSchema.parse(await browser.driver.executeScript(askThings));
  return readLive(`page ${i}`, png, known);
}

// Half of the screens are real pages, whose boxes are asked from them by getClientRects; half are
// drawn by our own painter. None of them was looked at while the patterns were made. What the
// recogniser read on all of them is recorded; here it reads one of each kind anew.
test('on screens read here and now as much is found as on the recorded ones', async () => {
  const drawn = await drawnScreens(await testShaper());
  const screens: Screen[] = [];
  const each = process.env.REZZIK_RECORD ? measuredPages.map((_, i) => i) : [0];
  for (const i of each) {
    const sheet = drawn[i];
    if (!sheet) throw new Error('there are as many drawn screens as pages');
    screens.push(await pageScreen(i), await readLive(`drawn ${i}`, sheet.png, sheet.known));
  }
  if (process.env.REZZIK_RECORD) record(screens);
  const recorded = readRecorded().filter(({ name }) => screens.some((s) => s.name === name));
  const foundOf = (all: readonly Screen[]) =>
    Object.values(scoresOf(all)).reduce((sum, score) => sum + score.found, 0);
  expect(foundOf(recorded)).toBeGreaterThan(8);
  expect(foundOf(screens)).toBeGreaterThanOrEqual(0.9 * foundOf(recorded));
}, 300_000);

/** A page with an address and a card number, as a shot. */
async function orderShot(): Promise<string> {
  const html = `<body style="margin:0;background:#fff;font:18px sans-serif"><p style="margin:40px">Sent to wren@fernhollow.example</p><p style="margin:40px">Paid with 4242 4242 4242 4242</p><p style="margin:40px">Two packets of sea holly</p>`;
  await browser.driver.get(`data:text/html,${encodeURIComponent(html)}`);
  const png = Buffer.from(await browser.driver.takeScreenshot(), 'base64');
  return sendShot(png, 'Order');
}

test('found things are shown for approval and hidden in one step, nothing before', async () => {
  const id = await orderShot();
  await app.openShot(id);
  await app.keys('f');
  await app.until(
    'both are found',
    async () => (await browser.driver.findElements(By.css('input[type=checkbox]'))).length === 2,
    60_000,
  );
  await app.stored();
  expect((await getShot(id)).document.marks).toEqual([]);
  const list = await browser.driver.findElement(By.css('section[aria-label="Private things"]'));
  expect(await list.getText()).toContain('wren@fernhollow.example');
  const [, card] = await browser.driver.findElements(By.css('input[type=checkbox]'));
  await card?.click();
  await app.click('Hide 1');
  await app.stored();
  const { marks } = (await getShot(id)).document;
  expect(marks).toHaveLength(1);
  expect(marks[0]).toMatchObject({ kind: 'cover', area: 'box' });
  const picture = await getPixels(id, 'picture');
  const mark = marks[0];
  if (mark?.kind !== 'cover') throw new Error('no cover');
  expect(pixelAt(picture, Math.round(mark.x + 20), Math.round(mark.y + 8))).toEqual([0, 0, 0, 255]);
  // What is hidden is not read again; the rest still is.
  await app.keys('f');
  await app.until(
    'one is found',
    async () => (await browser.driver.findElements(By.css('input[type=checkbox]'))).length === 1,
    60_000,
  );
  await app.keys(Key.ESCAPE);
  expect(await app.has('section[aria-label="Private things"]')).toBe(false);
  await app.chord(Key.CONTROL, 'z');
  await app.stored();
  expect((await getShot(id)).document.marks).toEqual([]);
}, 150_000);

test('a search is stopped by Esc and leaves nothing', async () => {
  const id = await orderShot();
  await app.openShot(id);
  await app.keys('f');
  await app.sees('Reading the words on this computer');
  await app.keys(Key.ESCAPE);
  await app.until('gone', async () => !(await app.has('section[aria-label="Private things"]')));
  await app.stored();
  expect((await getShot(id)).document.marks).toEqual([]);
}, 60_000);

test('the words of a region are copied as text; hidden ones are not among them', async () => {
  const id = await orderShot();
  await app.openShot(id);
  const stage = await browser.driver.findElement(By.css('[data-testid="stage"]'));
  const view = (await getShot(id)).document.view.crop;
  const at = (x: number, y: number) => app.stagePoint(view, { x, y });
  await app.keys('j');
  await app.drag(stage, await at(30, 30), await at(600, 70));
  await app.keys('.');
  await app.drag(stage, await at(10, 10), await at(640, 210));
  const field = By.css('textarea[aria-label="Words of the region"]');
  await app.click('Show the words:', 60_000);
  const text = await (await browser.driver.findElement(field)).getAttribute('value');
  expect(text).toContain('Paid with 4242 4242 4242 4242');
  expect(text).toContain('Two packets of sea holly');
  expect(text).not.toContain('fernhollow');
  const pasted = await browser.driver.executeAsyncScript<string>(
    'const done = arguments[0]; navigator.clipboard.readText().then(done, (e) => done(String(e)));',
  );
  expect(pasted).toBe(text);
}, 120_000);
