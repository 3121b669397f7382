import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { parts } from '@/core/finish/surround/surround';
import { markSchema } from '@/core/marks/registry';
import { quartersPng } from '@/tests/lib/pictures';
import { App, getPixels, getShot, pixelAt, sendShot } from './lib/app';
import { openBrowser, type Browser } from './lib/browser';
import { allowClipboard } from './lib/keeping';
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

const box = markSchema.parse({
  ...{ id: 'box', kind: 'box', x: 20, y: 20, width: 60, height: 40 },
  ...{ colour: '#0072B2', outline: 0, fill: '#0072B2', fillOpacity: 1 },
});
const GREEN = [0x1d, 0x4a, 0x3f, 255];
const RED = [200, 50, 50, 255];

const around = async (id: string) => (await getShot(id)).document.finish?.surround;
/** As large it is seen as it leaves. */
const said = (size: string) =>
  app.until(`${size} as it leaves`, () => app.has(`[data-testid="whole"][aria-label*="${size}"]`));
const part = async (name: string) =>
  app.choose(
    await browser.driver.findElement(By.xpath("//label[contains(., 'Part')]//select")),
    name,
  );

let id: string;
beforeEach(async () => {
  id = await marking.open([box], quarters);
  // What it was set to last would be the beginning.
  await browser.driver.executeScript("localStorage.removeItem('rezzik-surround')");
  await app.keys(',', Key.ARROW_RIGHT);
}, 60_000);

test('a border, by keys and clicks: seen as it leaves, stored, kept, undone; marks stay in place', async () => {
  await app.click('Add border');
  await said('616 × 416');
  await app.stored();
  expect(await around(id)).toEqual({ border: parts.border.first });
  const painted = await getPixels(id, 'picture');
  expect([painted.width, painted.height]).toEqual([616, 416]);
  expect(pixelAt(painted, 3, 200)).toEqual(GREEN);
  expect(pixelAt(painted, 8 + 100, 8 + 100)).toEqual(RED);
  expect(pixelAt(painted, 8 + 50, 8 + 40)).toEqual([0x00, 0x72, 0xb2, 255]);
  // A slider: ten steps by one press, one step of undo.
  await (
    await browser.driver.findElement(By.css('[role="slider"][aria-label="Width"]'))
  ).sendKeys(Key.PAGE_UP);
  await said('636 × 436');
  await app.stored();
  await app.openShot(id);
  await (await app.sees('Leaves with border')).click();
  await said('636 × 436');
  await app.chord(Key.CONTROL, 'z');
  await said('616 × 416');
  await app.chord(Key.CONTROL, 'z');
  await app.sees('Add border');
  await app.stored();
  expect(await around(id)).toBeUndefined();
}, 90_000);

test('a caption is typed and filled in; what tells where it is from stays here', async () => {
  await part('Caption');
  await app.click('Add caption');
  const words = await browser.driver.findElement(
    By.xpath("//label[contains(., 'Words')]//textarea"),
  );
  await words.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Bed 4 · {time:yyyy} · {where}', Key.ENTER);
  await app.stored();
  const stored = await around(id);
  expect(stored?.caption?.text).toBe('Bed 4 · {time:yyyy} · {where}');
  const { height } = await getPixels(id, 'picture');
  expect(height).toBeGreaterThan(430);
  // Once and for all: then they are a person's own words.
  await app.click('As words');
  await app.stored();
  expect((await around(id))?.caption?.text).toMatch(/^Bed 4 · 20\d\d/);
  expect((await around(id))?.caption?.text).not.toContain('{');
}, 90_000);

test('it is seen without for as long as Space is held; all of it comes off by keys', async () => {
  await app.click('Add border');
  await said('616 × 416');
  await browser.driver.actions().keyDown(' ').perform();
  await app.until('bare', async () => !(await app.has('[data-testid="whole"]')));
  await browser.driver.actions().keyUp(' ').perform();
  await said('616 × 416');
  await app.moreSettings();
  await app.click('Without border');
  await app.stored();
  expect(await around(id)).toBeUndefined();
  await app.keys(Key.ESCAPE, Key.ESCAPE);
  await app.sees('Click a mark to select it, drag');
}, 90_000);

test('what a caption would tell of where it is from is said before it leaves', async () => {
  const told = await sendShot(quarters, 'Beds', {
    document: JSON.stringify({
      version: 4,
      view: { crop: Marking.view },
      marks: [],
      finish: {
        surround: { caption: { ...parts.caption.first, text: 'Beds · {where}' } },
      },
    }),
    provenance: JSON.stringify({
      ...{ source: 'display', takenAt: '2026-11-23T14:02:11Z', windowTitle: 'Watering plan' },
    }),
  });
  await app.openShot(told);
  await allowClipboard(browser);
  await app.chord(Key.CONTROL, 'c');
  await app.sees('Its caption leaves out where it is from.');
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('Its caption leaves out where it is from. A folder’s rule');
}, 90_000);

test('a caption of two lines stays two when one of them is changed', async () => {
  await part('Caption');
  await app.click('Add caption');
  const field = By.xpath("//label[contains(., 'Words')]//textarea");
  const words = await browser.driver.findElement(field);
  const newLine = Key.chord(Key.SHIFT, Key.ENTER);
  await words.sendKeys(Key.chord(Key.CONTROL, 'a'), '{title}', newLine, '{n}', Key.ENTER);
  await app.stored();
  expect((await around(id))?.caption?.text).toBe('{title}\n{n}');
  await (await browser.driver.findElement(field)).sendKeys(Key.END, ' of 4', Key.ENTER);
  await app.stored();
  expect((await around(id))?.caption?.text).toMatch(/^\{title\}( of 4)?\n\{n\}( of 4)?$/);
  expect((await around(id))?.caption?.text).toContain(' of 4');
}, 90_000);

test('arrows choose in Finish, but move a mark that is selected', async () => {
  await (await browser.driver.findElement(By.css('[data-mark="box"]'))).click();
  await app.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await app.until('moved', async () =>
    (await marking.marksOf(id)).some((m) => 'x' in m && m.x === 22),
  );
  await app.keys(Key.ESCAPE);
  await app.keys(Key.ARROW_RIGHT);
  await app.until('Look', () => app.has('[aria-label="Looks"]'));
}, 60_000);
