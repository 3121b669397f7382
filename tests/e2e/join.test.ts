import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { By, Key, until } from 'selenium-webdriver';
import type { Finish } from '@/core/finish/finish';
import { markSchema, type Mark } from '@/core/marks/registry';
import { quartersPng } from '@/tests/lib/pictures';
import { App, WAIT, getPixels, getShot, pixelAt, plainPng, sendShot } from './lib/app';
import { openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;
let quarters: Buffer;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  quarters = await quartersPng('#C83232', '#32C832', '#3232C8');
}, 120_000);
afterAll(() => browser.close());

const view = { crop: { x: 300, y: 200, width: 300, height: 200 } };
const documentOf = async (id: string) => (await getShot(id)).document;

/** The lower right quarter of four. */
async function openQuarter(marks: readonly Mark[] = [], finish?: Finish): Promise<string> {
  const document = JSON.stringify({ version: 4, view, marks, finish });
  const id = await sendShot(quarters, 'Quarter', { document });
  await app.openShot(id);
  await app.keys(',', Key.ARROW_LEFT);
  await app.click('Bring a part here');
  return id;
}

test('a part drawn on the map comes above the view, which grows; undone in one step', async () => {
  const id = await openQuarter();
  const map = await browser.driver.findElement(By.css('[data-testid="map"]'));
  const { width } = await map.getRect();
  const scale = width / 600;
  const at = (x: number, y: number) => ({ x: x * scale, y: y * scale });
  await app.drag(map, at(300, 20), at(596, 80));
  await app.until('brought', async () => (await documentOf(id)).marks.length === 1);
  await app.stored();
  const { view: now, marks } = await documentOf(id);
  const [mark] = marks;
  if (mark?.kind !== 'piece' || !mark.from || !now.room) throw new Error('no part was brought');
  // The edge of a quarter draws the part to it.
  expect(Math.abs(mark.from.x - 300)).toBeLessThanOrEqual(4);
  expect(now.room.top).toBe(mark.from.height);
  expect(mark.y).toBe(200 - mark.from.height);
  const painted = await getPixels(id, 'picture');
  expect(painted.height).toBe(200 + mark.from.height);
  // Upper right in the frame: the second colour.
  expect(pixelAt(painted, 150, 20)).toEqual(
    pixelAt(await getPixels(id, 'frame'), 300 + 150, 20 + 20),
  );
  await app.chord(Key.CONTROL, 'z');
  await app.stored();
  expect(await documentOf(id)).toMatchObject({ view, marks: [] });
}, 90_000);

const cover = markSchema.parse({
  ...{ id: 'cover', kind: 'cover', x: 310, y: 10, width: 100, height: 20, colour: '#101010' },
});

test('by numbers, too, hidden places hidden; it can be widened, and a note lies in the room', async () => {
  const id = await openQuarter([cover]);
  for (const [label, value] of [
    ['From x', '300'],
    ['From y', '0'],
    ['So wide', '300'],
    ['So high', '40'],
  ] as const) {
    await app.type(label, value, Key.TAB);
  }
  await app.click('Bring it');
  await app.until('brought', async () => (await documentOf(id)).view.room?.top === 40);
  await app.type('Part height', '60');
  await app.until('wider', async () => {
    const mark = (await documentOf(id)).marks.find(({ kind }) => kind === 'piece');
    return mark?.kind === 'piece' && mark.height === 60 && mark.from?.height === 60;
  });
  // Room on the right for a note.
  await app.keys(Key.ESCAPE, ',');
  await app.moreSettings();
  await app.type('Right', '100');
  await app.until('room', async () => (await documentOf(id)).view.room?.right === 100);
  const painted = await getPixels(id, 'picture');
  // What is hidden in the frame is hidden in the part.
  expect(pixelAt(painted, 50, 20)).toEqual([16, 16, 16, 255]);
  expect([painted.width, painted.height]).toEqual([400, 240]);
  expect(pixelAt(painted, 390, 200)).toEqual([255, 255, 255, 255]);
}, 90_000);

test.each(['picture', 'all'] as const)(
  'a part is adjusted once, on %s',
  async (on) => {
    const id = await openQuarter([], { adjust: { on, inverted: 100 } });
    await app.type('From x', '0', Key.TAB);
    await app.type('So wide', '300', Key.TAB);
    await app.click('Bring it');
    await app.until('brought', async () => (await documentOf(id)).marks.length === 1);
    // The first quarter, C83232, inverted.
    expect(pixelAt(await getPixels(id, 'picture'), 100, 20)).toEqual([0x37, 0xcd, 0xcd, 255]);
  },
  90_000,
);

test('shots are joined from the Shelf, and each part leads to its shot', async () => {
  const ids: string[] = [];
  for (const [name, colour] of [
    ['Bed before', '#C80000'],
    ['Bed after', '#0000C8'],
  ] as const) {
    ids.push(await sendShot(await plainPng(120, 90, colour), name, {}));
  }
  await app.go('/shelf');
  for (const name of ['Bed before', 'Bed after']) {
    const box = By.xpath(`//label[contains(., "Choose ${name} among several")]//input`);
    const found = await browser.driver.wait(until.elementLocated(box), WAIT);
    await browser.driver.executeScript('arguments[0].click()', found);
  }
  await app.click('Join');
  await app.click('Before | after');
  await app.click('Join them');
  await app.sees('Bed before + Bed after');
  const id = await app.id();
  const { marks, view: whole } = await documentOf(id);
  expect(marks.map(({ kind }) => kind)).toEqual(['piece', 'piece', 'text', 'text']);
  expect(whole.crop).toEqual({ x: 0, y: 0, width: 16 * 3 + 240, height: 16 * 2 + 40 + 90 });
  await app.keys('g');
  await browser.driver.findElement(By.css('[data-mark]')).click();
  await app.click('Open its shot');
  await app.until('the first shot', async () => (await app.id()) === ids[0]);
}, 90_000);

test('an empty sheet is a source: of a size, in Mark, ready to be marked', async () => {
  await app.take();
  await app.click('Empty sheet');
  await app.type('Width, px', '0', Key.TAB);
  await app.type('Width, px', '320', Key.TAB);
  await app.type('Height, px', '200', Key.TAB);
  await app.click('Begin on it');
  const id = await app.marked();
  await app.stored();
  const shot = await getShot(id);
  expect(shot).toMatchObject({ width: 320, height: 200, provenance: { source: 'sheet' } });
  expect(pixelAt(await getPixels(id, 'picture'), 10, 10)).toEqual([255, 255, 255, 255]);
}, 90_000);
