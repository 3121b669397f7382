import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { App, getPixels, getShot, listShots, plainPng, sendShot } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  await browser.driver.sendDevToolsCommand('Network.enable', {});
}, 120_000);
afterAll(() => browser.close());
afterEach(() => fail([]));

/** Requests to these addresses fail, as if the server did not answer. */
const fail = (urls: string[]): Promise<unknown> =>
  browser.driver.sendDevToolsCommand('Network.setBlockedURLs', { urls });

const full = async () => {
  await app.take();
  await app.keys('1');
  await app.click('0 s');
};

test('a card whose picture cannot be had says so', async () => {
  await sendShot(await plainPng(60, 40, '#FFFFFF'), 'Without its picture');
  await fail([`${appUrl()}/api/shots/*/thumbnail*`]);
  await app.go('/shelf');
  await app.sees('Without its picture');
  await app.sees('Cannot be shown');
});

describe('a server that does not answer', () => {
  test('the take opens at once, is shown as not stored yet, and arrives once, marks and all', async () => {
    await full();
    const before = (await listShots()).total;
    await fail([`${appUrl()}/api/*`]);
    await app.keys(Key.ENTER);
    const id = await app.marked();
    await app.keys('b');
    const stage = await browser.driver.findElement(By.css('[data-testid="stage"]'));
    await app.drag(stage, { x: 200, y: 200 }, { x: 400, y: 330 });
    await app.sees('Not stored yet');
    await app.click('Take');
    await app.sees('not stored yet');
    expect((await fetch(`${appUrl()}/api/shots/${id}`)).status).toBe(404);
    await fail([]);
    await app.until('it arrives', async () => (await fetch(`${appUrl()}/api/shots/${id}`)).ok);
    await app.until(
      'the mark arrives',
      async () => (await getShot(id)).document.marks.length === 1,
    );
    expect((await listShots()).total).toBe(before + 1);
  }, 90_000);

  test('a reload and a closed tab lose neither the take nor its marks', async () => {
    await full();
    await fail([`${appUrl()}/api/*`]);
    await app.keys(Key.ENTER);
    const id = await app.marked();
    await app.keys('o');
    const stage = await browser.driver.findElement(By.css('[data-testid="stage"]'));
    await app.drag(stage, { x: 200, y: 200 }, { x: 400, y: 330 });
    await app.sees('Not stored yet');
    const isHeld = `entry.shot === '${id}' && entry.change.document.marks.length === 1`;
    await app.until('the mark is held', async () => (await app.held('drafts', isHeld)) === 1);
    await app.until('the take is held', async () => (await app.held('outbox', 'true')) === 1);
    await browser.driver.navigate().refresh();
    await app.stage();
    expect(await browser.driver.findElements(By.css('[data-mark]'))).toHaveLength(1);
    const first = await browser.driver.getWindowHandle();
    await browser.driver.switchTo().newWindow('tab');
    const second = await browser.driver.getWindowHandle();
    await browser.driver.switchTo().window(first);
    await browser.driver.close();
    await browser.driver.switchTo().window(second);
    await app.go(`/shots/${id}`);
    await app.stage();
    await app.stored();
    expect((await getShot(id)).document.marks.map((m) => m.kind)).toEqual(['oval']);
    expect((await getPixels(id, 'frame')).width).toBe(1440);
  }, 90_000);

  test('an answer that is lost does not store a shot twice', async () => {
    await full();
    const before = (await listShots()).total;
    // The first request reaches the server; its answer never reaches the page.
    await browser.driver.executeScript(`
      const real = window.fetch;
      let lost = 0;
      window.fetch = async (...args) => {
        const answer = await real(...args);
        if (String(args[0]) === '/api/shots' && args[1]?.method === 'POST' && lost++ < 2) throw new TypeError('lost');
        return answer;
      };`);
    await app.keys(Key.ENTER);
    await app.marked();
    await app.stored();
    expect((await listShots()).total).toBe(before + 1);
  }, 60_000);
});

test('a reload right after Enter finds the shot', async () => {
  await full();
  await app.keys(Key.ENTER);
  const id = await app.marked();
  // Until then the tab holds on by a question, which a driver answers as no person would.
  const safe = async () =>
    (await app.held('outbox', `entry.id === '${id}'`)) === 1 ||
    (await fetch(`${appUrl()}/api/shots/${id}`)).ok;
  await app.until('it is safe', safe);
  await browser.driver.navigate().refresh();
  await app.stage();
  await app.until('stored', async () => (await fetch(`${appUrl()}/api/shots/${id}`)).ok);
}, 60_000);

