import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { By, Key, until } from 'selenium-webdriver';
import sharp from 'sharp';
import { clipSchema } from '@/core/contracts/clip';
import { firstWay } from '@/core/contracts/way';
import { App, read, setWay, WAIT } from '../e2e/lib/app';
import { openBrowser, type Browser } from '../e2e/lib/browser';
import { XDisplay } from '../lib/xDisplay';

const SCREEN = { width: 1600, height: 900 };
const FIRST = '#c0c0c0';
const THEN = '#404040';
let display: XDisplay;
let browser: Browser;
let app: App;

/** A client right of the browser, away from its own notice that the screen is shared. */
const plain = (title: string, colour: string, top: number) =>
  display.start(
    ...['xlogo', '-title', title, '-geometry', `300x240+1040+${top}`],
    ...['-bg', colour, '-fg', colour],
  );

beforeAll(async () => {
  display = await XDisplay.open(SCREEN.width, SCREEN.height);
  plain('first', FIRST, 60);
  browser = await openBrowser({
    ...{ display: display.name, width: 1020, height: 800 },
    args: [
      '--window-position=0,0',
      '--auto-select-desktop-capture-source=Entire screen',
      '--enable-usermedia-screen-capturing',
    ],
  });
  app = new App(browser.driver);
}, 120_000);

afterAll(async () => {
  await browser?.close();
  await display?.close();
});

/** The mean grey of a client's middle at a moment of a clip. */
async function greyAt(id: string, at: number, client: string): Promise<number> {
  const place = await display.window(client);
  if (!place) throw new Error(`${client} is not there.`);
  const middle = { left: place.x + 100, top: place.y + 80, width: 100, height: 80 };
  const png = await (await read(`/api/clips/${id}/frames?at=${at}`)).arrayBuffer();
  const part = await sharp(Buffer.from(png)).extract(middle).raw().toBuffer();
  return part.reduce((sum, value) => sum + value, 0) / part.length;
}

test('a shared screen is recorded: what stood there first and what came then, in their time', async () => {
  await display.windowId('first');
  await setWay({ ...firstWay, source: 'screen', kind: 'clip' });
  await app.go('/take');
  await app.click('Share a screen');
  await browser.driver.wait(until.elementLocated(By.css('video')), WAIT);
  await app.sees('1600');
  await app.click('Record');
  const stands = By.css('section[aria-label="Recording"] [role="status"]');
  const onDisk = async (): Promise<number> => {
    const [one] = await browser.driver.findElements(stands);
    const [, size = '0', unit] = /([\d.,]+) (KB|MB) on/.exec((await one?.getText()) ?? '') ?? [];
    return Number(size.replace(',', '')) * (unit === 'MB' ? 1_000 : 1);
  };
  await app.until('something is on the disk', async () => (await onDisk()) > 0);
  plain('then', THEN, 440);
  await display.windowId('then');
  const before = await onDisk();
  await app.until('more is on the disk', async () => (await onDisk()) > before);
  await app.keys(Key.ENTER);
  await app.sees('Begin here');
  const id = (await browser.driver.getCurrentUrl()).slice(-36);
  const clip = clipSchema.parse(await (await read(`/api/clips/${id}`)).json());
  expect(clip).toMatchObject({ ...SCREEN, provenance: { source: 'screen', display: 'Screen' } });
  // Greys of video are off by little.
  const last = clip.times.at(-1) ?? 0;
  const near = async (at: number, client: string, grey: number) =>
    Math.abs((await greyAt(id, at, client)) - grey) < 4;
  expect(await near(0, 'first', 0xc0)).toBe(true);
  expect(await near(last, 'first', 0xc0)).toBe(true);
  expect(await near(0, 'then', 0x40)).toBe(false);
  expect(await near(last, 'then', 0x40)).toBe(true);
}, 120_000);
