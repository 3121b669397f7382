import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { By, Key, until } from 'selenium-webdriver';
import { looksSchema } from '@/core/contracts/look';
import { firstWay } from '@/core/contracts/way';
import {
  App,
  getPixels,
  getShot,
  pixelAt,
  plainPng,
  read,
  sendShot,
  setWay,
  WAIT,
} from './lib/app';
import { openBrowser, type Browser } from './lib/browser';
import { addRoutine, Hand, promised } from './lib/hand';
import { allowClipboard, newFolder, readClipboard } from './lib/keeping';

let browser: Browser;
let app: App;
let root: string;
let hand: Hand;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  ({ path: root } = await newFolder('Jobs', { format: 'jpeg', isDefault: true }));
  await allowClipboard(browser);
  await addRoutine('f2', { kind: 'full', then: [{ do: 'mark' }] });
  await addRoutine('f4', { kind: 'region', atOnce: true, then: [{ do: 'mark' }] });
  await addRoutine('f6', { kind: 'window', then: [{ do: 'copy' }] });
  const { looks } = looksSchema.parse(await (await read('/api/looks')).json());
  const look = looks.find(({ name }) => name === 'Field note')?.id ?? null;
  await addRoutine('f9', { kind: 'region', atOnce: true, then: [{ do: 'mark' }], look });
}, 60_000);
beforeEach(async () => {
  hand = new Hand(app);
  await setWay({ ...firstWay, kind: 'region' });
  await app.take();
  await app.sees('By f6');
}, 30_000);
afterAll(() => browser.close());

const stage = () => browser.driver.findElement(By.css('[data-testid="stage"]'));
const kept = () => readdirSync(root);

/** Until one file more is there. @returns its path */
async function keptMore(act: () => Promise<void>): Promise<string> {
  const before = new Set(kept());
  await act();
  const fresh = () => kept().filter((name) => !before.has(name) && !name.startsWith('.'));
  await app.until('a kept file', () => Promise.resolve(fresh().length === 1));
  return join(root, fresh()[0] ?? '');
}

const toKeep = async () => {
  await hand.key(Key.CONTROL, Key.ENTER);
  await app.named('Clipboard');
};

const counts = (job: string) => expect([job, hand.actions]).toEqual([job, promised.get(job)]);

test('a clip with its masthead, as JPEG in a folder', async () => {
  await hand.key(Key.F4);
  await hand.drag({ x: 30, y: 30 }, { x: 400, y: 300 });
  await app.marked();
  const file = await keptMore(() => hand.key(Key.CONTROL, Key.SHIFT, Key.ENTER));
  expect((await sharp(file).metadata()).format).toBe('jpeg');
  counts('A clip with its masthead, as JPEG in a folder');
}, 60_000);

test('a map with an arrow and words, by mail', async () => {
  await hand.key(Key.F2);
  const id = await app.marked();
  await hand.key('a');
  await hand.drag({ x: 300, y: 300 }, { x: 420, y: 240 }, await stage());
  await hand.key('t');
  await hand.does(async () => app.clickAt(await stage(), { x: 250, y: 320 }));
  await browser.driver.wait(until.elementLocated(By.css('textarea[aria-label="Text"]')), WAIT);
  await hand.does(() => app.keys('North bank'));
  await toKeep();
  await hand.does(() => app.click('Mail'));
  await hand.key(Key.ENTER);
  await app.sees('The message is saved');
  expect((await getShot(id)).document.marks.map((m) => m.kind)).toEqual(['arrow', 'text']);
  counts('A map with an arrow and words, by mail');
}, 60_000);

test('a map with border, caption and shadow, by mail', async () => {
  await hand.key(Key.F9);
  await hand.drag({ x: 30, y: 30 }, { x: 400, y: 300 });
  const id = await app.marked();
  await app.stored();
  expect(Object.keys((await getShot(id)).document.finish?.surround ?? {}).sort()).toEqual([
    'background',
    'border',
    'caption',
    'shadow',
  ]);
  await toKeep();
  await hand.does(() => app.click('Mail'));
  await hand.key(Key.ENTER);
  await app.sees('The message is saved');
  counts('A map with border, caption and shadow, by mail');
}, 60_000);

