import { afterAll, afterEach, beforeAll, expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key, until } from 'selenium-webdriver';
import { firstWay, type Way } from '@/core/contracts/way';
import { DavServer, wren } from '@/tests/lib/davServer';
import { App, getShot, setWay, WAIT } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';
import { addRoutine, Hand, post, promised } from './lib/hand';
import { readClipboard } from './lib/keeping';

let browser: Browser;
let app: App;
let folder: string;
const routines: string[] = [];

const routine = async (key: string, way: Partial<Way>): Promise<void> => {
  routines.push(await addRoutine(key, way));
};

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  folder = join(process.env.REZZIK_ROOTS ?? '', 'actions');
  await post('/api/folders', {
    name: 'Actions',
    path: folder,
    format: 'jpeg',
    make: true,
    isDefault: true,
  });
  await browser.driver.sendDevToolsCommand('Browser.grantPermissions', {
    permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
    origin: appUrl(),
  });
}, 60_000);
afterEach(async () => {
  for (const id of routines.splice(0)) {
    await fetch(`${appUrl()}/api/routines/${id}`, { method: 'DELETE' });
  }
  await setWay(firstWay);
});
afterAll(() => browser.close());

const files = (): string[] => readdirSync(folder);
const keptOneMore = async (act: () => Promise<void>): Promise<void> => {
  const before = files().length;
  await act();
  await app.until('a kept file', () => Promise.resolve(files().length === before + 1));
};

test('region to the clipboard', async () => {
  await routine('f2', { kind: 'region', atOnce: true, then: [{ do: 'copy' }] });
  await app.take();
  await app.sees('By f2');
  const hand = new Hand(app);
  await hand.key(Key.F2);
  await hand.drag({ x: 40, y: 60 }, { x: 240, y: 160 });
  await app.sees('Copied: paste it anywhere');
  const { width } = await app.pasted();
  expect(width).toBeGreaterThan(200);
  expect(hand.actions).toBe(promised.get('Region to the clipboard'));
}, 60_000);

test('region to an address that others see', async () => {
  const server = await DavServer.start('apache', { login: 'basic' });
  const remote = await post('/api/remotes', {
    ...{ name: 'Shed', url: server.url, ...wren, pattern: '{title}' },
    address: `${server.url}seen/{name}`,
  });
  try {
    const then: Way['then'] = [{ do: 'send', remoteId: remote.id }];
    await routine('f2', { kind: 'region', atOnce: true, then });
    await app.take();
    await app.sees('By f2');
    const hand = new Hand(app);
    await hand.key(Key.F2);
    await hand.drag({ x: 40, y: 60 }, { x: 240, y: 160 });
    await app.sees('Its address is copied');
    expect((await fetch(await readClipboard(browser))).status).toBe(200);
    expect(hand.actions).toBe(promised.get('Region to an address that others see'));
  } finally {
    await fetch(`${appUrl()}/api/remotes/${remote.id}`, { method: 'DELETE' });
    await server.close();
  }
});

test('window to the clipboard', async () => {
  await routine('f2', { kind: 'window', then: [{ do: 'copy' }] });
  await app.take();
  await app.sees('By f2');
  const hand = new Hand(app);
  await hand.key(Key.F2);
  const still = await browser.driver.wait(
    until.elementLocated(By.css('[data-testid="still"]')),
    WAIT,
  );
  const scale = (await still.getRect()).width / 3040;
  await hand.does(() => app.clickAt(still, { x: 100 * scale, y: 400 * scale }));
  await app.sees('Copied: paste it anywhere');
  expect((await app.pasted()).width).toBe(700);
  expect(hand.actions).toBe(promised.get('Window to the clipboard'));
}, 60_000);

test.each([
  ['The window in use into the default folder', { kind: 'window', inUse: true }],
  ['Full screen into the default folder', { kind: 'full' }],
] as const)(
  '%s',
  async (job, way) => {
    await routine('f2', { ...way, then: [{ do: 'keep', folderId: null }] });
    await app.take();
    await app.sees('By f2');
    const hand = new Hand(app);
    await keptOneMore(() => hand.key(Key.F2));
    expect(hand.actions).toBe(promised.get(job));
  },
  60_000,
);

test('the same region again into a folder', async () => {
  await routine('f2', { kind: 'region', atOnce: true, then: [] });
  await routine('f3', { kind: 'repeat', then: [{ do: 'keep', folderId: null }] });
  await app.take();
  await app.sees('By f3');
  const before = new Hand(app);
  await before.key(Key.F2);
  await before.drag({ x: 40, y: 60 }, { x: 240, y: 160 });
  await app.sees('On the Shelf');
  const hand = new Hand(app);
  await keptOneMore(() => hand.key(Key.F3));
  expect(hand.actions).toBe(promised.get('The same region again into a folder'));
}, 60_000);

test('an open menu, with a delay, to a picture ready to mark', async () => {
  await routine('f2', { kind: 'full', delay: 2, then: [{ do: 'mark' }] });
  const desk = await app.take();
  await app.sees('By f2');
  const hand = new Hand(app);
  const place = await app.onDesk('menu:Beds');
  // From here the delay runs.
  await hand.key(Key.F2);
  await hand.does(() => app.clickAt(desk, place));
  const id = await app.marked();
  await app.stored();
  expect((await getShot(id)).width).toBe(1440);
  expect(hand.actions).toBeLessThanOrEqual(
    promised.get('An open menu to a picture ready to mark') ?? 0,
  );
}, 60_000);

test('a region with something circled, as JPEG in a folder', async () => {
  await routine('f2', { kind: 'region', atOnce: true, then: [{ do: 'mark' }] });
  await app.take();
  await app.sees('By f2');
  const hand = new Hand(app);
  await hand.key(Key.F2);
  await hand.drag({ x: 40, y: 60 }, { x: 440, y: 360 });
  const id = await app.marked();
  await hand.key('o');
  hand.actions += 1;
  const stage = await app.stage();
  const size = await stage.getRect();
  await app.drag(
    stage,
    { x: size.width / 2 - 60, y: size.height / 2 - 40 },
    { x: size.width / 2 + 60, y: size.height / 2 + 40 },
  );
  await app.stored();
  await keptOneMore(() => hand.key(Key.CONTROL, Key.SHIFT, Key.ENTER));
  expect(files().some((name) => /\.jpe?g$/.test(name))).toBe(true);
  expect((await getShot(id)).document.marks).toHaveLength(1);
  expect(hand.actions).toBe(promised.get('A region, something circled, as JPEG in a folder'));
}, 60_000);
