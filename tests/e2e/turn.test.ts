import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { writeFileSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { markSchema, type Mark } from '@/core/marks/registry';
import { quartersPng } from '@/tests/lib/pictures';
import { App, getPixels, getShot, pixelAt, plainPng } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';
import { Marking } from './lib/marking';

let browser: Browser;
let app: App;
let marking: Marking;
let quarters: Buffer;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  marking = new Marking(app);
  await browser.driver.sendDevToolsCommand('Browser.grantPermissions', {
    permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
    origin: appUrl(),
  });
  quarters = await quartersPng('#FF0000', '#00FF00', '#0000FF');
}, 120_000);
afterAll(() => browser.close());

const RED = [255, 0, 0, 255];
const BLUE = [0, 0, 255, 255];

/** What leaves, from the page and from the server: they must be the same. */
async function leaves(id: string) {
  await app.stored();
  const painted = await getPixels(id, 'picture');
  await app.click('Copy');
  await app.sees('Paste the picture anywhere.');
  // What an earlier copy said may still stand there, so the clipboard itself is looked at.
  await app.until('the same picture on the clipboard', async () => {
    // While it is being written there may be nothing to read.
    const copied = await app.pasted().catch(() => null);
    if (!copied) return false;
    const fits = copied.width === painted.width && copied.height === painted.height;
    return fits && copied.data.equals(painted.data);
  });
  return painted;
}

test('quarter turns and flips take the marks along, survive a reload, and are undone', async () => {
  const box = markSchema.parse({
    id: 'b',
    kind: 'box',
    x: 20,
    y: 30,
    width: 100,
    height: 40,
    colour: '#000000',
    outline: 4,
  });
  const id = await marking.open([box], quarters);
  await app.keys('r');
  await app.click('Turn right');
  const turned = await leaves(id);
  expect([turned.width, turned.height]).toEqual([400, 600]);
  expect(pixelAt(turned, 10, 10)).toEqual(BLUE);
  expect(pixelAt(turned, 390, 10)).toEqual(RED);
  const [mark] = await marking.marksOf(id);
  expect(mark).toMatchObject({ x: 330, y: 20, width: 40, height: 100 });
  await app.click('Flip across');
  expect(pixelAt(await leaves(id), 10, 10)).toEqual(RED);
  await app.openShot(id);
  await app.chord(Key.CONTROL, 'z');
  await app.chord(Key.CONTROL, 'z');
  await app.stored();
  const { document } = await getShot(id);
  expect(document.view).toEqual({ crop: { x: 0, y: 0, width: 600, height: 400 } });
  expect(document.marks).toEqual([box]);
}, 60_000);

test('a line drawn along what should be level levels it', async () => {
  const id = await marking.open([], quarters);
  await app.keys('r');
  await marking.drag(100, 100, 400, 152);
  await app.until('turned', async () => (await getShot(id)).document.view.turn !== undefined);
  expect((await getShot(id)).document.view.turn?.angle).toBeCloseTo(-9.9, 0);
  const painted = await leaves(id);
  // The view has no empty corner.
  for (const [x, y] of [
    [0, 0],
    [painted.width - 1, 0],
    [0, painted.height - 1],
    [painted.width - 1, painted.height - 1],
  ] as const)
    expect(pixelAt(painted, x, y)[3]).toBe(255);
  await app.click('As it was taken');
  await app.stored();
  expect((await getShot(id)).document.view).toEqual({
    crop: { x: 0, y: 0, width: 600, height: 400 },
  });
}, 60_000);