describe('a change that arrives while its answer does not', () => {
  /** What is sent for a change arrives; what is answered never comes, or comes as a failure. */
  const loseAnswers = (how: 'never' | 'failure') =>
    browser.driver.executeScript(
      `const real = window.fetch;
       window.fetch = async (...args) => {
         const answer = await real(...args);
         if (!['PUT', 'PATCH'].includes(args[1]?.method)) return answer;
         if (arguments[0] === 'never') return new Promise(() => undefined);
         window.fetch = real;
         throw new TypeError('lost');
       };`,
      how,
    );
  const draw = async (key: string) => {
    await app.keys(key);
    const stage = await browser.driver.findElement(By.css('[data-testid="stage"]'));
    await app.drag(stage, { x: 250, y: 200 }, { x: 400, y: 330 });
  };
  const kindsOf = async (id: string) => (await getShot(id)).document.marks.map((m) => m.kind);
  let id: string;
  const open = async (how: 'never' | 'failure') => {
    id = await sendShot(await plainPng(600, 400, '#FFFFFF'), 'One tab');
    await app.go(`/shots/${id}`);
    await app.stage();
    await loseAnswers(how);
    await draw('b');
    await app.until('it is there', async () => (await kindsOf(id)).join() === 'box');
  };
  const again = async () => {
    await browser.driver.navigate().refresh();
    await app.stage();
  };
  const goesOn = async () => {
    await app.stored();
    await app.chord(Key.CONTROL, 'z');
    await app.until('undone', async () => (await kindsOf(id)).length === 0);
    await app.stored();
  };

  test('is taken for what it is when it is sent again', async () => {
    await open('failure');
    await goesOn();
  }, 60_000);

  test('is not “changed elsewhere” for the page that is loaded anew', async () => {
    await open('never');
    await again();
    await goesOn();
  }, 60_000);

  test('nor does what was drawn after it get lost', async () => {
    await open('never');
    await draw('o');
    await app.until(
      'it is held',
      async () =>
        (await app.held(
          'drafts',
          `entry.shot === '${id}' && entry.change.document.marks.length === 2`,
        )) === 1,
    );
    await again();
    await app.stored();
    await app.until('both are there', async () => (await kindsOf(id)).join() === 'box,oval');
    await app.chord(Key.CONTROL, 'z');
    await app.until('one undone', async () => (await kindsOf(id)).join() === 'box');
    await app.stored();
  }, 60_000);
});

test('a stale second tab is told and goes on as a new shot; both versions live', async () => {
  const id = await sendShot(await plainPng(600, 400, '#FFFFFF'), 'Two tabs');
  const draw = async (key: string) => {
    await app.keys(key);
    const stage = await browser.driver.findElement(By.css('[data-testid="stage"]'));
    await app.drag(stage, { x: 250, y: 200 }, { x: 400, y: 330 });
  };
  await app.go(`/shots/${id}`);
  await app.stage();
  const first = await browser.driver.getWindowHandle();
  await browser.driver.switchTo().newWindow('tab');
  await app.go(`/shots/${id}`);
  await app.stage();
  await draw('b');
  await app.stored();
  const second = await browser.driver.getWindowHandle();
  await browser.driver.switchTo().window(first);
  await draw('o');
  await app.sees('changed in another tab');
  await draw('a');
  await app.click('Go on with mine as a new shot');
  await app.until('a new address', async () => (await app.id()) !== id);
  const copy = await app.marked();
  await app.stored();
  expect((await getShot(copy)).document.marks.map((m) => m.kind)).toEqual(['oval', 'arrow']);
  expect((await getShot(id)).document.marks.map((m) => m.kind)).toEqual(['box']);
  await browser.driver.switchTo().window(second);
  await browser.driver.close();
  await browser.driver.switchTo().window(first);
}, 90_000);

test('a new take while a shot is being marked leaves that one as it was', async () => {
  await full();
  await app.keys(Key.ENTER);
  const first = await app.marked();
  await app.keys('b');
  const stage = await browser.driver.findElement(By.css('[data-testid="stage"]'));
  await app.drag(stage, { x: 250, y: 200 }, { x: 400, y: 330 });
  await app.click('Take');
  await app.desk();
  await app.keys(Key.ENTER);
  const second = await app.marked();
  expect(second).not.toBe(first);
  await app.stored();
  await app.until(
    'the first has its mark',
    async () => (await getShot(first)).document.marks.length === 1,
  );
  await browser.driver.navigate().back();
  await browser.driver.navigate().back();
  await app.until(
    'the first is open again',
    async () => (await app.id().catch(() => '')) === first,
  );
  await app.stage();
  expect(await browser.driver.findElements(By.css('[data-mark]'))).toHaveLength(1);
}, 60_000);
