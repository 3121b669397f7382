import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdirSync, readFileSync, readdirSync, renameSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key, until } from 'selenium-webdriver';
import sharp from 'sharp';
import { App, decode, plainPng, sendShot, WAIT } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;
const root = join(process.env.REZZIK_ROOTS ?? '', 'keep');

beforeAll(async () => {
  mkdirSync(root, { recursive: true });
  browser = await openBrowser();
  app = new App(browser.driver);
}, 120_000);
afterAll(() => browser.close());

const setField = async (label: string, value: string) => {
  const field = await app.field(label);
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), value);
};

describe('folders in Setup', () => {
  test('a path is checked when it is entered, made on request, and named as set', async () => {
    await app.go('/setup/folders');
    await app.click('Add a folder');
    await setField('Name', 'Guides');
    await setField('Path', '/etc');
    await app.click('Add the folder');
    await app.sees('This path is outside');
    await setField('Path', join(root, 'guides'));
    await setField('Name pattern', '{titel}');
    await app.click('Add the folder');
    await app.sees('There is no field {titel}');
    await setField('Name pattern', '{title}-{n:3}');
    await app.sees('Seed order slip-007.png');
    await app.sees('The folder is made if it is not there.');
    await app.click('Add the folder');
    await app.until('closed', async () => !(await app.has('[role="dialog"]')));
    await app.sees(join(root, 'guides'));
    expect(readdirSync(root)).toContain('guides');
  }, 60_000);

  test('a folder is edited and removed; what is in it stays', async () => {
    mkdirSync(join(root, 'short'));
    await app.click('Add a folder');
    await setField('Name', 'Short');
    // The path follows the name until it is chosen, here by looking through the roots.
    expect(await (await app.field('Path')).getAttribute('value')).toMatch(/\/Short$/);
    await app.click('Browse');
    await app.click('keep');
    await app.click('short');
    await app.until('chosen', async () =>
      (await browser.driver.findElement(By.css('[role="dialog"]')).getText()).includes(
        join(root, 'short'),
      ),
    );
    await app.click('Use this one');
    expect(await (await app.field('Path')).getAttribute('value')).toBe(join(root, 'short'));
    await app.click('Add the folder');
    await app.click('Edit Short');
    await setField('Name', 'Shorter');
    await app.click('Save the folder');
    await app.click('Remove Shorter');
    await app.click('Remove');
    await app.until('removed', async () => !(await app.has('[aria-label="Edit Shorter"]')));
    expect(readdirSync(root)).toContain('short');
  }, 60_000);
});

describe('Keep', () => {
  const open = async (title: string, picture?: Buffer) => {
    const id = await sendShot(picture ?? (await plainPng(300, 200, '#56B4E9')), title);
    await app.go(`/shots/${id}/keep`);
    const choose = await app.named('Guides');
    if ((await choose.getAttribute('aria-checked')) === 'false') await choose.click();
    for (const other of await browser.driver.findElements(
      By.css('[role="switch"][aria-checked="true"]'),
    )) {
      if ((await other.getAttribute('id')) !== (await choose.getAttribute('id')))
        await other.click();
    }
    await app.sees('Keep in 1 place');
    return id;
  };
  const path = async () =>
    (
      await browser.driver.wait(until.elementLocated(By.css('[data-testid="path"]')), WAIT)
    ).getText();

  test('PNG with a number that counts on; what is shown beforehand is what is written', async () => {
    await open('Pond edge');
    await app.click('PNG');
    await app.sees('Pond edge-001.png');
    await app.until('a size', async () =>
      /\d (bytes|KB)/.test(await (await browser.driver.findElement(By.css('main'))).getText()),
    );
    await app.chord(Key.CONTROL, Key.ENTER);
    expect(await path()).toBe(join(root, 'guides', 'Pond edge-001.png'));
    const picture = await decode(readFileSync(await path()));
    expect([picture.width, picture.height]).toEqual([300, 200]);
    expect([...picture.data.subarray(0, 3)]).toEqual([0x56, 0xb4, 0xe9]);
  }, 60_000);

  test('JPEG: the quality changes the size before anything is kept', async () => {
    // Of one colour a picture is as small at every quality.
    const grained = { type: 'gaussian', mean: 128, sigma: 40 } as const;
    const create = { width: 300, height: 200, channels: 3, background: '#FFFFFF' } as const;
    await open(
      'Gate avenue',
      await sharp({ create: { ...create, noise: grained } })
        .png()
        .toBuffer(),
    );
    await app.click('JPEG');
    const size = async () =>
      /· ([\d.,]+ \w+) · quality/.exec(
        await browser.driver.executeScript<string>(
          `return document.querySelector('main').textContent`,
        ),
      )?.[1];
    await app.until('a size', async () => (await size()) !== undefined);
    const before = await size();
    const slider = await browser.driver.findElement(By.css('[role="slider"]'));
    await slider.sendKeys(Key.HOME);
    await app.until(
      'another size',
      async () => (await size()) !== undefined && (await size()) !== before,
    );
  }, 60_000);

  test('a folder that vanished: the reason, the shot safe, one click to try again', async () => {
    await open('North bank');
    renameSync(join(root, 'guides'), join(root, 'elsewhere'));
    await app.click('Keep in 1 place');
    await app.sees('Not kept in ');
    await app.sees('The shot itself is safe');
    renameSync(join(root, 'elsewhere'), join(root, 'guides'));
    await app.click('Try again');
    expect(await path()).toMatch(/North bank-\d{3}\.png$/);
  }, 60_000);

  test('an impossible name is made safe, and seen so beforehand', async () => {
    await open('con/.. "gate"?');
    await app.type('Name', '{title}', Key.TAB);
    await app.sees('gives');
    await app.click('Keep in 1 place');
    expect(await path()).toMatch(/guides\/con-\.\. -gate/);
  }, 60_000);

  test('the path is copied by a click', async () => {
    await browser.driver.sendDevToolsCommand('Browser.grantPermissions', {
      permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
      origin: appUrl(),
    });
    await app.click('Copy path');
    await app.sees('Path copied');
    const copied = await browser.driver.executeAsyncScript<string>(
      'navigator.clipboard.readText().then(arguments[0])',
    );
    expect(copied).toBe(await path());
  }, 60_000);
});
