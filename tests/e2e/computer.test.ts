import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { By, Key, until } from 'selenium-webdriver';
import { firstWay } from '@/core/contracts/way';
import { clipSchema } from '@/core/contracts/clip';
import { displayAnswerSchema } from '@/core/contracts/display';
import { cutOut } from '../lib/pictures';
import { startRows } from '../lib/rows';
import { bottom, type Rect } from '@/core/geometry/rect';
import { XDisplay } from '../lib/xDisplay';
import {
  App,
  changeSettings,
  getPixels,
  getShot,
  read,
  setWay,
  WAIT,
  type Pixels,
} from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;
let display: XDisplay;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  display = await XDisplay.join(process.env.REZZIK_DISPLAY ?? '');
  const place = ['-geometry', '60x20+40+60'];
  display.start('xterm', '-title', 'Bed list', ...place, '-e', 'sleep 600');
  await display.windowId('Bed list');
  const over = ['-bg', '#204030', '-geometry', '60x20+200+160'];
  display.start('xterm', '-title', 'Frost warning', ...over, '-e', 'sleep 600');
  await display.windowId('Frost warning');
}, 60_000);

afterAll(async () => {
  await changeSettings({ displayAllowed: false });
  await setWay(firstWay);
  await display.close();
  await browser.close();
});

test('leave is asked for, then displays and windows are shown as a plan', async () => {
  await setWay({ ...firstWay, source: 'display' });
  await app.go('/take');
  await app.click('Allow reading this computer’s screen');
  await app.sees('Frost warning');
  await app.sees('Bed list');
}, 60_000);

/** Takes “Bed list” in the page by typing the beginning of its name. @returns the shot */
async function takeBedList(): Promise<string> {
  await app.go('/take');
  await app.sees('Bed list');
  await app.keys(Key.ENTER);
  await browser.driver.wait(until.elementLocated(By.css('[data-testid="still"]')), WAIT);
  await app.keys('b', 'e', 'd');
  await app.keys(Key.ENTER);
  const id = await app.marked();
  await app.stored();
  return id;
}

test('a long page of a window: one click of the wheel by hand, then it scrolls by itself to its end', async () => {
  startRows(display, '420x360+30+330');
  const rows = String(await display.windowId('rows'));
  await setWay({ source: 'display', kind: 'long' });
  await app.go('/take');
  await app.sees('rows');
  await app.keys(Key.ENTER);
  await app.sees('Scroll slowly');
  await app.keys(Key.SPACE);
  await app.sees('Scroll a little by hand first.');
  const first = await display.pixels(rows);
  await display.run('xdotool', 'mousemove', '200', '500', 'click', '5');
  await app.sees('Scroll on.');
  // Without the server for a while: what was had stays, and it goes on by itself.
  const network = { latency: 0, download_throughput: -1, upload_throughput: -1 };
  await browser.driver.setNetworkConditions({ ...network, offline: true });
  await app.sees('Enter takes what was had.');
  await browser.driver.setNetworkConditions({ ...network, offline: false });
  const problems = By.xpath('//*[@role="alert"][contains(., "Enter takes what was had")]');
  await app.until(
    'it is seen again',
    async () => (await browser.driver.findElements(problems)).length === 0,
  );
  await app.keys(Key.SPACE);
  // A busy machine may need long for it.
  const said = () => browser.driver.findElement(By.css('output[aria-label="Long page"]')).getText();
  await app
    .until('its end', async () => (await said()).includes('The end is reached'), 80_000)
    .catch(async (error: unknown) => {
      const told = By.css('main output, main [role="alert"], [aria-label="What is had"]');
      const words = (await browser.driver.findElements(told)).map((one) => one.getText());
      throw new Error(`The page says: ${(await Promise.all(words)).join(' · ')}`, { cause: error });
    });
  const last = await display.pixels(rows);
  // The pointer is back where the hand left it.
  expect(await display.run('xdotool', 'getmouselocation')).toContain('x:200 y:500');
  await app.keys(Key.ENTER);
  const id = await app.marked();
  await app.stored();
  expect((await getShot(id)).provenance).toMatchObject({ windowTitle: 'rows', source: 'display' });
  const frame = await getPixels(id, 'frame');
  // 70 lines and the empty one after them.
  expect(frame.height).toBeGreaterThan(70 * 15);
  const rowsOf = ({ data, width }: Pixels, from: number, left: number): Buffer =>
    Buffer.concat(
      Array.from({ length: 200 }, (_, i) => {
        const at = ((from + i) * width + left) * 4;
        return data.subarray(at, at + 300 * 4);
      }),
    );
  const { left, head, foot } = await frameAround('rows');
  const end = frame.height - foot - last.height;
  expect(rowsOf(frame, head, left).equals(rowsOf(first, 0, 0))).toBe(true);
  expect(rowsOf(frame, end + 100, left).equals(rowsOf(last, 100, 0))).toBe(true);
}, 120_000);

