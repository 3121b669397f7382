import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdirSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key, until } from 'selenium-webdriver';
import { seriesSchema } from '@/core/contracts/series';
import { ask, post } from '../e2e/lib/hand';
import { cutOut } from '../lib/pictures';
import { App, decode, getPixels, WAIT, type Pixels } from '../e2e/lib/app';
import { appUrl, openBrowser, type Browser } from '../e2e/lib/browser';
import { startRows } from '../lib/rows';
import { XDisplay } from '../lib/xDisplay';

const SCREEN = { width: 1600, height: 900 };
const folder = join(process.env.REZZIK_ROOTS ?? '', 'real');
let display: XDisplay;
let browser: Browser;
let app: App;

beforeAll(async () => {
  display = await XDisplay.open(SCREEN.width, SCREEN.height);
  // Clients right of the browser, away from its own notice that the screen is shared.
  display.start(
    'xlogo',
    '-title',
    'greys',
    '-geometry',
    '300x240+1040+60',
    '-bg',
    '#c0c0c0',
    '-fg',
    '#000000',
  );
  display.start(
    'xlogo',
    '-title',
    'colours',
    '-geometry',
    '300x240+1040+400',
    '-bg',
    '#0072B2',
    '-fg',
    '#D55E00',
  );
  mkdirSync(folder, { recursive: true });
  await fetch(`${appUrl()}/api/folders`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      name: 'Real',
      path: folder,
      format: 'png',
      pattern: '{title}',
      isDefault: true,
    }),
  });
  browser = await openBrowser({
    display: display.name,
    width: 1020,
    height: 800,
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

/** The inside of a window: sharing's halved chroma lets its coloured border bleed two pixels in. */
const inside = (r: { x: number; y: number; width: number; height: number }) => ({
  x: r.x + 2,
  y: r.y + 2,
  width: r.width - 4,
  height: r.height - 4,
});

const differences = (
  a: Pixels,
  b: Pixels,
  r: { x: number; y: number; width: number; height: number },
) => {
  let most = 0;
  let count = 0;
  for (let y = r.y; y < r.y + r.height; y += 1) {
    for (let x = r.x; x < r.x + r.width; x += 1) {
      for (let c = 0; c < 3; c += 1) {
        const at = (y * a.width + x) * 4 + c;
        const d = Math.abs((a.data[at] ?? 0) - (b.data[at] ?? 0));
        most = Math.max(most, d);
        if (d > 0) count += 1;
      }
    }
  }
  return { most, count };
};

/** Takes a moment of what is held: the one that is gone to by a key. */
async function takeMoment(key: string): Promise<Pixels> {
  await app.chord(Key.SHIFT, 'b');
  const film = By.css('canvas[data-moment]');
  await browser.driver.wait(until.elementLocated(film), WAIT);
  await app.keys(key, Key.ENTER);
  const id = await app.marked();
  await app.stored();
  return getPixels(id, 'frame');
}

test('a real screen is taken by the interface and kept: size, place and greys are the X server’s', async () => {
  await app.until(
    'both clients',
    async () =>
      (await display.window('greys')) !== null && (await display.window('colours')) !== null,
  );
  await app.take();
  await app.click('Shared screen');
  await app.click('Share a screen');
  await browser.driver.wait(until.elementLocated(By.css('video')), WAIT);
  await app.sees('1600');
  await app.click('Full screen');
  await app.click('1 s');
  await app.click('Take the screen');
  const truth = await display.pixels();
  const id = await app.marked();
  await app.stored();
  const frame = await getPixels(id, 'frame');
  expect([frame.width, frame.height]).toEqual([SCREEN.width, SCREEN.height]);
  const greys = await display.window('greys');
  const colours = await display.window('colours');
  if (!greys || !colours) throw new Error('a client is gone');
  expect(differences(frame, truth, inside(greys))).toEqual({ most: 0, count: 0 });
  // Sharing delivers 4:2:0 video of limited range (220 of 256 levels): greys between these levels
  // are off by one, flat colours come near, edges between saturated colours less so.
  const flat = { x: colours.x + 4, y: colours.y + 100, width: 12, height: 12 };
  const saturated = differences(frame, truth, colours);
  const even = differences(frame, truth, flat);
  console.info(
    `saturated colours differ by up to ${saturated.most} of 255, flat ones by up to ${even.most}`,
  );
  expect(even.most).toBeLessThanOrEqual(6);

  await app.click('Keep');
  await app.sees('Keep in 1 place');
  await app.click('Keep in 1 place');
  await app.sees('Kept in ');
  await app.until('the file', async () =>
    Promise.resolve(readdirSync(folder).some((name) => name.endsWith('.png'))),
  );
  const [name = ''] = readdirSync(folder);
  const kept = await decode(readFileSync(join(folder, name)));
  expect(differences(kept, truth, inside(greys))).toEqual({ most: 0, count: 0 });
}, 120_000);

test('a pointer is asked of the browser, and what it says is true of the picture', async () => {
  await app.take();
  await app.click('Shared screen');
  await app.click('Share a screen');
  await browser.driver.wait(until.elementLocated(By.css('video')), WAIT);
  await app.click('Full screen');
  await app.click('1 s');
  const colours = await display.window('colours');
  if (!colours) throw new Error('a client is gone');
  const spot = { x: colours.x + 8, y: colours.y + 140 };
  for (const wanted of [true, false]) {
    const toggle = await app.named('Pointer');
    if ((await toggle.getAttribute('aria-checked')) !== String(wanted)) await toggle.sendKeys(' ');
    expect(await toggle.isEnabled()).toBe(true);
    await display.run('xdotool', 'mousemove', String(spot.x), String(spot.y));
    const panel = await browser.driver.findElement(By.css('aside[aria-label="How to take"]'));
    const words = await panel.getText();
    await app.click('Take the screen');
    await display.run('xdotool', 'mousemove', String(spot.x), String(spot.y));
    const id = await app.marked();
    await app.stored();
    const frame = await getPixels(id, 'frame');
    const at = (p: { x: number; y: number }) => {
      const from = (p.y * frame.width + p.x) * 4;
      return [...frame.data.subarray(from, from + 3)];
    };
    const plain = at({ x: spot.x, y: spot.y + 60 });
    let different = 0;
    for (let i = 2; i < 14; i += 1) {
      const there = at({ x: spot.x + 2, y: spot.y + i });
      if (there.some((v, c) => Math.abs(v - (plain[c] ?? 0)) > 30)) different += 1;
    }
    const isIn = different > 3;
    console.info(`asked for ${String(wanted)}: ${isIn ? 'in' : 'out'}`);
    if (isIn) expect(words).not.toContain('leaves it out');
    else expect(words).not.toContain('draws it into');
    expect(words).toMatch(/The browser (leaves it out|draws it)|does not say what it does/);
    await app.click('Take');
    await app.sees('Shared screen');
  }
}, 90_000);

test('what was shared a moment ago is taken: a window that is closed by then is there, its greys the X server’s', async () => {
  await app.take();
  await app.click('Shared screen');
  await app.click('Share a screen');
  await browser.driver.wait(until.elementLocated(By.css('video')), WAIT);
  const close = display.start(
    'xlogo',
    '-title',
    'gone',
    '-geometry',
    '200x160+1360+60',
    '-bg',
    '#909090',
  );
  await app.until('the window', async () => (await display.window('gone')) !== null);
  const window = await display.window('gone');
  if (!window) throw new Error('a client is gone');
  await app.click('Look back');
  await app.click('Hold the last 10 s');
  await browser.driver.sleep(1200);
  const truth = await display.pixels();
  await close();
  await browser.driver.sleep(1000);
  const moment = await takeMoment(Key.HOME);
  expect(differences(moment, truth, inside(window))).toEqual({ most: 0, count: 0 });
  // The newest one knows nothing of it any more.
  await app.click('Take');
  const now = await takeMoment(Key.END);
  expect(differences(now, truth, inside(window)).count).toBeGreaterThan(1000);
}, 90_000);

test('a tab that is out of sight goes on holding: what changes meanwhile is a moment of its own', async () => {
  await app.take();
  await app.click('Shared screen');
  await app.click('Share a screen');
  await browser.driver.wait(until.elementLocated(By.css('video')), WAIT);
  await app.click('Look back');
  await app.click('Hold the last 10 s');
  const { driver } = browser;
  const [tab] = await driver.getAllWindowHandles();
  await driver.switchTo().newWindow('tab');
  await driver.sleep(1000);
  const close = display.start('xlogo', '-title', 'meanwhile', '-geometry', '150x150+1400+700');
  await app.until('it', async () => (await display.window('meanwhile')) !== null);
  const [from, rest] = [Date.now(), 1500];
  await driver.sleep(rest);
  await close();
  const to = Date.now();
  await driver.sleep(rest);
  await driver.close();
  await driver.switchTo().window(tab ?? '');
  await app.chord(Key.SHIFT, 'b');
  await driver.wait(until.elementLocated(By.css('canvas[data-moment]')), WAIT);
  const said = () =>
    driver.findElement(By.css('output[aria-label="The moment in sight"]')).getText();
  const count = Number(/of (\d+)/.exec(await said())?.[1]);
  /** When each began, as seconds of the hour. */
  const began: number[] = [];
  for (let i = 0; i < count; i += 1) {
    const [, minutes, seconds] = /(\d+):(\d+\.\d)/.exec((await said()).replace(/\d+:/, '')) ?? [];
    began.push(Number(minutes) * 60 + Number(seconds));
    await app.keys(Key.ARROW_LEFT);
  }
  const ofHour = (at: number) => (at / 1000) % 3600;
  // Shown and closed again while the page was out of sight; looked at five times a second.
  const near = (at: number) => began.some((one) => Math.abs(one - ofHour(at)) < 1);
  expect([near(from), near(to)]).toEqual([true, true]);
  await app.keys(Key.ESCAPE);
}, 90_000);

test('a series of a shared screen is taken by a tab out of sight, and missed once sharing has ended', async () => {
  await app.take();
  await app.click('Shared screen');
  await app.click('Share a screen');
  await browser.driver.wait(until.elementLocated(By.css('video')), WAIT);
  const greys = { x: 1060, y: 80, width: 260, height: 200 };
  const { id } = await post('/api/series', {
    ...{ name: 'Shared', what: { source: 'screen', kind: 'region', region: greys } },
    times: { when: { every: 2 } },
  });
  const stands = async () =>
    seriesSchema.parse(await (await fetch(`${appUrl()}/api/series/${id}`)).json());
  const [tab] = await browser.driver.getAllWindowHandles();
  await browser.driver.switchTo().newWindow('tab');
  await app.until('two are taken', async () => (await stands()).taken >= 2);
  await browser.driver.close();
  await browser.driver.switchTo().window(tab ?? '');
  const { last } = await stands();
  const taken = await getPixels(last?.id ?? '', 'frame');
  expect(taken).toMatchObject({ width: greys.width, height: greys.height });
  const screen = await display.pixels();
  const box = { left: greys.x, top: greys.y, width: greys.width, height: greys.height };
  expect(Buffer.from(taken.data).equals(await cutOut(screen, box))).toBe(true);
  await app.go('/shelf');
  await app.until('it is missed', async () => (await stands()).missed > 0);
  await ask(`/api/series/${id}`, 'DELETE', {});
}, 90_000);

test('a long page is joined from a shared screen: first and last rows are the X server’s', async () => {
  startRows(display, '520x560+1060+40');
  await app.until('the rows', async () => (await display.window('rows')) !== null);
  await app.take();
  await app.click('Shared screen');
  await app.click('Share a screen');
  await browser.driver.wait(until.elementLocated(By.css('video')), WAIT);
  await app.click('Long page');
  await app.click('Take a long page');
  await app.sees('Scroll slowly');
  await display.run('xdotool', 'mousemove', '1300', '300');
  const had = () => browser.driver.findElement(By.css('[aria-label="What is had"]')).getText();
  const pictures = async () => Number(/(\d+) pictures/.exec(await had())?.[1] ?? 0);
  const first = await display.pixels();
  for (let turn = 0; turn < 6; turn += 1) {
    const before = await pictures();
    await display.run('xdotool', 'click', '5', 'click', '5');
    await app.until('it is laid', async () => (await pictures()) > before);
  }
  const outline = await browser.driver.findElement(By.css('[data-testid="watched"]'));
  const part = (name: string, of: number) =>
    browser.driver
      .executeScript<string>(`return arguments[0].style[${JSON.stringify(name)}]`, outline)
      .then((percent) => Math.round((parseFloat(percent) * of) / 100));
  const x = await part('left', SCREEN.width);
  const y = await part('top', SCREEN.height);
  const height = await part('height', SCREEN.height);
  await app.click('Take this page');
  const id = await app.marked();
  await app.stored();
  // The window itself may have been half painted when its picture was laid.
  const last = await display.pixels();
  const frame = await getPixels(id, 'frame');
  // The window fills most of what was found; it was scrolled by whole rows.
  expect(frame.width).toBeGreaterThan(500);
  expect(frame.height).toBeGreaterThan(560 + 6 * 50);
  const rowsAlike = (screen: Pixels, from: number, to: number): number => {
    let alike = 0;
    for (let row = 0; row < 400; row += 1) {
      const a = ((from + row) * frame.width + 20) * 4;
      const b = ((to + row) * screen.width + x + 20) * 4;
      const far = (_: number, i: number) =>
        Math.abs((frame.data[a + i] ?? 0) - (screen.data[b + i] ?? 0)) > 1;
      // Greys between the levels of video are off by one.
      if (!Array.from({ length: 800 }, (__, i) => i).some(far)) alike += 1;
    }
    return alike;
  };
  expect(rowsAlike(first, 40, y + 40)).toBe(400);
  expect(rowsAlike(last, frame.height - 440, y + height - 440)).toBe(400);
}, 90_000);

test('copying while another window is in front is said, and done when this one is back', async () => {
  await app.take();
  await app.click('Practice desk');
  await app.click('Full screen');
  await app.click('2 s');
  const copies = await app.named('Copy');
  if ((await copies.getAttribute('aria-pressed')) === 'false') await copies.click();
  await browser.driver.sendDevToolsCommand('Browser.grantPermissions', {
    permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
    origin: appUrl(),
  });
  await app.click('Take the screen');
  display.start('xterm', '-title', 'front', '-geometry', '40x10+1040+700');
  await app.until('the other window', async () => (await display.window('front')) !== null);
  await app.until('the focus is gone', () =>
    browser.driver.executeScript<boolean>('return !document.hasFocus()'),
  );
  await app.sees('is copied when you are back');
  await browser.driver.executeScript('window.focus()');
  await browser.driver.switchTo().window(await browser.driver.getWindowHandle());
  await browser.driver.sendDevToolsCommand('Page.bringToFront', {});
  await app.until(
    'the copy',
    async () =>
      (await browser.driver.findElements(By.xpath("//*[contains(., 'Copied: paste it anywhere')]")))
        .length > 0,
  );
}, 90_000);
