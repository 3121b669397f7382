import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { By, Key, until, type WebElement } from 'selenium-webdriver';
import { deskDisplays } from '@/core/desk/model';
import { App, getPixels, getShot, listShots, pixelAt, plainPng, WAIT } from './lib/app';
import { cutOut } from '../lib/pictures';
import { openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;
const files = mkdtempSync(join(tmpdir(), 'rezzik-pictures-'));

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
}, 120_000);
afterAll(() => browser.close());

const still = (): Promise<WebElement> =>
  browser.driver.wait(until.elementLocated(By.css('[data-testid="still"]')), WAIT);

/** Opens Take with a kind and a delay set. */
async function ready(kind: 'Full screen' | 'Region', delay: number): Promise<WebElement> {
  const desk = await app.take();
  await app.click(kind);
  await app.click(`${delay} s`);
  return desk;
}

describe('full screen', () => {
  test('both displays: in their places, empty corners transparent', async () => {
    await ready('Full screen', 0);
    await app.click('Both displays');
    await app.click('Take the screen');
    const id = await app.marked();
    await app.stored();
    const frame = await getPixels(id, 'frame');
    expect([frame.width, frame.height]).toEqual([3040, 1200]);
    expect(pixelAt(frame, 0, 0)).toEqual([0, 0, 0, 0]);
    expect(pixelAt(frame, 0, 1199)).toEqual([0, 0, 0, 0]);
    const [left, right] = deskDisplays;
    expect(pixelAt(frame, left.bounds.x, left.bounds.y)[3]).toBe(255);
    expect(pixelAt(frame, right.bounds.x, right.bounds.y)[3]).toBe(255);
  }, 60_000);

  test('the answer shows the picture, opens Mark by a click, and goes by itself', async () => {
    await ready('Full screen', 0);
    await app.keys(Key.ENTER);
    const id = await app.marked();
    await app.until('the thumbnail', () => app.has('[data-notice] img'));
    await app.chord(Key.SHIFT, 'n');
    await app.desk();
    await (await browser.driver.findElement(By.css('[data-notice] a'))).click();
    expect(await app.marked()).toBe(id);
    // noticeStore.test.ts holds how long it stays; here the page's clock is put on.
    await browser.driver.executeScript(
      'const real = Date.now.bind(Date); Date.now = () => real() + 60_000;',
    );
    await app.until('it goes by itself', async () => !(await app.has('[data-notice] img')));
  }, 60_000);

  test('one key throws it away and takes again', async () => {
    await ready('Full screen', 0);
    const before = (await listShots()).total;
    await app.keys(Key.ENTER);
    const first = await app.marked();
    await app.stored();
    await app.chord(Key.SHIFT, 'T');
    await app.until(
      'another shot',
      async () => /shots/.test(await browser.driver.getCurrentUrl()) && (await app.id()) !== first,
    );
    await app.marked();
    await app.stored();
    // The new one may be there before the old one is put away.
    await app.until('in the bin', async () => (await getShot(first)).binnedAt !== null);
    expect((await listShots()).total).toBe(before + 1);
  }, 60_000);
});