/** How much a window's frame reaches beyond it. */
async function frameAround(title: string): Promise<{ left: number; head: number; foot: number }> {
  const answer = displayAnswerSchema.parse(await (await read('/api/display')).json());
  const { bounds, frameBounds } = answer.windows.find((w) => w.title === title) ?? {};
  if (!bounds || !frameBounds) throw new Error(`${title} has no frame.`);
  return {
    left: bounds.x - frameBounds.x,
    head: bounds.y - frameBounds.y,
    foot: bottom(frameBounds) - bottom(bounds),
  };
}

test('the last seconds of the real screen: a window that is closed by then is taken, over a reload too', async () => {
  await setWay({ source: 'display', kind: 'back', then: [{ do: 'mark' }] });
  const close = display.start('xterm', '-title', 'Gone soon', '-geometry', '40x8+600+40');
  await display.windowId('Gone soon');
  await app.go('/take');
  await app.sees('Gone soon');
  const inside = await display.window('Gone soon');
  if (!inside) throw new Error('no window');
  await app.click('Hold the last 10 s');
  await app.until('it is held', () => app.has('[aria-label="Held"]'));
  const truth = await display.pixels();
  await close();
  await app.go('/take');
  await app.until('it is held still', () => app.has('[aria-label="Held"]'));
  await app.chord(Key.SHIFT, 'b');
  await app.until('the film', () => app.has('canvas[data-moment]'));
  await app.keys(Key.HOME, '2');
  await browser.driver.wait(until.elementLocated(By.css('[data-testid="still"]')), WAIT);
  await app.keys('g', 'o', 'n', 'e');
  await app.keys(Key.ENTER);
  const id = await app.marked();
  await app.stored();
  const shot = await getShot(id);
  expect(shot.provenance).toMatchObject({ windowTitle: 'Gone soon', program: 'XTerm' });
  const { crop } = shot.document.view;
  expect(crop.x + crop.width).toBeGreaterThanOrEqual(inside.x + inside.width);
  const frame = await getPixels(id, 'frame');
  expect((await cutOut(frame, placed(inside))).equals(await cutOut(truth, placed(inside)))).toBe(
    true,
  );
  // By another page.
  await fetch(`${appUrl()}/api/display/held`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ on: false }),
  });
  await app.sees('It was switched off in another page.');
  expect(await app.has('[aria-label="Held"]')).toBe(false);
}, 90_000);

const placed = ({ x, y, width, height }: Rect) => ({ left: x, top: y, width, height });

test('a window of the real screen is taken whole though another covers it', async () => {
  await setWay({ source: 'display', kind: 'window' });
  const id = await takeBedList();
  const shot = await getShot(id);
  expect(shot).toMatchObject({
    title: expect.stringMatching(/^Window \d+, Bed list$/),
    provenance: { source: 'display', windowTitle: 'Bed list', program: 'XTerm' },
  });
  const inside = await display.window('Bed list');
  if (!inside) throw new Error('no window');
  const { crop } = shot.document.view;
  expect(crop.width).toBeGreaterThanOrEqual(inside.width);
  const pixels = await getPixels(id, 'picture?format=png');
  const seen = new Set<number>();
  for (let y = inside.height - 40; y < inside.height; y += 1) {
    for (let x = inside.width - 60; x < inside.width - 4; x += 1) {
      seen.add(pixels.data.readUInt32BE((y * pixels.width + x) * 4));
    }
  }
  // The corner under “Frost warning” is the list's own white, not the green over it.
  expect([...seen]).toEqual([0xffffffff]);
}, 60_000);

