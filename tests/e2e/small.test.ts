import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { By, until } from 'selenium-webdriver';
import { firstWay } from '@/core/contracts/way';
import { App, listShots, setWay, WAIT } from './lib/app';
import { openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
}, 60_000);
afterAll(async () => {
  await setWay(firstWay);
  await browser.close();
});

/** What the small window shows, from the page that draws it. */
const inside = (script: string) =>
  browser.driver.executeScript<string>(
    `const small = window.documentPictureInPicture?.window; return small ? (${script}) : '';`,
  );

test('the small control takes by the last way, counts down, and shows what was taken', async () => {
  await setWay({ ...firstWay, delay: 1, then: [] });
  await app.take();
  const before = (await listShots()).total;
  await app.click('Small control');
  await app.until('the control', async () =>
    (await inside('small.document.body.textContent')).includes('Full screen · 1 s'),
  );
  await inside(
    `[...small.document.querySelectorAll('button')].find((b) => b.textContent === 'Take').click()`,
  );
  await app.until('the countdown', async () =>
    (await inside('small.document.body.textContent')).includes('s left'),
  );
  await app.until('the shot', async () => (await listShots()).total === before + 1);
  await app.until('its thumbnail', async () =>
    (await inside('small.document.body.textContent')).includes('Last taken'),
  );
}, 60_000);

test('the small control says that the last seconds are held, and looks back', async () => {
  await setWay({ ...firstWay, kind: 'back' });
  await app.take();
  await app.click('Small control');
  const held = () => inside(`small.document.body.textContent.includes('Held: look back') + ''`);
  await app.until('the control', async () => (await held()) === 'false');
  await app.click('Hold the last 10 s');
  await app.until('it says so', async () => (await held()) === 'true');
  await inside(
    `[...small.document.querySelectorAll('button')].find((b) => b.textContent === 'Held: look back').click()`,
  );
  await app.until('the film', () => app.has('canvas[data-moment]'));
  await app.click('Hold no longer');
  await app.until('it says so no more', async () => (await held()) === 'false');
}, 60_000);

test('a shot is held in view', async () => {
  await setWay({ ...firstWay, delay: 0 });
  await app.take();
  await app.click('Take the screen');
  await app.marked();
  await browser.driver.wait(until.elementLocated(By.css('[aria-label="Hold in view"]')), WAIT);
  await app.click('Hold in view');
  await app.until('the picture', async () =>
    (await inside(`small.document.querySelector('img')?.naturalWidth + ''`)).includes('1440'),
  );
}, 60_000);

test('a shortcut of the installed app runs its routine once', async () => {
  expect(await app.driver.getTitle()).toContain('Rezzik');
  const before = (await listShots()).total;
  const made = await browser.driver.executeAsyncScript<{ id: string }>(`
    fetch('/api/routines', { method: 'POST', headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ name: 'By shortcut', way: ${JSON.stringify({ ...firstWay, then: [] })} }) })
      .then((a) => a.json()).then(arguments[0])`);
  await app.go(`/take?routine=${made.id}`);
  await app.until('the shot', async () => (await listShots()).total === before + 1);
  expect(await app.driver.getCurrentUrl()).toMatch(/\/take$/);
  await browser.driver.executeAsyncScript(
    `fetch('/api/routines/${made.id}', { method: 'DELETE' }).then(() => arguments[0]())`,
  );
}, 60_000);
