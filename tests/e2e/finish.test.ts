import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { filterOf, type Adjust } from '@/core/finish/adjust/adjust';
import { adjustPixels } from '@/core/finish/adjust/pixels';
import { markSchema } from '@/core/marks/registry';
import { quartersPng } from '@/tests/lib/pictures';
import { App, decode, getPixels, getShot, pixelAt } from './lib/app';
import { openBrowser, type Browser } from './lib/browser';
import { Marking } from './lib/marking';

let browser: Browser;
let app: App;
let marking: Marking;
let quarters: Buffer;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  marking = new Marking(app);
  quarters = await quartersPng('#C83232', '#32C832', '#3232C8');
}, 120_000);
afterAll(() => browser.close());

const RED = [200, 50, 50, 255];
/** 0.2126 × 200 + 0.7874 × 50, rounded. */
const GREY_RED = [82, 82, 82, 255];

const box = markSchema.parse({
  ...{ id: 'box', kind: 'box', x: 20, y: 20, width: 60, height: 40 },
  ...{ colour: '#0072B2', outline: 0, fill: '#0072B2', fillOpacity: 1 },
});

/** What is seen at a place of the picture. */
async function seen(x: number, y: number): Promise<number[]> {
  const stage = await (await browser.driver.findElement(By.css('[data-testid="stage"]'))).getRect();
  const at = await app.stagePoint({ x: 0, y: 0, width: 600, height: 400 }, { x, y });
  const shown = await decode(Buffer.from(await browser.driver.takeScreenshot(), 'base64'));
  return pixelAt(shown, Math.round(stage.x + at.x), Math.round(stage.y + at.y));
}
const looks = (x: number, y: number, colour: readonly number[]) =>
  app.until(`${colour.join()} at ${x}, ${y}`, async () =>
    (await seen(x, y)).every((value, i) => Math.abs(value - (colour[i] ?? 0)) <= 2),
  );
const slider = (label: string) =>
  browser.driver.findElement(By.css(`[role="slider"][aria-label="${label}"]`));
const finishOf = async (id: string) => (await getShot(id)).document.finish;

let id: string;
beforeEach(async () => {
  id = await marking.open([box], quarters);
  await app.keys(',');
}, 60_000);

test('a slider adjusts the picture, not its marks: seen at once, stored, kept, one step of undo', async () => {
  // Ten steps by one press.
  await (await slider('Brightness')).sendKeys(Key.PAGE_UP);
  await app.stored();
  const { adjust } = (await finishOf(id)) ?? {};
  expect(adjust).toEqual({ on: 'picture', brightness: 110 });
  await looks(100, 100, [220, 55, 55, 255]);
  await looks(50, 40, [0x00, 0x72, 0xb2, 255]);
  const painted = await getPixels(id, 'picture');
  expect(pixelAt(painted, 100, 100)).toEqual([220, 55, 55, 255]);
  expect(pixelAt(painted, 50, 40)).toEqual([0x00, 0x72, 0xb2, 255]);
  await app.openShot(id);
  await looks(100, 100, [220, 55, 55, 255]);
  await app.chord(Key.CONTROL, 'z');
  await looks(100, 100, RED);
  await app.stored();
  expect(await finishOf(id)).toBeUndefined();
}, 60_000);

test('on picture and marks, both are adjusted; as it was brings all back', async () => {
  await app.click('Greyscale');
  await looks(100, 100, GREY_RED);
  await looks(50, 40, [0x00, 0x72, 0xb2, 255]);
  await app.choose(
    await browser.driver.findElement(By.xpath("//label[contains(., 'On')]//select")),
    'picture and marks',
  );
  // 0.7152 × 0x72 + 0.0722 × 0xB2
  await looks(50, 40, [94, 94, 94, 255]);
  await looks(100, 100, GREY_RED);
  await app.stored();
  const painted = await getPixels(id, 'picture');
  expect(pixelAt(painted, 50, 40)).toEqual([94, 94, 94, 255]);
  expect(pixelAt(painted, 100, 100)).toEqual(GREY_RED);
  await app.click('As it was');
  await looks(100, 100, RED);
  await app.stored();
  expect(await finishOf(id)).toBeUndefined();
}, 60_000);

test('Space shows it as it was for as long as it is held, after a control was touched, too', async () => {
  await app.click('Greyscale');
  await looks(100, 100, GREY_RED);
  await browser.driver.actions().keyDown(' ').perform();
  await looks(100, 100, RED);
  await browser.driver.actions().keyUp(' ').perform();
  await looks(100, 100, GREY_RED);
  await app.stored();
  expect(await finishOf(id)).toEqual({ adjust: { on: 'picture', grey: 100 } });
  await app.click('Before');
  await looks(100, 100, RED);
  // Whoever adjusts on wants to see it: all back, then something else.
  await app.click('As it was');
  await app.click('Greyscale');
  await looks(100, 100, GREY_RED);
  await app.click('Before');
  await looks(100, 100, RED);
  // Another tool in hand: what is looked at is what leaves.
  await app.keys('g');
  await looks(100, 100, GREY_RED);
}, 60_000);

