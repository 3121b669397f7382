import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key, until } from 'selenium-webdriver';
import sharp from 'sharp';
import { readingSchema } from '../core/contracts/search';
import { paintMark } from '../core/paint/paintMark';
import { inflate, outerPixels } from '../core/geometry/rect';
import { kindOf } from '../core/marks/registry';
import { everyMark } from '../tests/lib/marks';
import { onChequer, testTools } from '../tests/lib/painting';
import { XDisplay } from '../tests/lib/xDisplay';
import { App, changeSettings, listShots, setWay, WAIT } from '../tests/e2e/lib/app';
import { appUrl, openBrowser, type Browser } from '../tests/e2e/lib/browser';

// Run by `npm run screenshots` on the demo data: one picture of each main view.

let browser: Browser;
let app: App;
let display: XDisplay;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  display = await XDisplay.join(process.env.REZZIK_DISPLAY ?? '');
  for (const [title, place] of [
    ['Bed list', '70x20+60+80'],
    ['Frost warning', '60x12+700+320'],
    ['Watering log', '70x18+320+420'],
  ] as const) {
    display.start('xterm', '-title', title, '-geometry', place, '-e', 'sleep 600');
    await display.windowId(title);
  }
}, 120_000);
afterAll(async () => {
  await browser.close();
  await display.close();
});

async function picture(name: string): Promise<void> {
  await browser.driver.sleep(900);
  const base64 = await browser.driver.takeScreenshot();
  writeFileSync(join('docs', 'screenshots', `${name}.png`), Buffer.from(base64, 'base64'));
}

const demoShot = async (title: string): Promise<string> => {
  const shot = (await listShots()).shots.find((s) => s.title === title);
  if (!shot) throw new Error(`The demo has no ${title}.`);
  return shot.id;
};

test('a web page by its address', async () => {
  await changeSettings({ pagesAllowed: true });
  await setWay({ source: 'web', kind: 'full' });
  await app.go('/take');
  await app.click('Practice site');
  const address = await app.field('Address');
  await app.until('its address', async () => (await address.getAttribute('value')) !== '');
  await app.atRest();
  await picture('take-web');
  await changeSettings({ pagesAllowed: false });
  await setWay({ source: 'desk' });
}, 60_000);

test('every kind of mark, for reference', async () => {
  const tools = await testTools();
  const size = { width: 640, height: 420 };
  const cell = { width: 160, height: 105 };
  const across = 8;
  const cells = await Promise.all(
    everyMark.map(async (mark, i) => {
      const { surface, scene } = onChequer([mark], size, tools);
      paintMark(surface, mark, tools, scene);
      const { data } = surface.getImageData(0, 0, size.width, size.height);
      const kind = kindOf(mark);
      const box = kind.everywhere
        ? { x: 0, y: 0, ...size }
        : outerPixels(inflate(kind.bounds(mark, tools), 8));
      const from = Math.max(0, box.x);
      const above = Math.max(0, box.y);
      const input = await sharp(Buffer.from(data), { raw: { ...size, channels: 4 } })
        .extract({
          left: from,
          top: above,
          width: Math.min(size.width, box.x + box.width) - from,
          height: Math.min(size.height, box.y + box.height) - above,
        })
        .resize({ ...cell, fit: 'contain', background: '#FAF8F2', withoutEnlargement: true })
        .png()
        .toBuffer();
      const left = (i % across) * (cell.width + 4);
      return { input, left, top: Math.floor(i / across) * (cell.height + 4) };
    }),
  );
  const rows = Math.ceil(cells.length / across);
  const width = across * (cell.width + 4);
  const height = rows * (cell.height + 4);
  await sharp({ create: { width, height, channels: 3, background: '#FAF8F2' } })
    .composite(cells)
    .png({ palette: true })
    .toFile(join('docs', 'screenshots', 'marks.png'));
});