test('a masthead brought above its column', async () => {
  const crop = { x: 300, y: 200, width: 300, height: 200 };
  const document = JSON.stringify({ version: 4, view: { crop }, marks: [] });
  const id = await sendShot(await plainPng(600, 400, '#009E73'), 'Column', { document });
  await app.openShot(id);
  await hand.key(',');
  await hand.key(Key.ARROW_LEFT);
  await hand.does(() => app.click('Bring a part here'));
  const map = await browser.driver.findElement(By.css('[data-testid="map"]'));
  const scale = (await map.getRect()).width / 600;
  await hand.drag({ x: 300 * scale, y: 10 * scale }, { x: 590 * scale, y: 60 * scale }, map);
  await app.until('brought', async () => (await getShot(id)).document.marks.length === 1);
  await hand.key(Key.CONTROL, 'c');
  await app.sees('Copied');
  counts('A masthead brought above its column');
}, 60_000);

test('a photo turned and cropped', async () => {
  const png = (await plainPng(300, 200, '#009E73')).toString('base64');
  await hand.does(() =>
    browser.driver.executeScript(
      `const bytes = Uint8Array.from(atob(arguments[0]), (c) => c.charCodeAt(0));
       const data = new DataTransfer();
       data.items.add(new File([bytes], 'leaf.png', { type: 'image/png' }));
       document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));`,
      png,
    ),
  );
  const id = await app.marked();
  await hand.key('r');
  await hand.does(() => app.click('Turn right'));
  await app.stored();
  await hand.key('k');
  const { width, height } = await (await stage()).getRect();
  const [x, y] = [width / 2, height / 2];
  await hand.drag({ x: x - 60, y: y - 80 }, { x: x + 60, y: y + 80 }, await stage());
  await hand.key(Key.ENTER);
  await app.stored();
  const { view } = (await getShot(id)).document;
  expect(view.turn?.quarters).toBe(1);
  expect(Math.abs(view.crop.width - 120)).toBeLessThan(4);
  counts('A photo turned and cropped');
}, 60_000);

test('three numbered steps on a picture', async () => {
  await hand.key(Key.F2);
  const id = await app.marked();
  await hand.key('n');
  for (const x of [200, 320, 440])
    await hand.does(async () => app.clickAt(await stage(), { x, y: 260 }));
  await app.stored();
  const { marks } = (await getShot(id)).document;
  expect(marks.map((m) => m.kind === 'number' && m.value)).toEqual([1, 2, 3]);
  counts('Three numbered steps on a picture');
}, 60_000);

test('an e-mail address hidden, and a link', async () => {
  await hand.key(Key.F2);
  const id = await app.marked();
  await hand.key('j');
  await hand.drag({ x: 300, y: 200 }, { x: 420, y: 240 }, await stage());
  await app.stored();
  await toKeep();
  await hand.does(() => app.click('Link'));
  await hand.key(Key.ENTER);
  await app.sees('The link is copied');
  const address = await readClipboard(browser);
  const answer = await fetch(`${address}.png`);
  expect(answer.headers.get('content-type')).toBe('image/png');
  const mark = (await getShot(id)).document.marks[0];
  if (mark?.kind !== 'cover') throw new Error('no cover');
  const seen = await getPixels(id, 'picture');
  expect(pixelAt(seen, Math.round(mark.x + 5), Math.round(mark.y + 5))).toEqual([0, 0, 0, 255]);
  counts('An e-mail address hidden, and a link');
}, 60_000);

test('exactly 728 × 90 pixels', async () => {
  await hand.key(Key.F2);
  await app.marked();
  await toKeep();
  const size = () => browser.driver.findElement(By.css('select[aria-label="Size"]'));
  await hand.does(async () => app.choose(await size(), 'A web size'));
  const web = By.css('select[aria-label="Web size"]');
  await hand.does(async () => app.choose(await browser.driver.findElement(web), '728'));
  const file = await keptMore(() => hand.key(Key.ENTER));
  const { width, height } = await sharp(file).metadata();
  expect([width, height]).toEqual([728, 90]);
  counts('Exactly 728 × 90 pixels');
}, 60_000);

test('at most 200 KB', async () => {
  await hand.key(Key.F2);
  await app.marked();
  await toKeep();
  await hand.does(() => app.type('At most, KB', '200'));
  const file = await keptMore(() => hand.key(Key.ENTER));
  expect(statSync(file).size).toBeLessThanOrEqual(200_000);
  counts('At most 200 KB');
}, 60_000);

