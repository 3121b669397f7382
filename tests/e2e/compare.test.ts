import { afterAll, beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { By, Key } from 'selenium-webdriver';
import { comparisonSchema } from '@/core/contracts/compare';
import { markSchema } from '@/core/marks/registry';
import { randomFrom } from '@/core/random/random';
import { App, decode, pixelAt, read, sendShot } from './lib/app';
import { openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
}, 120_000);
afterAll(() => browser.close());

const SIZE = { width: 400, height: 300 };

/** Something like a page of words, scrolled by so much, with a spot of a colour where wanted. */
async function page(scrolled: number, spot?: { x: number; y: number }): Promise<Buffer> {
  const data = Buffer.alloc(SIZE.width * SIZE.height * 3, 255);
  for (let y = 0; y < SIZE.height; y += 1) {
    const line = Math.floor((y + scrolled) / 12);
    if ((y + scrolled) % 12 > 7) continue;
    const next = randomFrom(line);
    for (let x = 10; x < SIZE.width - 10; x += 3 + Math.floor(next() * 6)) {
      data.fill(Math.floor(next() * 120), (y * SIZE.width + x) * 3, (y * SIZE.width + x + 2) * 3);
    }
  }
  if (spot) {
    for (let y = spot.y; y < spot.y + 20; y += 1) {
      for (let x = spot.x; x < spot.x + 30; x += 1) data.set([200, 0, 0], (y * SIZE.width + x) * 3);
    }
  }
  return sharp(data, { raw: { ...SIZE, channels: 3 } })
    .png()
    .toBuffer();
}

const compared = async (one: string, other: string, of = 'marked') =>
  comparisonSchema.parse(await (await read(`/api/shots/${one}/compare/${other}?of=${of}`)).json());
const counted = () => browser.driver.findElement(By.css('[data-testid="counted"]')).getText();
const handle = () => browser.driver.findElement(By.css('[role="slider"]'));

test('two chosen on the Shelf are laid on each other by what was scrolled, what differs is listed', async () => {
  const one = await sendShot(await page(0), 'Compared one');
  const other = await sendShot(await page(60, { x: 200, y: 100 }), 'Compared two');
  expect(await compared(one, other)).toMatchObject({ shift: { x: 0, y: 60 } });
  await app.go('/shelf?q=Compared');
  await app.until('its cards', async () => {
    return (await browser.driver.findElements(By.css('[data-shot]'))).length === 2;
  });
  for (const card of await browser.driver.findElements(By.css('[data-shot]'))) {
    await browser.driver.actions().keyDown(Key.CONTROL).click(card).keyUp(Key.CONTROL).perform();
  }
  await app.click('Compare');
  await app.sees('the second 60 px down');
  const [place] = await browser.driver.findElements(By.css('aside ol button'));
  expect(await place?.getText()).toBe('1. 30 × 20 at 200, 160');
  await place?.click();
  expect(await place?.getAttribute('aria-pressed')).toBe('true');
  expect(await counted()).toMatch(/^\d+ pixels, 0\.\d %\.$|^\d+ pixels, less than 0.1 %\.$/);
  for (const key of ['2', '3', '4', '1']) {
    await app.keys(key);
    await app.until(`way ${key}`, async () => {
      const chosen = await browser.driver.findElement(
        By.css('[role="radio"][aria-checked="true"]'),
      );
      return (await chosen.getText()).endsWith(key);
    });
  }
  await app.keys(Key.ESCAPE);
  await app.until('the Shelf', async () =>
    (await browser.driver.getCurrentUrl()).includes('/shelf'),
  );
}, 90_000);

test('a shot beside its untouched frame: the handle goes by keys and by a drag, and shows both', async () => {
  const cover = markSchema.parse({
    ...{ id: 'c', kind: 'cover', x: 0, y: 0, width: 400, height: 300, colour: '#006400' },
  });
  const view = { crop: { x: 0, y: 0, ...SIZE } };
  const document = JSON.stringify({ version: 4, view, marks: [cover] });
  const id = await sendShot(
    await sharp({ create: { ...SIZE, channels: 3, background: '#C80000' } })
      .png()
      .toBuffer(),
    'Covered',
    { document },
  );
  await app.go('/shelf?q=Covered');
  await app.click('Covered');
  await app.click('Compare with the untouched picture');
  await app.sees('What differs');
  expect(await counted()).toBe('120,000 pixels, 100.0 %.');
  await app.click('Outline what differs');
  await app.atRest();
  const seen = async (share: number) => {
    const box = await browser.driver.findElement(By.css('main figure > div')).getRect();
    const shown = await decode(Buffer.from(await browser.driver.takeScreenshot(), 'base64'));
    const at = pixelAt(shown, Math.round(box.x + box.width * share), Math.round(box.y + 20));
    return (at[0] ?? 0) > 150 ? 'untouched' : 'marked';
  };
  const looks = (share: number, what: string) =>
    app.until(`${what} at ${share}`, async () => (await seen(share)) === what);
  await looks(0.4, 'untouched');
  await looks(0.6, 'marked');
  await (await handle()).sendKeys(Key.END);
  await looks(0.6, 'untouched');
  await (await handle()).sendKeys(Key.HOME, Key.PAGE_UP, Key.ARROW_RIGHT);
  expect(await (await handle()).getAttribute('aria-valuenow')).toBe('11');
  await looks(0.4, 'marked');
  const box = await browser.driver.findElement(By.css('main figure > div'));
  await app.drag(box, { x: 45, y: 200 }, { x: 320, y: 200 });
  await looks(0.7, 'untouched');
  await looks(0.9, 'marked');
  expect((await compared(id, id)).pixels).toBe(120_000);
  expect((await compared(id, id, 'untouched')).pixels).toBe(120_000);
}, 90_000);

test('what nobody can compare is said in words', async () => {
  const one = await sendShot(await page(0), 'Alone');
  await app.go(`/compare/${one},00000000-0000-4000-8000-000000000000`);
  await app.sees('There is no such shot.');
  expect((await read(`/api/shots/${one}/compare/x`)).status).toBe(404);
  expect((await read(`/api/shots/${one}/compare/${one}?of=other`)).status).toBe(400);
}, 60_000);
