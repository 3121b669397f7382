import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import { By, Key } from 'selenium-webdriver';
import { remotesSchema } from '@/core/contracts/remote';
import { DavServer, wren } from '@/tests/lib/davServer';
import { App } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';
import { allowClipboard, openKeep, readClipboard } from './lib/keeping';

// Servers that others wrote, set up and sent to in the interface.

let browser: Browser;
let app: App;
beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  await allowClipboard(browser);
}, 60_000);
afterAll(() => browser.close());

const remotes = async () =>
  remotesSchema.parse(await (await fetch(`${appUrl()}/api/remotes`)).json()).remotes;

test('one certificate is trusted by its fingerprint; what is sent there is seen by its address', async () => {
  const server = await DavServer.start('apache', { login: 'digest', tls: true });
  const open = await DavServer.start('apache', { login: 'basic' });
  try {
    const inForm = '//*[@role="dialog"]';
    await app.go('/setup/sending');
    await app.click('Add a remote folder');
    await app.type('Name', 'Glasshouse', Key.TAB);
    await app.type('Address', server.url, Key.TAB);
    await app.type('User name', wren.username, Key.TAB);
    await app.type('Password', wren.password, Key.TAB);
    await app.type('Address under which others see its files, if they do', 'https://a', Key.TAB);
    await (await app.named('Add it', inForm)).click();
    await app.sees('must hold {name}, for the name of the file');
    const address = `${open.url}seen/{name}`;
    await app.type('Address under which others see its files, if they do', address, Key.TAB);
    await (await app.named('Add it', inForm)).click();
    await app.sees('is signed by itself alone');
    expect(await remotes()).toEqual([]);
    await app.click('Trust this certificate');
    await app.sees('Glasshouse');
    const [added] = await remotes();
    expect(added).toMatchObject({ fingerprint: server.fingerprint, address, readable: false });

    await openKeep(app, 'Bed 7');
    await app.click('Glasshouse');
    await app.click('Keep in 1 place');
    await app.sees('It is not seen at');
    const [name = ''] = readdirSync(server.kept);
    expect(name).toMatch(/^Bed 7 .*\.png$/);
  } finally {
    await server.close();
    await open.close();
  }
}, 90_000);

test('a password is not sent readable to another machine before that is allowed', async () => {
  await app.go('/setup/sending');
  await app.click('Add a remote folder');
  await app.type('Address', 'http://shed.example/', Key.TAB);
  await app.type('User name', 'wren', Key.TAB);
  await app.sees('The password may be read on the way');
  const allowed = await app.named('The password may be read on the way');
  expect(await allowed.getAttribute('aria-checked')).toBe('false');
  await app.type('Address', 'https://shed.example/', Key.TAB);
  const dialog = await browser.driver.findElement(By.css('[role="dialog"]'));
  await app.until(
    'nothing to allow',
    async () => !(await dialog.getText()).includes('may be read on the way'),
  );
}, 60_000);

test('where others see it, the address of what was sent is on the clipboard', async () => {
  const server = await DavServer.start('apache', { login: 'basic' });
  try {
    const input = { name: 'Shed', url: server.url, ...wren, pattern: '{title}' };
    await fetch(`${appUrl()}/api/remotes`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ ...input, address: `${server.url}seen/{name}` }),
    });
    await openKeep(app, 'Störung 3');
    await app.click('Shed');
    await app.click('Keep in 1 place');
    await app.sees('Its address is copied');
    const address = await readClipboard(browser);
    expect(address).toBe(`${server.url}seen/St%C3%B6rung%203.png`);
    expect((await fetch(address)).status).toBe(200);
  } finally {
    await server.close();
  }
}, 90_000);
