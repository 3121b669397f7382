import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { z } from 'zod';
import { App, getPixels, getShot, plainPng } from '@/tests/e2e/lib/app';
import { fakeDevices, openBrowser, type Browser } from '@/tests/e2e/lib/browser';
import { allowClipboard } from '@/tests/e2e/lib/keeping';
import { OwnApp } from './lib/ownApp';

/** The interface while its server is stopped, killed, and another one in its place. */

jest.setTimeout(120_000);

const data = join(process.env.REZZIK_DATA ?? '', 'offline');
let own: OwnApp;
let browser: Browser;
let app: App;
const start = (port?: number) =>
  OwnApp.start({ data, databaseUrl: process.env.DATABASE_URL ?? '', ...(port && { port }) });

beforeAll(async () => {
  mkdirSync(data, { recursive: true });
  own = await start();
  process.env.REZZIK_URL = own.url;
  browser = await openBrowser({
    args: fakeDevices,
  });
  app = new App(browser.driver);
  await allowClipboard(browser);
});
afterAll(async () => {
  await browser.close();
  await own.end();
});

const run = <T>(script: string, ...args: unknown[]): Promise<T> =>
  browser.driver.executeAsyncScript<T>(script, ...args);

/** Pastes a picture, as a person who copied it elsewhere does. */
async function paste(png: Buffer): Promise<void> {
  await run(
    `const [base64, done] = arguments;
     const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
     const data = new DataTransfer();
     data.items.add(new File([bytes], 'pasted.png', { type: 'image/png' }));
     document.body.dispatchEvent(
       new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
     done();`,
    png.toString('base64'),
  );
}

const shots = async () =>
  z
    .object({ shots: z.array(z.object({ id: z.string() })) })
    .parse(await (await fetch(`${own.url}/api/shots`)).json()).shots;

test('Take opens, a picture is pasted, marked and held; all of it comes once the server is back', async () => {
  await app.go('/take');
  // It is made ready some seconds after a page has come.
  await run(`navigator.serviceWorker.ready.then(() => arguments[0]())`);
  const { port } = own;
  await own.end('SIGKILL');
  await app.go('/take');
  await app.sees('Full screen');
  await app.go('/shelf');
  await app.until('Take, in place of what needs the server', async () =>
    (await browser.driver.getCurrentUrl()).endsWith('/take'),
  );
  await app.sees('Full screen');
  await paste(await plainPng(120, 80, '#009E73'));
  const id = await app.marked();
  await app.keys('b');
  const stage = await app.stage();
  const { width, height } = await stage.getRect();
  const [x, y] = [width / 2, height / 2];
  await app.drag(stage, { x: x - 20, y: y - 15 }, { x: x + 20, y: y + 15 });
  await app.until('it waits', async () => (await app.held('outbox', 'true')) === 1);
  // Another tab, and the same one anew, hold no more than that.
  await app.go('/take');
  await app.sees('Full screen');
  expect(await app.held('outbox', 'true')).toBe(1);
  own = await start(port);
  await app.until('it came', async () => (await shots()).length === 1, 60_000);
  expect((await shots())[0]?.id).toBe(id);
  await app.until('the mark', async () => (await getShot(id)).document.marks.length === 1);
  expect((await getPixels(id, 'frame')).width).toBe(120);
  await app.until('nothing waits', async () => (await app.held('outbox', 'true')) === 0);
  expect(await shots()).toHaveLength(1);
});

test.each([
  ['Camera', 'Open the camera', 'camera'],
  ['Shared screen', 'Share a screen', 'screen'],
])('a picture of the source %s is taken without a server, too', async (chip, open, source) => {
  const { port } = own;
  const before = (await shots()).length;
  await app.go('/take');
  await own.end('SIGKILL');
  await app.go('/take');
  await app.click(chip);
  await app.click(open);
  await app.until('it is live', () =>
    run<boolean>('arguments[0]((document.querySelector("video")?.currentTime ?? 0) > 0.1)'),
  );
  await app.keys('1', Key.ENTER);
  const id = await app.marked();
  await app.until('it waits', async () => (await app.held('outbox', 'true')) === 1);
  own = await start(port);
  await app.until('it came', async () => (await shots()).length === before + 1, 60_000);
  expect((await getShot(id)).provenance.source).toBe(source);
});

test('no picture is among what it holds', async () => {
  const held = await run<string[]>(
    `const done = arguments[0];
     caches.keys().then(async (names) => {
       const all = await Promise.all(names.map(async (name) =>
         (await (await caches.open(name)).keys()).map(({ url }) => new URL(url).pathname)));
       done(all.flat());
     });`,
  );
  expect(held).toContain('/take');
  expect(held.length).toBeGreaterThan(20);
  expect(held.filter((path) => !/^\/(take$|_next\/static\/|fonts\/)/.test(path))).toEqual([]);
});

test('a newer version waits until no page of the older one is open', async () => {
  await app.go('/take');
  const changed = await run<string>(
    `const done = arguments[0];
     navigator.serviceWorker.getRegistration().then(async (at) => {
       await at.update();
       done(String(at.waiting !== null) + ' ' + (await caches.keys()).length);
     }).catch((error) => done(String(error)));`,
  );
  // The same build is no newer version.
  expect(changed).toBe('false 1');
  const more = join(process.env.REZZIK_DIST ?? '', 'static', 'media', 'newer.css');
  const { port } = own;
  await own.end();
  writeFileSync(more, '');
  try {
    own = await start(port);
    // Held at first, since this page is of the older one; with the page it goes.
    const waiting = await run<string>(
      `const done = arguments[0];
       navigator.serviceWorker.getRegistration().then(async (at) => {
         // Where a file did not come, as from a server that has just begun, it is given up: asked anew.
         for (let i = 0; at.waiting === null; i += 1) {
           if (i % 50 === 0 && !at.installing) await at.update().catch(() => undefined);
           await new Promise((rest) => setTimeout(rest, 20));
         }
         done(String((await caches.keys()).length));
       }).catch((error) => done(String(error)));`,
    );
    expect(waiting).toBe('2');
    await app.driver.get('about:blank');
    await app.go('/take');
    await app.until('the newer one alone', async () => {
      const held = await run<string[]>(
        `const done = arguments[0];
         caches.keys().then(async (names) => done([String(names.length),
           ...(await (await caches.open(names[0])).keys()).map(({ url }) => url)]));`,
      );
      return held[0] === '1' && held.some((url) => url.endsWith('newer.css'));
    });
  } finally {
    rmSync(more);
  }
});