describe('what goes away when one reaches for it', () => {
  const rowButton = { x: 48 + 700 - 60, y: 226 + 122 + 3 * 26 + 13 };
  const menuPaper = { x: 48 + 425, y: 226 + 92 };
  const green = [0x2f, 0x6b, 0x45, 255];
  const inFrame = (p: { x: number; y: number }) => [p.x, p.y - 180] as const;

  test('a row’s button shows with a delay, and not without', async () => {
    const desk = await ready('Full screen', 0);
    const place = await app.deskPoint({ x: 300, y: rowButton.y });
    await app.pointAt(desk, place);
    await app.click('Take the screen');
    const without = await app.marked();
    await app.stored();
    // Long enough for a hand that is slow.
    const again = await ready('Full screen', 3);
    await app.click('Take the screen');
    await app.pointAt(again, place);
    const withIt = await app.marked();
    await app.stored();
    expect(
      pixelAt(await getPixels(without, 'frame'), ...inFrame({ x: 48 + 700 - 92, y: rowButton.y })),
    ).not.toEqual(green);
    expect(
      pixelAt(await getPixels(withIt, 'frame'), ...inFrame({ x: 48 + 700 - 92, y: rowButton.y })),
    ).toEqual(green);
  }, 60_000);

  test('a menu whose entries change while Alt is held', async () => {
    const take = async (alt: boolean): Promise<string> => {
      const desk = await ready('Full screen', 2);
      await app.click('Take the screen');
      await app.clickAt(desk, await app.onDesk('menu:Beds'));
      if (alt) await browser.driver.actions().keyDown(Key.ALT).perform();
      const id = await app.marked();
      if (alt) await browser.driver.actions().keyUp(Key.ALT).perform();
      await app.stored();
      return id;
    };
    const plain = await getPixels(await take(false), 'frame');
    const held = await getPixels(await take(true), 'frame');
    const [left, top] = inFrame(menuPaper);
    expect(pixelAt(plain, left, top)).toEqual([255, 255, 255, 255]);
    // Only the menu itself: a reading elsewhere changes every second.
    const menu = { left: left - 175, top: top - 15, width: 190, height: 60 };
    const [a, b] = await Promise.all([cutOut(plain, menu), cutOut(held, menu)]);
    expect(Buffer.compare(a, b)).not.toBe(0);
    expect(Buffer.compare(a, await cutOut(await getPixels(await take(false), 'frame'), menu))).toBe(
      0,
    );
  }, 60_000);

  test('without a delay the menu is closed before the picture is taken', async () => {
    const desk = await ready('Full screen', 0);
    await app.clickAt(desk, await app.onDesk('menu:Beds'));
    await app.click('Take the screen');
    const id = await app.marked();
    await app.stored();
    expect(
      pixelAt(await getPixels(id, 'frame'), ...inFrame({ x: 48 + 244, y: 226 + 76 })),
    ).not.toEqual([255, 255, 255, 255]);
  }, 60_000);
});

describe('region', () => {
  beforeEach(async () => {
    await ready('Region', 0);
  });

  test('by keys alone: arrow keys, Shift, Alt, Enter', async () => {
    await app.keys(Key.ENTER);
    await still();
    await app.keys(Key.ARROW_RIGHT);
    await app.sees('720 × 450');
    await app.chord(Key.SHIFT, Key.ARROW_RIGHT);
    await app.keys(Key.ARROW_DOWN);
    await app.chord(Key.ALT, Key.ARROW_LEFT);
    await app.keys(Key.ENTER);
    const id = await app.marked();
    await app.stored();
    expect((await getShot(id)).document.view.crop).toEqual({
      x: 370,
      y: 226,
      width: 719,
      height: 450,
    });
  }, 60_000);

  test('by drag, then pulled by a side, moved and redrawn; the whole frame is kept', async () => {
    await app.click('Take a region');
    const picture = await still();
    const scale = (await picture.getRect()).width / 1440;
    const on = (x: number, y: number) => ({ x: x * scale, y: y * scale });
    await app.drag(picture, on(200, 200), on(500, 400));
    await app.drag(picture, on(500, 300), on(700, 300));
    await app.drag(picture, on(400, 300), on(450, 350));
    const width = Number(await (await app.field('Width')).getAttribute('value'));
    const left = Number(await (await app.field('Left')).getAttribute('value'));
    expect(Math.abs(width - 500)).toBeLessThan(6);
    expect(Math.abs(left - 250)).toBeLessThan(6);
    await app.drag(picture, on(900, 700), on(1000, 800));
    await app.keys(Key.ENTER);
    const id = await app.marked();
    await app.stored();
    const shot = await getShot(id);
    expect([shot.width, shot.height]).toEqual([1440, 900]);
    expect(Math.abs(shot.document.view.crop.x - 900)).toBeLessThan(4);
    expect(Math.abs(shot.document.view.crop.width - 100)).toBeLessThan(5);
  }, 60_000);

  test('the pixel view follows the pointer', async () => {
    await app.keys(Key.ENTER);
    const picture = await still();
    const scale = (await picture.getRect()).width / 1440;
    await app.pointAt(picture, { x: 720 * scale, y: 450 * scale });
    await app.until('the place', async () => /7(1[89]|2[012]), 4/.test(await picture.getText()));
  }, 60_000);

  test('Esc leaves nothing behind, while choosing and while counting', async () => {
    const before = (await listShots()).total;
    await app.keys(Key.ENTER);
    await still();
    await app.keys(Key.ARROW_RIGHT, Key.ESCAPE);
    await app.desk();
    await app.click('2 s');
    const due = Date.now() + 2000;
    await app.keys(Key.ENTER);
    await browser.driver.wait(until.elementLocated(By.css('[role="timer"]')), WAIT);
    await app.keys(Key.ESCAPE);
    expect(await app.has('[role="timer"]')).toBe(false);
    await app.until('the moment has passed', () => Promise.resolve(Date.now() > due + 300));
    expect(await app.has('[data-testid="still"]')).toBe(false);
    expect((await listShots()).total).toBe(before);
    const held = await browser.driver.executeAsyncScript<number>(`
      const done = arguments[0];
      const open = indexedDB.open('rezzik');
      open.onsuccess = () => {
        const ask = open.result.transaction('outbox').objectStore('outbox').count();
        ask.onsuccess = () => done(ask.result);
      };`);
    expect(held).toBe(0);
  }, 60_000);
});

