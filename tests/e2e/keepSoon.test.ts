import { afterEach, expect, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { copiesSchema } from '@/core/contracts/folder';
import { remoteSchema } from '@/core/contracts/remote';
import { plainPng, read, sendShot } from './lib/app';
import { appUrl } from './lib/browser';
import { heldBack, isSent, newFolder } from './lib/keeping';
import { app, browser, inOneBrowser } from './lib/suite';

// Keys that come before the page has heard what they need, and keys that are held too long.

inOneBrowser();

const copies = async (shot: string) =>
  copiesSchema.parse(await (await read(`/api/shots/${shot}/copies`)).json()).copies;

const newShot = async (title: string) => sendShot(await plainPng(300, 200, '#56B4E9'), title);

/** In how many places the button says that it keeps. */
const places = async () =>
  Number(/\d+/.exec(await (await app.named('Keep in ')).getText())?.[0] ?? NaN);

const made: string[] = [];
afterEach(async () => {
  for (const path of made.splice(0)) await fetch(`${appUrl()}${path}`, { method: 'DELETE' });
});

test('Keep, asked twice in a row from Mark, keeps, although the folders come later', async () => {
  const folder = await newFolder('Soon', { isDefault: true });
  made.push(`/api/folders/${folder.id}`);
  const id = await newShot('Pond edge');
  await app.openShot(id);
  const answer = await heldBack('/api/folders');
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('Waiting until the shot is stored');
  await app.chord(Key.CONTROL, Key.ENTER);
  await answer.comes();
  await app.sees('Kept in Soon');
  expect(await copies(id)).toHaveLength(1);
}, 60_000);

test('a remote folder that was chosen is sent to, although its name comes later', async () => {
  const answer = await fetch(`${appUrl()}/api/remotes/practice`, { method: 'POST' });
  const remote = remoteSchema.parse(await answer.json());
  made.push(`/api/remotes/${remote.id}`);
  const id = await newShot('Gate avenue');
  await app.go(`/shots/${id}/keep`);
  await app.click(remote.name);
  await app.chord(Key.SHIFT, 'm');
  await app.stage();
  const answers = await heldBack('/api/remotes');
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.named('Clipboard');
  await app.chord(Key.CONTROL, Key.ENTER);
  await answers.comes();
  await isSent(app, id, remote.name);
}, 60_000);

test('a place that was chosen and removed since is told, and not called kept', async () => {
  // The first folder of all would be the default one, and chosen by itself.
  const [usual, folder] = [await newFolder('Usual'), await newFolder('Brief')];
  made.push(`/api/folders/${usual.id}`);
  const id = await newShot('North bank');
  await app.go(`/shots/${id}/keep`);
  await app.click('Brief');
  const before = await places();
  await app.chord(Key.SHIFT, 'm');
  await app.stage();
  await fetch(`${appUrl()}/api/folders/${folder.id}`, { method: 'DELETE' });
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.named('Clipboard');
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('It was removed in Setup.');
  await app.sees('Not kept in every place.');
  expect((await copies(id)).filter(({ path }) => path.startsWith(folder.path))).toEqual([]);
  // It is not asked for again.
  expect(await places()).toBe(before - 1);
}, 60_000);

/** Enter held down, until what it was pressed for is seen, and for longer. */
async function holdsEnter(modifiers: number, until: string): Promise<void> {
  const held = { type: 'rawKeyDown', key: 'Enter', code: 'Enter', windowsVirtualKeyCode: 13 };
  for (const autoRepeat of [false, true, true, true]) {
    const event = { ...held, text: '\r', modifiers, autoRepeat };
    await browser.driver.sendDevToolsCommand('Input.dispatchKeyEvent', event);
    await app.sees(until);
  }
}

test.each([
  ['Ctrl and Enter', '', 2],
  ['Enter in the name that Keep asks for', '?ask', 0],
])(
  '%s held down keep once',
  async (_keys, asked, modifiers) => {
    const folder = await newFolder('Held', { isDefault: true });
    made.push(`/api/folders/${folder.id}`);
    const id = await newShot('Bed 7');
    await app.go(`/shots/${id}/keep${asked}`);
    await app.named('Keep in 1 place');
    await holdsEnter(modifiers, 'Kept in Held');
    expect(await copies(id)).toHaveLength(1);
  },
  60_000,
);
