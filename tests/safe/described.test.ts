import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { firstWay } from '@/core/contracts/way';
import { App, getShot, setWay } from '@/tests/e2e/lib/app';
import { stilled } from '@/tests/e2e/lib/stilled';
import { openBrowser, type Browser } from '@/tests/e2e/lib/browser';
import { StandInProgram } from '@/tests/lib/standInProgram';
import { XDisplay } from '@/tests/lib/xDisplay';
import { OwnApp } from './lib/ownApp';

/** The real interface beside a program that describes its window. */

const data = join(process.env.REZZIK_DATA ?? '', 'described');
let display: XDisplay;
let program: StandInProgram;
let own: OwnApp;
let browser: Browser;
let app: App;

beforeAll(async () => {
  mkdirSync(data, { recursive: true });
  display = await XDisplay.open(1280, 800);
  display.start('xterm', '-title', 'Bed list', '-geometry', '60x20+40+60', '-e', 'sleep 600');
  await display.windowId('Bed list');
  const bounds = await display.window('Bed list');
  if (!bounds) throw new Error('no window');
  const { x, y, width, height } = bounds;
  program = await StandInProgram.open([
    {
      ...{ role: 'frame', name: 'Bed list', box: [x, y, width, height] },
      children: [{ role: 'push button', name: 'Print labels', box: [x + 40, y + 60, 90, 30] }],
    },
  ]);
  own = await OwnApp.start({
    data,
    databaseUrl: process.env.DATABASE_URL ?? '',
    env: {
      DISPLAY: display.name,
      DBUS_SESSION_BUS_ADDRESS: program.address,
      REZZIK_DESCRIBING_MS: '20000',
    },
  });
  process.env.REZZIK_URL = own.url;
  browser = await openBrowser();
  app = new App(browser.driver);
}, 120_000);

afterAll(async () => {
  await browser.close();
  await own.end();
  await program.close();
  await display.close();
});

/** Takes the innermost part in the middle of the described button, once it is called so. */
async function takePart(said: string): Promise<string> {
  await app.go('/take');
  await app.sees('Bed list');
  await app.keys(Key.ENTER);
  const { at } = await stilled(app, { width: 1280, height: 800 });
  const bounds = await display.window('Bed list');
  const hand = browser.driver.actions({ async: true });
  await hand.move(at((bounds?.x ?? 0) + 85, (bounds?.y ?? 0) + 75)).perform();
  await app.sees(said);
  await hand.click().perform();
  const id = await app.marked();
  await app.stored();
  return id;
}

test('no program is asked before it is allowed', async () => {
  await setWay({ ...firstWay, source: 'display', kind: 'part' });
  await app.go('/take');
  await app.click('Allow reading this computer’s screen');
  const { title } = await getShot(await takePart('around this place'));
  expect(title).not.toContain('Print labels');
  expect(program.wanted).toEqual([]);
});

test('allowed in Setup, a part without any edge is offered, named and taken', async () => {
  await app.go('/setup/computer');
  await app.sees('Ask programs what the parts of their windows are');
  await browser.driver.findElement(By.xpath('//label[contains(., "Ask programs")]')).click();
  const id = await takePart('button “Print labels” · 90 × 30 px');
  const { title, document, provenance } = await getShot(id);
  const bounds = await display.window('Bed list');
  expect(document.view.crop).toEqual({
    ...{ x: (bounds?.x ?? 0) + 40, y: (bounds?.y ?? 0) + 60 },
    ...{ width: 90, height: 30 },
  });
  expect(title).toMatch(/^Part \d+, button “Print labels”$/);
  expect(document.description).toBe('Button “Print labels”');
  expect(provenance).toMatchObject({ part: 'button “Print labels”' });
  expect(program.wanted).toEqual([true, false]);
});