test('four corners are pulled square; Esc leaves all as it was', async () => {
  const id = await marking.open([], quarters);
  await app.keys('r');
  await app.click('Pull four corners square');
  await marking.drag(72, 48, 150, 100);
  await app.keys(Key.ESCAPE);
  await app.stored();
  expect((await getShot(id)).document.view.turn).toBeUndefined();
  await app.click('Pull four corners square');
  await marking.drag(72, 48, 150, 100);
  await app.keys(Key.ENTER);
  await app.until('pulled', async () => (await getShot(id)).document.view.turn !== undefined);
  const { view } = (await getShot(id)).document;
  const [first] = view.turn?.square?.corners ?? [];
  expect(Math.hypot((first?.x ?? 0) - 150, (first?.y ?? 0) - 100)).toBeLessThan(2);
  const painted = await leaves(id);
  expect([painted.width, painted.height]).toEqual([view.crop.width, view.crop.height]);
  expect(pixelAt(painted, 2, 2).slice(0, 3)).toEqual([255, 0, 0]);
}, 60_000);

const oval = (id: string, x: number): Mark =>
  markSchema.parse({
    id,
    kind: 'oval',
    x,
    y: 150,
    width: 60,
    height: 40,
    colour: '#000000',
    outline: 4,
  });

test('several marks are sized and turned together, by handle and by number', async () => {
  const id = await marking.open([oval('a', 200), oval('c', 300)], quarters);
  await app.keys('g');
  await app.chord(Key.CONTROL, 'a');
  // The box around both reaches 3 px beyond the outlines; its lower right corner is pulled out.
  await marking.drag(363, 193, 526, 236);
  const [a, c] = await marking.marksOf(id);
  if (a?.kind !== 'oval' || c?.kind !== 'oval') throw new Error('no ovals');
  expect(a.width).toBeGreaterThan(100);
  expect(a.width).toBeCloseTo(c.width, 3);
  expect(c.x - a.x).toBeGreaterThan(180);
  await app.type('Turn by', '90');
  const [b] = await marking.marksOf(id);
  if (b?.kind !== 'oval') throw new Error('no oval');
  expect(Math.abs(b.width - a.height)).toBeLessThan(0.1);
  await app.type('Left', '50');
  const [d] = await marking.marksOf(id);
  expect(d?.kind === 'oval' && d.x).toBeCloseTo(53, 0);
}, 60_000);

test('one mark is turned by its handle and by number', async () => {
  const id = await marking.open([oval('a', 200)], quarters);
  await app.keys('g');
  await marking.click(230, 151);
  const start = await marking.at(230, 150);
  const stage = await marking.stage();
  const to = await marking.at(300, 170);
  await app.drag(stage, { x: start.x, y: start.y - 24 }, to, 6);
  const [a] = await marking.marksOf(id);
  expect(a?.kind === 'oval' && a.angle).toBeCloseTo(90, 0);
  await app.type('Angle', '30');
  const [b] = await marking.marksOf(id);
  expect(b).toMatchObject({ angle: 30, x: 200, y: 150, width: 60, height: 40 });
}, 60_000);

test('a picture is added, cropped, turned, kept over a reload and taken back', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'rezzik-piece-'));
  const file = join(folder, 'leaf.png');
  writeFileSync(file, quarters);
  const id = await marking.open();
  const input = await browser.driver.findElement(By.css('input[aria-label="Picture to add"]'));
  await input.sendKeys(file);
  await app.until('a piece', async () => (await getShot(id)).document.marks.length === 1);
  const [piece] = await marking.marksOf(id);
  expect(piece).toMatchObject({ kind: 'piece', width: 360, height: 240, x: 120, y: 80 });
  expect(pixelAt(await leaves(id), 130, 90)).toEqual(RED);
  await app.click('Crop this piece');
  await marking.drag(480, 320, 300, 200);
  const [cut] = await marking.marksOf(id);
  if (cut?.kind !== 'piece') throw new Error('no piece');
  expect(cut.cut).toMatchObject({ x: 0, y: 0 });
  expect(Math.abs((cut.cut?.width ?? 0) - 300)).toBeLessThanOrEqual(2);
  expect(pixelAt(await leaves(id), 290, 190)).toEqual(RED);
  expect(pixelAt(await leaves(id), 310, 190)).toEqual([255, 255, 255, 255]);
  await app.type('Angle', '45');
  const turned = await leaves(id);
  expect(pixelAt(turned, 122, 82)).toEqual([255, 255, 255, 255]);
  await app.openShot(id);
  expect(pixelAt(await leaves(id), 210, 140)).toEqual(RED);
  await app.keys('g');
  await marking.click(210, 140);
  await app.keys(Key.DELETE);
  await app.stored();
  expect((await getShot(id)).document.pictures).toBeUndefined();
  await app.chord(Key.CONTROL, 'z');
  expect(pixelAt(await leaves(id), 210, 140)).toEqual(RED);
}, 90_000);