test('a colour read off', async () => {
  await hand.key(Key.ENTER);
  await browser.driver.wait(until.elementLocated(By.css('[data-testid="still"]')), WAIT);
  await hand.key('i');
  await hand.does(async () =>
    app.clickAt(await browser.driver.findElement(By.css('[data-testid="still"]')), {
      x: 100,
      y: 20,
    }),
  );
  await app.sees('Copied: #');
  expect(await readClipboard(browser)).toMatch(/^#[0-9A-F]{6}$/);
  counts('A colour read off');
}, 60_000);

test('a distance read off', async () => {
  await hand.key(Key.ENTER);
  await browser.driver.wait(until.elementLocated(By.css('[data-testid="still"]')), WAIT);
  await hand.key('m');
  await app.sees('Drag from one place');
  await hand.drag({ x: 50, y: 50 }, { x: 250, y: 150 });
  // Letting go copies nothing: what was on the clipboard stays until it is asked for.
  expect(await readClipboard(browser)).toMatch(/^#/);
  await hand.key(Key.CONTROL, 'c');
  await app.sees('Copied: x');
  expect(await readClipboard(browser)).toMatch(/width \d+.*diagonal.*angle.*area/);
  counts('A distance read off');
}, 60_000);

test('the thickness of an arrow drawn before', async () => {
  const arrow = {
    ...{ id: 'a', kind: 'arrow', from: { x: 20, y: 20 }, to: { x: 200, y: 90 } },
    ...{ colour: '#D55E00', thickness: 6, heads: 'end' },
  };
  const view = { crop: { x: 0, y: 0, width: 300, height: 200 } };
  const document = JSON.stringify({ version: 4, view, marks: [arrow] });
  const id = await sendShot(await plainPng(300, 200, '#FFFFFF'), 'Arrow', { document });
  await app.openShot(id);
  await hand.does(async () => (await browser.driver.findElement(By.css('[data-row]'))).click());
  await hand.does(() =>
    browser.driver.executeScript(
      `
      const place = arguments[0].getBoundingClientRect();
      arguments[0].dispatchEvent(new WheelEvent('wheel', {
        bubbles: true, cancelable: true, altKey: true, deltaY: -100,
        clientX: place.left + 200, clientY: place.top + 200,
      }));`,
      stage(),
    ),
  );
  await app.sees('Thickness 7 px');
  await app.stored();
  expect((await getShot(id)).document.marks[0]).toMatchObject({ thickness: 7 });
  counts('The thickness of an arrow drawn before');
}, 60_000);

test('a window by typing its name', async () => {
  await hand.key(Key.F6);
  await browser.driver.wait(until.elementLocated(By.css('[data-testid="still"]')), WAIT);
  await hand.does(() => app.keys('p', 'l', 'a', 'n'));
  await hand.key(Key.ENTER);
  await app.sees('Copied: paste it anywhere');
  expect((await app.pasted()).width).toBe(700);
  counts('A window by typing its name');
}, 60_000);

test('a shot found by its day, renamed with its file', async () => {
  const id = await sendShot(await plainPng(80, 50, '#CC79A7'), 'Hedge');
  await fetch(`${process.env.REZZIK_URL}/api/shots/${id}/copies`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      folderId: (await newFolder('Named')).id,
    }),
  });
  await hand.key(Key.SHIFT, 's');
  await app.sees('Today');
  await hand.does(() => app.click('Hedge'));
  const aside = By.css('aside[aria-label="About this shot"] [aria-label="Name of the shot"]');
  const name = await browser.driver.wait(until.elementLocated(aside), WAIT);
  // A machine that is busy takes a while to store the name.
  await browser.driver.executeScript(`
    const ask = window.fetch.bind(window);
    window.fetch = async (where, how) => {
      if (how?.method && how.method !== 'GET') await new Promise((done) => setTimeout(done, 900));
      return ask(where, how);
    };`);
  await hand.does(() => name.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Long hedge', Key.ENTER));
  await hand.does(() => app.click('Rename the file, too'));
  await app.sees('1 file renamed');
  const named = readdirSync(join(root, '..', 'named'));
  expect(named).toEqual(['Long hedge.png']);
  expect(readFileSync(join(root, '..', 'named', 'Long hedge.png')).length).toBeGreaterThan(50);
  counts('A shot found by its day, renamed with its file');
}, 60_000);
