import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import { chmodSync, existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { simpleParser } from 'mailparser';
import sharp from 'sharp';
import { By, Key } from 'selenium-webdriver';
import { z } from 'zod';
import { linksSchema } from '@/core/contracts/link';
import { mailDropSchema } from '@/core/contracts/mail';
import { remoteSchema, remotesSchema, sendingSchema } from '@/core/contracts/remote';
import { App, sendShot, setWay } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';
import {
  allowClipboard,
  isSent,
  lettered,
  newFolder,
  openKeep,
  readClipboard,
} from './lib/keeping';

let browser: Browser;
let app: App;
let root: string;
beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  await allowClipboard(browser);
  ({ path: root } = await newFolder('Sheds'));
}, 60_000);
afterAll(async () => {
  await setWay({ then: [{ do: 'mark' }] });
  await browser.close();
});

const select = (label: string) =>
  browser.driver.findElement(By.css(`select[aria-label="${label}"]`));
const get = async (path: string) => (await fetch(appUrl() + path)).json() as Promise<unknown>;

const ask = async (path: string, method: string, body: unknown): Promise<unknown> =>
  (
    await fetch(appUrl() + path, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
  ).json();
/** A remote folder on a machine that does not answer. */
const addRemote = async (name: string) =>
  remoteSchema.parse(await ask('/api/remotes', 'POST', { name, url: 'http://127.0.0.1:9/' })).id;

describe('links', () => {
  test('end after some views, are listed in Setup and on the Shelf, and are taken back there', async () => {
    await openKeep(app, 'One look');
    await app.click('Link');
    await app.type('Ends after so many views', '1');
    await app.click('Keep in 1 place');
    await app.sees('The link is copied');
    const once = await readClipboard(browser);
    expect((await fetch(once)).status).toBe(200);
    expect((await fetch(once)).status).toBe(404);

    const id = await openKeep(app, 'Long standing');
    await app.click('Link');
    await app.choose(await select('How long the link lasts'), 'does not end');
    await app.click('Keep in 1 place');
    await app.sees('The link is copied');
    const address = await readClipboard(browser);
    await app.go('/setup/sending');
    await app.sees('Long standing');
    const listed = await browser.driver.findElement(By.css('[aria-label="Open links"]'));
    expect(await listed.getText()).toContain('does not end by itself');
    expect(await listed.getText()).not.toContain('One look');
    await app.go('/shelf');
    await (await app.sees('Long standing')).click();
    await app.click('Take the link back');
    await app.until('taken back', async () => (await fetch(address)).status === 404);
    const { links } = linksSchema.parse(await get(`/api/shots/${id}/links`));
    expect(links).toEqual([]);
  }, 60_000);

  test('the second door is opened and shut in Setup; a taken port is said', async () => {
    await app.go('/setup/sending');
    await app.click('Reached from other machines');
    await app.type('Port', '45377');
    const door = (path: string) =>
      fetch(`http://127.0.0.1:45377${path}`).then(
        (answer) => answer.status,
        () => null,
      );
    await app.until('the door', async () => (await door('/shelf')) === 404);
    const own = new URL(appUrl()).port;
    await app.type('Port', own);
    await app.sees('is in use by another program');
    expect(await door('/shelf')).toBe(404);
    await app.click('Reached from other machines');
    await app.until('shut', async () => (await door('/shelf')) === null);
  }, 60_000);
});

describe('mail', () => {
  test('goes to whom it says, or into the mail drop that Setup shows', async () => {
    await openKeep(app, 'Slip');
    await app.click('Mail');
    await app.type('To', 'wren@fernhollow.example', Key.TAB);
    await app.type('Subject', 'The slip of bed 12', Key.TAB);
    await (await app.sees('Only into the mail drop, to try it')).click();
    await app.click('Keep in 1 place');
    await app.sees('The message lies in the mail drop');
    await app.go('/setup/sending');
    await app.sees('The slip of bed 12');
    const { messages } = mailDropSchema.parse(await get('/api/mail-drop'));
    const [newest] = messages;
    expect(newest).toMatchObject({ to: 'wren@fernhollow.example', subject: 'The slip of bed 12' });
    const file = await fetch(`${appUrl()}/api/mail-drop/${newest?.name ?? ''}`);
    const message = await simpleParser(Buffer.from(await file.arrayBuffer()));
    expect(message.attachments[0]?.contentType).toBe('image/png');
  }, 60_000);
});

describe('messages', () => {
  test('are from the address in Setup, once it is one', async () => {
    await app.go('/setup/sending');
    await app.type('Your address, from which messages are', 'wren at home');
    await app.sees('“wren at home” is no address.');
    await app.type('Your address, from which messages are', 'wren@fernhollow.example');
    const from = async () =>
      z.object({ mailFrom: z.string() }).parse(await get('/api/settings')).mailFrom;
    await app.until('the address', async () => (await from()) === 'wren@fernhollow.example');
    await app.type('Your address, from which messages are', ' ', Key.TAB);
    await app.until('none', async () => (await from()) === '');
  }, 60_000);
});

describe('remote folders', () => {
  test('what cannot be sent waits and says why; the local copy is there; it goes once the address is right', async () => {
    await app.go('/setup/sending');
    await app.click('Practice remote folder');
    await app.sees('http://127.0.0.1');
    const { remotes } = remotesSchema.parse(await get('/api/remotes'));
    const practice = remotes.find((remote) => remote.practice);
    await app.click('Add a remote folder');
    const inForm = '//*[@role="dialog"]';
    await (await app.named('Add it', inForm)).click();
    await app.sees('must not be empty');
    await app.type('Name', 'Far shed', Key.TAB);
    await app.type('Address', 'http://127.0.0.1:9/', Key.TAB);
    await (await browser.driver.findElement(By.css('[role="dialog"] select'))).sendKeys('WebP');
    await (await app.named('Add it', inForm)).click();
    await app.sees('WebP, quality 85');

    await openKeep(app, 'To the far shed');
    await app.click('Far shed');
    await app.click('Sheds');
    await app.click('Keep in 2 places');
    await app.sees('Waits for Far shed. The other machine does not answer.');
    await app.sees('Kept in Sheds');
    expect(existsSync(join(root, 'To the far shed.png'))).toBe(true);

    await app.go('/setup/sending');
    await app.sees('The other machine does not answer.');
    await app.click('Edit Far shed');
    await app.type('Address', practice?.url ?? '', Key.TAB);
    await app.type('User name', 'moss', Key.TAB);
    await app.type('Password', 'fern', Key.TAB);
    await (await app.named('Save it', inForm)).click();
    const closed = () => app.until('closed', async () => !(await app.has('[role="dialog"]')));
    await closed();
    // A password goes only where it was typed for.
    await app.click('Edit Far shed');
    await app.type('Address', 'http://127.0.0.1:10/', Key.TAB);
    await (await app.named('Save it', inForm)).click();
    await app.sees('the password must be typed again');
    await app.keys(Key.ESCAPE);
    await closed();
    await app.click('Send now');
    await app.sees('did not accept the name or the password');
    await app.click('Stop trying');
    await app.sees('stopped; it waits for you');
    await app.click('Give it up');
    await app.click('Remove Far shed');
    await app.click('Remove');
    await app.until('removed', async () =>
      remotesSchema
        .parse(await get('/api/remotes'))
        .remotes.every((remote) => remote.name !== 'Far shed'),
    );
  }, 90_000);

  test('are edited at once after they were stored: the form shows what is stored now', async () => {
    await addRemote('Slow list');
    await app.go('/setup/sending');
    await app.click('Edit Slow list');
    // The list comes late from here on.
    await browser.driver.executeScript(`
      const now = window.fetch;
      window.fetch = async (ask, init) => {
        const isList = String(ask).endsWith('/api/remotes') && (init?.method ?? 'GET') === 'GET';
        if (isList) await new Promise((done) => setTimeout(done, 1_000));
        return now(ask, init);
      };`);
    await app.type('User name', 'moss', Key.TAB);
    await (await app.named('Save it', '//*[@role="dialog"]')).click();
    await app.until('closed', async () => !(await app.has('[role="dialog"]')));
    await app.click('Edit Slow list');
    expect(await (await app.field('User name')).getAttribute('value')).toBe('moss');
    await app.keys(Key.ESCAPE);
  }, 60_000);

  test('what becomes of a copy elsewhere is seen without loading the page anew', async () => {
    const remote = await addRemote('Elsewhere');
    const shot = await sendShot(lettered(), 'Stopped elsewhere');
    const { id } = sendingSchema.parse(
      await ask(`/api/shots/${shot}/sendings`, 'POST', { remoteId: remote }),
    );
    await app.go('/setup/sending');
    await app.sees('The other machine does not answer.');
    await ask(`/api/sendings/${id}`, 'PATCH', { state: 'stopped' });
    await app.sees('stopped; it waits for you');
    await app.click('Give it up');
  }, 60_000);

  test('are places of Then', async () => {
    await app.take();
    await app.choose(await select('Another place'), 'Send to Practice');
    await app.click('Full screen');
    await app.click('Take the screen');
    const answer = By.css('[data-notice^="take "]');
    await app.until('the answer', async () => app.has('[data-notice^="take "]'));
    const key = await browser.driver.findElement(answer).getAttribute('data-notice');
    const shot = key?.slice(-36) ?? '';
    await isSent(app, shot, 'Practice remote folder');
  }, 150_000);
});

describe('clipboard', () => {
  test('takes the path of the copy that is kept at the same time; without a copy it says so', async () => {
    await openKeep(app, 'Where it lies');
    await app.click('Clipboard');
    await app.choose(await select('What goes to the clipboard'), 'the path');
    await app.click('Keep in 1 place');
    await app.sees('There is no copy yet. Choose a folder, too');
    await app.click('Sheds');
    await app.click('Keep in 2 places');
    await app.sees('The path is copied');
    expect(await readClipboard(browser)).toBe(join(root, 'Where it lies.png'));
  }, 60_000);

  test('a browser that refuses is told of, and Try again works', async () => {
    await openKeep(app, 'Refused once');
    await app.click('Clipboard');
    await browser.driver.executeScript(`
      const write = navigator.clipboard.write.bind(navigator.clipboard);
      navigator.clipboard.write = () => {
        navigator.clipboard.write = write;
        return Promise.reject(new DOMException('no', 'NotAllowedError'));
      };`);
    await app.click('Keep in 1 place');
    await app.sees('The browser did not allow copying.');
    await app.click('Try again');
    await app.sees('Copied: paste it anywhere');
  }, 60_000);
});

test('a shot that is gone meanwhile: each place says so', async () => {
  const id = await openKeep(app, 'Gone meanwhile');
  await fetch(`${appUrl()}/api/shots/${id}/bin`, { method: 'POST' });
  const gone = await fetch(`${appUrl()}/api/shots/${id}`, { method: 'DELETE' });
  expect(gone.status).toBe(204);
  await app.click('Link');
  await app.click('Mail');
  await app.click('Sheds');
  await app.click('Keep in 3 places');
  for (const words of ['No link was made.', 'No message was made.', 'Not kept in Sheds.'])
    await app.sees(`${words} The shot was deleted meanwhile.`);
}, 60_000);

describe('as a file', () => {
  test('a size on paper writes its dots per inch into the file', async () => {
    await openKeep(app, 'On paper');
    await app.click('Sheds');
    await app.choose(await select('Size'), 'For print');
    await app.type('mm wide', '60');
    await app.type('dots per inch', '254');
    await app.click('Keep in 1 place');
    await app.sees('Kept in Sheds');
    const { width, density } = await sharp(join(root, 'On paper.png')).metadata();
    expect([width, density]).toEqual([600, 254]);
  }, 60_000);

  test('that transparent parts get a colour is said before they do', async () => {
    const leaf = createCanvas(80, 60);
    leaf.getContext('2d').fillRect(20, 10, 40, 40);
    await openKeep(app, 'Leaf', leaf.toBuffer('image/png'));
    await app.click('Sheds');
    await app.click('JPEG');
    await app.sees('Transparent parts get this colour');
    await browser.driver.executeScript(`
      const field = document.querySelector('input[type="color"]');
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(field, '#e0a000');
      field.dispatchEvent(new Event('input', { bubbles: true }));`);
    await app.click('Keep in 1 place');
    await app.sees('Kept in Sheds');
    const [red = 0, green = 0, blue = 255] = await sharp(join(root, 'Leaf.jpg')).raw().toBuffer();
    expect([red > 200, green > 140 && green < 180, blue < 40]).toEqual([true, true, true]);
  }, 60_000);
});

describe('out of the window', () => {
  test('dragged out it is a file of the name it will have', async () => {
    await openKeep(app, 'Dragged out');
    await app.click('JPEG');
    const given = () =>
      browser.driver.executeScript<string>(`
      const event = new DragEvent('dragstart', { bubbles: true, dataTransfer: new DataTransfer() });
      document.querySelector('main img[alt$="as it will arrive"]')?.dispatchEvent(event);
      return event.dataTransfer.getData('DownloadURL');`);
    // Until it is made anew nothing can be dragged: never a PNG that is called a JPEG.
    let seen = await given();
    await app.until('the picture anew', async () => {
      if (seen) return true;
      seen = await given();
      return false;
    });
    expect(seen).toMatch(/^image\/jpeg:Dragged out\.jpg:blob:http/);
  }, 60_000);

  test('the browser’s share sheet gets the file, where there is one', async () => {
    const source = `
      navigator.canShare = ({ files }) => files.length === 1;
      navigator.share = ({ files: [file] }) => {
        window.shared = [file.name, file.type, file.size > 100];
        return Promise.resolve();
      };`;
    const { identifier } = (await browser.driver.sendAndGetDevToolsCommand(
      'Page.addScriptToEvaluateOnNewDocument',
      { source },
    )) as unknown as { identifier: string };
    await openKeep(app, 'Shared');
    await app.click('Share');
    expect(await browser.driver.executeScript('return window.shared')).toEqual([
      'Shared.png',
      'image/png',
      true,
    ]);
    await browser.driver.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', {
      identifier,
    });
  }, 60_000);
});