test('the main views', async () => {
  const slip = await demoShot('Seed order – slip before closing');
  await app.take();
  await picture('take');

  await setWay({ kind: 'region' });
  await app.take();
  await app.click('Take a region');
  const still = await browser.driver.wait(
    until.elementLocated(By.css('[data-testid="still"]')),
    WAIT,
  );
  const scale = (await still.getRect()).width / 1440;
  await app.drag(still, { x: 636 * scale, y: 246 * scale }, { x: 1262 * scale, y: 684 * scale });
  await app.pointAt(still, { x: 1262 * scale, y: 684 * scale });
  await picture('take-region');
  await app.keys(Key.ESCAPE);
  await app.sees('Take a region');
  await app.keys('7', Key.ENTER);
  await app.sees('Scroll slowly: what moves is found by itself.');
  await app.keys(Key.SPACE);
  const had = () => browser.driver.findElement(By.css('[aria-label="What is had"]')).getText();
  await app.until(
    'some of it is had',
    async () => Number(/(\d+) pictures/.exec(await had())?.[1]) > 12,
  );
  await app.keys(Key.SPACE);
  await browser.driver.sleep(800);
  await picture('take-long');
  await app.keys(Key.ESCAPE);

  await app.keys('9');
  await app.click('Hold the last 10 s');
  await app.until('it is held', () => app.has('[aria-label="Held"]'));
  const desk = await app.desk();
  for (const y of [420, 500, 330, 560]) {
    await app.pointAt(desk, await app.deskPoint({ x: 300, y }));
    await browser.driver.sleep(700);
  }
  await app.chord(Key.SHIFT, 'b');
  await app.until('the film', () => app.has('canvas[data-moment]'));
  await app.keys(Key.ARROW_LEFT, Key.SPACE, Key.ARROW_LEFT);
  await browser.driver.sleep(1500);
  await picture('take-back');
  await app.keys(Key.ESCAPE);
  await app.click('Hold no longer');

  await app.click('This computer');
  await app.click('Allow reading this computer’s screen');
  await app.sees('Bed list');
  await picture('take-computer');

  await app.go(`/shots/${slip}`);
  await app.stage();
  await (await browser.driver.findElement(By.css('[data-mark="point"]'))).click();
  await picture('mark');
  await app.keys(Key.ESCAPE, ',');
  await app.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await app.click('Field note');
  await app.keys(Key.ARROW_LEFT);
  await browser.driver.sleep(1500);
  await picture('mark-finish');
  await app.chord(Key.CONTROL, 'z');
  await app.stored();

  await app.keys('r');
  await app.named('Turn right');
  const stage = await browser.driver.findElement(By.css('[data-testid="stage"]'));
  await app.drag(stage, { x: 200, y: 200 }, { x: 520, y: 172 });
  await app.named('As it was taken');
  await browser.driver.sleep(1500);
  await picture('mark-turn');
  await app.click('As it was taken');
  await app.stored();

  await app.go(`/shots/${await demoShot('Order confirmation')}`);
  await app.stage();
  await app.keys('f');
  await app.until(
    'findings',
    async () => (await browser.driver.findElements(By.css('input[type=checkbox]'))).length > 0,
    60_000,
  );
  await picture('mark-private');
  await app.keys(Key.ESCAPE);

  await app.go(`/shots/${slip}/keep`);
  await app.named('Download');
  await app.click('JPEG');
  await app.click('Keep in 1 place');
  await app.sees('Kept in ');
  await browser.driver.sleep(6000);
  await picture('keep');

  await app.go('/shelf');
  await app.until('cards', () => app.has('[data-shot]'));
  await app.click('Seed order – slip before closing');
  await picture('shelf');

  await app.until(
    'all words read',
    async () => {
      const answer = await fetch(`${appUrl()}/api/words`);
      return readingSchema.parse(await answer.json()).waiting === 0;
    },
    // Every shot of the demo, one at a time, where nothing else is to be done.
    400_000,
  );
  await app.keys('/', '"not responding" sensor -spring ');
  await app.until(
    'found',
    async () => (await app.has('[data-hits]')) && (await app.has('main h2')),
  );
  const [found] = await browser.driver.findElements(By.css('[data-shot]'));
  await found?.click();
  await picture('shelf-search');

  await app.go(`/compare/${slip}`);
  await app.sees('What differs');
  await app.atRest();
  await picture('compare');

  await app.go('/guides');
  const cards = () => browser.driver.findElements(By.css('main a[href^="/guides/"]'));
  await app.until('the guides', async () => (await cards()).length === 2);
  await (await cards())[1]?.click();
  await app.until('its steps', () => app.has('[data-item="s5"]'));
  await browser.driver.findElement(By.css('[data-item="s5"]')).click();
  await app.atRest();
  await picture('guide');

  await app.go('/series');
  await app.click('Sensors, morning and evening');
  await app.sees('from the one before');
  await app.atRest();
  await picture('series');

  await app.go(`/clips/${await demoShot('A sensor fails')}`);
  await app.sees('Begin here');
  await app.until('its small pictures', () => app.has('[aria-label="Time line"] img'));
  await app.keys(...Array.from({ length: 8 }, () => Key.ARROW_RIGHT), '[');
  await app.keys(Key.END, ...Array.from({ length: 12 }, () => Key.ARROW_LEFT));
  for (let i = 0; i < 6; i += 1) await app.chord(Key.SHIFT, Key.ARROW_LEFT);
  await app.sees('about ');
  await app.atRest();
  await picture('clip');

  await browser.driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
    features: [{ name: 'prefers-color-scheme', value: 'dark' }],
  });
  await app.go(`/shots/${slip}`);
  await app.stage();
  await picture('mark-dark');
  expect(await app.id()).toBe(slip);
}, 400_000);