test('the countdown can be hidden, and an own delay typed', async () => {
  await app.go('/setup/taking');
  await app.click('Countdown');
  await ready('Full screen', 0);
  await app.click('Own delay');
  await app.type('Seconds, up to 60', '1.5');
  const start = Date.now();
  await app.click('Take the screen');
  expect(await app.has('[role="timer"]')).toBe(false);
  await app.marked();
  expect(Date.now() - start).toBeGreaterThan(1400);
  await app.go('/setup/taking');
  await app.click('Countdown');
}, 60_000);

describe('pictures brought in', () => {
  const open = async (...paths: string[]) => {
    await app.take();
    const input = await browser.driver.findElement(By.css('input[type="file"]'));
    await input.sendKeys(paths.join('\n'));
  };
  const make = async (name: string, bytes: Promise<Buffer> | Buffer): Promise<string> => {
    const path = join(files, name);
    writeFileSync(path, await bytes);
    return path;
  };

  test('one opens in Mark, upright, under its own name', async () => {
    const jpeg = sharp(await plainPng(80, 50, '#0072B2'))
      .jpeg()
      .withMetadata({ orientation: 6 });
    await open(await make('North bank, März.jpg', jpeg.toBuffer()));
    const id = await app.marked();
    const shot = await getShot(id);
    expect(shot).toMatchObject({
      title: 'North bank, März',
      width: 50,
      height: 80,
      provenance: { source: 'opened' },
    });
  }, 60_000);

  test('several at once, of every kind, land on the Shelf', async () => {
    const base = sharp(await plainPng(40, 30, '#009E73'));
    const paths = await Promise.all([
      make('a.png', base.clone().png().toBuffer()),
      make('b.webp', base.clone().webp().toBuffer()),
      make('c.gif', base.clone().gif().toBuffer()),
      make('d.tiff', base.clone().tiff().toBuffer()),
      make('e.avif', base.clone().avif().toBuffer()),
      make('f.jpg', base.clone().jpeg().toBuffer()),
    ]);
    await open(...paths);
    await app.until('all six', async () => {
      const titles = (await listShots()).shots.map((s) => s.title);
      return ['a', 'b', 'c', 'd', 'e', 'f'].every((t) => titles.includes(t));
    });
    expect(await browser.driver.getCurrentUrl()).toContain('/take');
  }, 60_000);

  test('a large one: 96 megapixels', async () => {
    await open(await make('large.png', plainPng(12_000, 8000, '#E69F00')));
    const id = await app.marked();
    expect(await getShot(id)).toMatchObject({ width: 12_000, height: 8000 });
  }, 90_000);

  test('what is no picture is refused in plain words and can be dropped', async () => {
    const before = (await listShots()).total;
    await open(await make('notes.png', Buffer.from('these are only words')));
    await app.sees('was not taken');
    await app.sees('This is not a picture that Rezzik can read');
    await app.click('Drop notes');
    await app.until('gone', async () => !(await app.has('[aria-label="Drop notes"]')));
    expect((await listShots()).total).toBe(before);
  }, 60_000);

  test('a picture is pasted and another dropped', async () => {
    await app.take();
    const png = (await plainPng(33, 22, '#CC79A7')).toString('base64');
    const bring = (kind: string) =>
      browser.driver.executeScript(
        `const bytes = Uint8Array.from(atob(arguments[0]), (c) => c.charCodeAt(0));
         const data = new DataTransfer();
         data.items.add(new File([bytes], arguments[1] === 'paste' ? 'image.png' : 'bed.png', { type: 'image/png' }));
         document.body.dispatchEvent(arguments[1] === 'paste'
           ? new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })
           : new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));`,
        png,
        kind,
      );
    await bring('paste');
    expect(await getShot(await app.marked())).toMatchObject({
      title: 'Pasted picture',
      width: 33,
      provenance: { source: 'pasted' },
    });
    await app.take();
    await bring('drop');
    expect(await getShot(await app.marked())).toMatchObject({
      title: 'bed',
      provenance: { source: 'dropped' },
    });
  }, 60_000);
});
