import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key, until } from 'selenium-webdriver';
import { App, listShots, WAIT } from '../tests/e2e/lib/app';
import { openBrowser, type Browser } from '../tests/e2e/lib/browser';

// Run by `npm run screenshots` on the demo data: one picture of each main view.

let browser: Browser;
let app: App;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
}, 120_000);
afterAll(() => browser.close());

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

test('the main views', async () => {
  const slip = await demoShot('Seed order – slip before closing');
  await app.take();
  await picture('take');

  await app.click('Region');
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

  await app.click('Shared screen');
  await picture('take-shared-screen');

  await app.go(`/shots/${slip}`);
  await app.stage();
  await (await browser.driver.findElement(By.css('[data-mark="point"]'))).click();
  await picture('mark');
  await app.keys('k');
  await picture('mark-crop');

  await app.go(`/shots/${slip}/keep`);
  await app.named('Download');
  await app.click('JPEG');
  await app.click('Keep in 1 place');
  await app.sees('Kept in ');
  await picture('keep');

  await app.go('/shelf');
  await app.until('cards', () => app.has('[data-shot]'));
  await app.click('Seed order – slip before closing');
  await picture('shelf');

  await app.go('/setup/folders');
  await app.named('Edit Guides');
  await picture('setup-folders');

  await browser.driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
    features: [{ name: 'prefers-color-scheme', value: 'dark' }],
  });
  await app.go(`/shots/${slip}`);
  await app.stage();
  await picture('mark-dark');
  expect(await app.id()).toBe(slip);
}, 180_000);