test('turned, the picture is adjusted all the same, and back again', async () => {
  await app.click('Greyscale');
  await app.keys('r');
  await app.click('Flip across');
  await looks(500, 100, GREY_RED);
  await app.stored();
  expect(pixelAt(await getPixels(id, 'picture'), 500, 100)).toEqual(GREY_RED);
  await app.chord(Key.CONTROL, 'z');
  await looks(100, 100, GREY_RED);
  await app.chord(Key.CONTROL, 'z');
  await looks(100, 100, RED);
}, 60_000);

test('marks that would not stand out any more get an edge, in the same step', async () => {
  const arrow = markSchema.parse({
    ...{ id: 'arrow', kind: 'arrow', from: { x: 500, y: 380 }, to: { x: 400, y: 260 } },
    ...{ colour: '#000000', thickness: 6, heads: 'end', dashed: false, bend: null },
  });
  id = await marking.open([arrow], quarters);
  await app.keys(',');
  await app.click('Inverted');
  const halo = async () => {
    const [mark] = await marking.marksOf(id);
    return mark?.halo;
  };
  await app.until('an edge', async () => (await halo()) !== undefined);
  await app.chord(Key.CONTROL, 'z');
  await app.until('as before', async () => (await halo()) === undefined);
  expect(await finishOf(id)).toBeUndefined();
}, 60_000);

// Source: Chromium’s own filters, an implementation of W3C, Filter Effects Module Level 1, that has
// nothing of ours.
test('the browser’s filters come to the same colours', async () => {
  const colours = Array.from({ length: 216 }, (_, i) => [
    ...[(i % 6) * 51, (Math.floor(i / 6) % 6) * 51, Math.floor(i / 36) * 51, 255],
  ]);
  const cases: Adjust[] = [
    { on: 'picture', brightness: 140 },
    { on: 'picture', contrast: 60 },
    { on: 'picture', contrast: 180 },
    { on: 'picture', saturation: 40 },
    { on: 'picture', saturation: 220 },
    { on: 'picture', grey: 70 },
    { on: 'picture', inverted: 100 },
    { on: 'picture', brightness: 90, contrast: 130, saturation: 50, grey: 30, inverted: 100 },
  ];
  for (const adjust of cases) {
    const theirs = await browser.driver.executeScript<number[]>(
      `const [colours, filter] = arguments;
       const to = new OffscreenCanvas(216, 1).getContext('2d', { willReadFrequently: true });
       const from = new OffscreenCanvas(216, 1);
       from.getContext('2d').putImageData(
         new ImageData(new Uint8ClampedArray(colours.flat()), 216, 1), 0, 0);
       to.filter = filter;
       to.drawImage(from, 0, 0);
       return [...to.getImageData(0, 0, 216, 1).data];`,
      colours,
      filterOf(adjust),
    );
    const ours = { data: new Uint8ClampedArray(colours.flat()), width: 216, height: 1 };
    adjustPixels(ours, adjust);
    const most = Math.max(...theirs.map((value, i) => Math.abs(value - (ours.data[i] ?? 0))));
    expect({ filter: filterOf(adjust), near: most <= 3 }).toEqual({
      filter: filterOf(adjust),
      near: true,
    });
  }
});

test('for black and white: all in grey, colours that look alike kept apart, in one step', async () => {
  const line = (name: string, y: number, colour: string) =>
    markSchema.parse({
      ...{ id: name, kind: 'line', from: { x: 320, y }, to: { x: 560, y }, bend: null, colour },
      ...{ thickness: 6, heads: 'none', dashed: false },
    });
  id = await marking.open([line('one', 320, '#D55E00'), line('two', 360, '#0072B2')], quarters);
  await app.keys(',');
  await app.click('For black and white');
  await looks(100, 100, GREY_RED);
  const dashes = async () =>
    (await marking.marksOf(id)).map((mark) => 'dashed' in mark && mark.dashed);
  expect(await dashes()).toEqual([false, true]);
  expect(await finishOf(id)).toEqual({ adjust: { on: 'all', grey: 100 } });
  await app.chord(Key.CONTROL, 'z');
  await looks(100, 100, RED);
  expect(await dashes()).toEqual([false, false]);
}, 60_000);
