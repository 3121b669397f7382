import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import postgres from 'postgres';
import { settingsAnswerSchema } from '@/core/contracts/settings';
import { App, plainPng, read, sendShot } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;
const sql = postgres(process.env.DATABASE_URL ?? '', { max: 1, onnotice: () => undefined });

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  const old = await sendShot(await plainPng(200, 120, '#336699'), 'Old beds');
  await sendShot(await plainPng(200, 130, '#996633'), 'New beds');
  await sql`update shots set created_at = '2026-08-10', changed_at = '2026-08-10' where id = ${old}`;
  await sql`update frames set created_at = '2026-08-10'
    where id = (select frame_id from shots where id = ${old})`;
}, 120_000);
afterAll(async () => {
  await browser.close();
  await sql.end();
});

const unkeptDays = async () =>
  settingsAnswerSchema.parse(await (await read('/api/settings')).json()).unkeptDays;

test('what is used is shown by kind and month, in bars and as a table', async () => {
  await browser.driver.get(`${appUrl()}/setup/room`);
  await app.sees('By month');
  const months = await browser.driver.findElements(By.css('section[aria-label="By month"] svg g'));
  expect(months.length).toBeGreaterThanOrEqual(4);
  const titles = await Promise.all(
    (await browser.driver.findElements(By.css('section[aria-label="By month"] svg title'))).map(
      (title) => title.getAttribute('textContent'),
    ),
  );
  expect(titles[0]).toMatch(/^August 2026: .*, 1 shot$/);
  await (await app.sees('As a table')).click();
  const rows = await browser.driver.findElements(By.css('tbody tr'));
  expect(await rows.at(-1)?.getText()).toMatch(/^August 2026 1 /);
}, 60_000);

test('the rule shows what it would do before it is switched on, by the keyboard', async () => {
  await browser.driver.get(`${appUrl()}/setup/room`);
  await app.sees('None now.');
  const days = await browser.driver.findElement(
    By.css('section[aria-label="Rule"] input[inputmode="decimal"]'),
  );
  await days.sendKeys(Key.chord(Key.CONTROL, 'a'), '30', Key.ENTER);
  await app.sees('1 now, ');
  await app.sees('Old beds');
  expect(await unkeptDays()).toBeNull();
  const rule = await browser.driver.findElement(
    By.css('section[aria-label="Rule"] [role="switch"]'),
  );
  await rule.sendKeys(Key.SPACE);
  await app.until('the rule is stored', async () => (await unkeptDays()) === 30);
  await rule.sendKeys(Key.SPACE);
  await app.until('the rule is off', async () => (await unkeptDays()) === null);
}, 60_000);

test('that room runs short is said once a day, and leads to what uses it', async () => {
  const asked = `(() => {
    localStorage.removeItem('rezzik-room-said');
    const own = window.fetch;
    window.fetch = (path, init) => String(path).startsWith('/api/room?left')
      ? Promise.resolve(Response.json({ free: 3_200_000_000, low: true, lately: 40_000_000 }))
      : own(path, init);
  })()`;
  const { identifier } = (await browser.driver.sendAndGetDevToolsCommand(
    'Page.addScriptToEvaluateOnNewDocument',
    { source: asked },
  )) as unknown as { identifier: string };
  await browser.driver.get(`${appUrl()}/take`);
  await app.sees('Room runs short: 3.2 GB are free.');
  // An answer is not pressed by a click that was meant for what it covers.
  await browser.driver.sleep(600);
  await app.click('What uses it');
  await app.sees('By kind');
  await browser.driver.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', {
    identifier,
  });
  expect(
    await browser.driver.executeScript<string>(`return localStorage.getItem('rezzik-room-said')`),
  ).toMatch(/^\d+$/);
}, 60_000);