test('a picture on the clipboard is pasted as a piece; rubbish is said and changes nothing', async () => {
  const id = await marking.open();
  const base64 = (await plainPng(40, 30, '#0072B2')).toString('base64');
  const write = (type: string, data: string) =>
    browser.driver.executeAsyncScript(
      `const [type, data, done] = arguments;
      const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
      navigator.clipboard.write([new ClipboardItem({ [type]: new Blob([bytes], { type }) })])
        .then(() => done(null), (e) => done(String(e)));`,
      type,
      data,
    );
  await browser.driver.executeScript('localStorage.removeItem("rezzik-marks")');
  await write('image/png', base64);
  await (await marking.stage()).click();
  await app.keys('g');
  await app.chord(Key.CONTROL, 'v');
  await app.until('pasted', async () => (await getShot(id)).document.marks.length > 0);
  expect(pixelAt(await leaves(id), 300, 200)).toEqual([0, 114, 178, 255]);
  const before = await marking.marksOf(id);
  await write('text/plain', Buffer.from('no picture at all').toString('base64'));
  await browser.driver.executeScript('localStorage.setItem("rezzik-marks", "{]")');
  await app.chord(Key.CONTROL, 'v');
  await app.sees('The clipboard holds neither marks nor a picture.');
  expect(await marking.marksOf(id)).toEqual(before);
}, 60_000);

test('a picture dropped on the shot lies where it was dropped', async () => {
  const id = await marking.open();
  const base64 = (await plainPng(60, 40, '#009E73')).toString('base64');
  const at = await marking.at(150, 100);
  await browser.driver.executeScript(
    `const [data, x, y] = arguments;
    const stage = document.querySelector('[data-testid="stage"]');
    const box = stage.getBoundingClientRect();
    const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
    const dataTransfer = new DataTransfer();
    dataTransfer.items.add(new File([bytes], 'leaf.png', { type: 'image/png' }));
    const place = { clientX: box.left + x, clientY: box.top + y, bubbles: true, cancelable: true, dataTransfer };
    stage.dispatchEvent(new DragEvent('dragover', place));
    stage.dispatchEvent(new DragEvent('drop', place));`,
    base64,
    at.x,
    at.y,
  );
  await app.until('a piece', async () => (await getShot(id)).document.marks.length === 1);
  const [piece] = await marking.marksOf(id);
  expect(piece).toMatchObject({ kind: 'piece', x: 120, y: 80, width: 60, height: 40 });
}, 60_000);

test('a crop edge is drawn to a found part near by', async () => {
  const id = await marking.open([], quarters);
  // The parts are looked for once the picture has come to rest.
  await app.until('parts', () => app.has('[data-parts]:not([data-parts="0"])'));
  await app.keys('k');
  await marking.drag(600, 200, 304, 200);
  await app.keys(Key.ENTER);
  await app.stored();
  expect((await getShot(id)).document.view.crop.width).toBe(300);
}, 60_000);

test('a picked colour stays among the own ones, over a reload', async () => {
  const picture = await plainPng(600, 400, '#3A7D44');
  await marking.open([], picture);
  await app.keys('a', 'i');
  await marking.click(300, 200);
  await app.sees('#3A7D44 copied');
  await marking.open([], picture);
  await app.keys('b');
  await app.named('#3A7D44');
}, 60_000);