test('a listed program opens a copy from the Shelf; one that cannot start is said', async () => {
  const data = dirname(process.env.REZZIK_ROOTS ?? '');
  const [list, script, out] = ['programs.json', 'note.mjs', 'note.txt'].map((f) => join(data, f));
  if (!list || !script || !out) throw new Error('no place');
  writeFileSync(
    script,
    `import { writeFileSync } from 'node:fs'; writeFileSync(${JSON.stringify(out)}, process.argv.at(-1));`,
  );
  const programs = [
    { name: 'Note it', command: process.execPath, args: [script] },
    { name: 'Nowhere', command: '/no/such/program' },
  ];
  writeFileSync(list, JSON.stringify(programs));
  chmodSync(list, 0o600);
  await openKeep(app, 'Handed on');
  await app.click('Sheds');
  await app.click('Keep in 1 place');
  await app.sees('Kept in Sheds');
  await app.go('/shelf');
  await (await app.sees('Handed on')).click();
  await app.click('Note it');
  await app.until('handed on', () => Promise.resolve(existsSync(out)));
  expect(readFileSync(out, 'utf8')).toBe(join(root, 'Handed on.png'));
  await app.click('Nowhere');
  await app.sees('Nowhere could not be started.');
  rmSync(list);
}, 60_000);