test.each([
  ['of its right and upper edge', '1000,-40,-1,-1'],
  ['beginning in its corner', '0,0,1500,300'],
])(
  'a window over the edge of the screen, %s, is taken whole',
  async (_, place) => {
    const id = await display.windowId('Bed list');
    const before = await display.window('Bed list');
    await display.run('wmctrl', '-i', '-r', String(id), '-e', `0,${place}`);
    const moved = async () => JSON.stringify(await display.window('Bed list'));
    await browser.driver.wait(async () => (await moved()) !== JSON.stringify(before), WAIT);
    const now = await display.window('Bed list');
    await setWay({ source: 'display', kind: 'window', border: false });
    const shot = await takeBedList();
    const { document, width, height } = await getShot(shot);
    const { crop } = document.view;
    expect([crop.width, crop.height]).toEqual([now?.width, now?.height]);
    expect([width, height]).not.toEqual([1280, 800]);
    // Its far corner, which no screen shows: the white ground of the list.
    const pixels = await getPixels(shot, 'picture?format=png');
    const corner = (pixels.height - 3) * pixels.width + pixels.width - 3;
    expect(pixels.data.readUInt32BE(corner * 4)).toBe(0xffffffff);
    const seen = await browser.driver.findElement(By.css('body')).getText();
    expect(seen).not.toContain('is off the display');
  },
  60_000,
);

test('a take by system key opens in Mark on the page that is open', async () => {
  const answer = await fetch(`${appUrl()}/api/routines`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      name: 'Screen to mark',
      systemKey: 'mod+alt+s',
      way: { ...firstWay, source: 'display' },
    }),
  });
  expect(answer.status).toBe(201);
  await app.go('/shelf');
  await app.sees('Today');
  await app.until('the page listens', () => app.has('html[data-hears]'));
  await display.run('xdotool', 'key', 'ctrl+alt+s');
  // What is said goes by itself, and may be gone before Mark has opened.
  await app.sees('Screen to mark');
  const id = await app.marked();
  expect((await getShot(id)).width).toBe(1600);
  const { id: routine } = (await answer.json()) as { id: string };
  await fetch(`${appUrl()}/api/routines/${routine}`, { method: 'DELETE' });
}, 60_000);

test('this computer’s screen is recorded by the server, and opens as a clip', async () => {
  const way = { ...firstWay, source: 'display', kind: 'clip', pointer: true } as const;
  await setWay({ ...way, records: 'region', atOnce: true });
  await app.go('/take');
  await app.sees('Frost warning');
  await app.keys(Key.ENTER);
  await app.sees('What is recorded?');
  const still = await browser.driver.findElement(By.css('canvas'));
  await app.drag(still, { x: 20, y: 20 }, { x: 220, y: 120 });
  const stands = By.css('section[aria-label="Recording"] [role="status"]');
  await app.until('it is on the disk', async () => {
    const [said] = await browser.driver.findElements(stands);
    return /[1-9][\d.,]* (KB|MB) on the disk/.test((await said?.getText()) ?? '');
  });
  // It goes on without the page, and every page that comes says so.
  await app.go('/shelf');
  await app.click('End the clip');
  await app.sees('Begin here');
  const id = (await browser.driver.getCurrentUrl()).slice(-36);
  const clip = clipSchema.parse(await (await read(`/api/clips/${id}`)).json());
  const { width, height } = await display.pixels();
  expect(clip).toMatchObject({ width, height, fineColours: true });
  // All of it is recorded, and the region is shown.
  expect(clip.leaves.width).toBeLessThan(width);
  expect(clip.document.view.crop).toMatchObject(clip.leaves);
  await app.until('it plays here', async () =>
    Boolean(
      await browser.driver.executeScript(
        'const v = document.querySelector("video"); return v.readyState >= 2 && v.videoWidth > 0',
      ),
    ),
  );
}, 60_000);
