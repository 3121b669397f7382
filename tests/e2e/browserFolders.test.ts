import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { App } from './lib/app';
import { openBrowser, type Browser } from './lib/browser';
import { lettered, openKeep } from './lib/keeping';

// A browser without a screen shows no dialog to choose a folder in. Its private file system has
// folders of the very same kind, which are given instead; permission is the page's own to answer.
const chooser = `
  window.showDirectoryPicker = async () => {
    const root = await navigator.storage.getDirectory();
    return root.getDirectoryHandle('Garden pictures', { create: true });
  };
  const answer = () => Promise.resolve(sessionStorage.getItem('may') ?? 'granted');
  FileSystemHandle.prototype.queryPermission = answer;
  FileSystemHandle.prototype.requestPermission = () => {
    sessionStorage.setItem('asked', 'yes');
    return answer();
  };`;

let browser: Browser;
let app: App;
beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  await browser.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
    source: chooser,
  });
}, 60_000);
afterAll(() => browser.close());

/** Every file in the folder with its first bytes, which tell its format. */
const filesInside = () =>
  browser.driver.executeAsyncScript<Record<string, number[]>>(`
    const done = arguments[0];
    const found = {};
    const walk = async (folder, way) => {
      for await (const [name, entry] of folder.entries()) {
        if (entry.kind === 'directory') await walk(entry, way + name + '/');
        else {
          const bytes = new Uint8Array(await (await entry.getFile()).arrayBuffer());
          found[way + name] = [...bytes.slice(0, 4)];
        }
      }
    };
    navigator.storage.getDirectory()
      .then((root) => root.getDirectoryHandle('Garden pictures'))
      .then((folder) => walk(folder, ''))
      .then(() => done(found), (error) => done({ [String(error)]: [] }));`);

const PNG = [0x89, 0x50, 0x4e, 0x47];
const JPEG = [0xff, 0xd8, 0xff];
const may = (state: string) =>
  browser.driver.executeScript(`sessionStorage.setItem('may', ${JSON.stringify(state)})`);

describe('a folder of the computer the browser runs on', () => {
  test('is chosen in Keep, written into without overwriting, and remembered', async () => {
    await openKeep(app, 'Marigold');
    await app.click('Another folder, for this browser');
    await app.sees('written by this browser');
    await app.type('Name', '{title}');
    await app.click('Keep in 1 place');
    await app.sees('Kept in Garden pictures: Marigold.png');
    await app.click('Keep in 1 place');
    await app.sees('Kept in Garden pictures: Marigold-2.png');
    const files = await filesInside();
    expect(Object.keys(files).sort()).toEqual(['Marigold-2.png', 'Marigold.png']);
    expect(files['Marigold.png']).toEqual(PNG);
    await browser.driver.navigate().refresh();
    await app.sees('written by this browser');
  }, 60_000);

  test('has rules of its own, set in Setup', async () => {
    await app.go('/setup/folders');
    await app.click('Edit Garden pictures');
    await app.type('Name', 'Garden', Key.TAB);
    const format = await browser.driver.findElement(By.css('[role="dialog"] select'));
    await app.choose(format, 'JPEG');
    await app.type('Name pattern', '{date:yyyy}/{title:lower,-} {n:2}');
    await app.until(
      'saved',
      async () => (await browser.driver.findElements(By.css('[role="dialog"]'))).length === 0,
    );
    await app.sees('JPEG');
    await openKeep(app, 'Pond Edge');
    await app.click('Garden');
    await app.click('Keep in 1 place');
    await app.sees('Kept in Garden: ');
    const files = await filesInside();
    const kept = Object.keys(files).find((name) => name.endsWith('/pond-edge 01.jpg'));
    expect(files[kept ?? '']?.slice(0, 3)).toEqual(JPEG);
  }, 60_000);

  test('asks again for permission; a refusal is said, and Try again works once allowed', async () => {
    await openKeep(app, 'Refused');
    await may('denied');
    await app.click('Garden');
    await app.type('Name', '{title}');
    await app.click('Keep in 1 place');
    await app.sees('The browser may not write into “Garden”');
    await app.sees('The shot itself is safe');
    const asked = await browser.driver.executeScript("return sessionStorage.getItem('asked')");
    expect(asked).toBe('yes');
    expect(Object.keys(await filesInside()).join()).not.toContain('Refused');
    await may('granted');
    await app.click('Try again');
    await app.sees('Kept in Garden: Refused.jpg');
  }, 60_000);

  test('two tabs that keep at once under one name overwrite nothing', async () => {
    const id = await openKeep(app, 'Twice', lettered());
    const first = await browser.driver.getWindowHandle();
    await browser.driver.switchTo().newWindow('tab');
    await browser.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
      source: chooser,
    });
    const second = await browser.driver.getWindowHandle();
    for (const tab of [first, second]) {
      await browser.driver.switchTo().window(tab);
      await app.go(`/shots/${id}/keep`);
      await app.click('Garden');
      await app.type('Name', '{title}');
    }
    for (const tab of [second, first]) {
      await browser.driver.switchTo().window(tab);
      await app.click('Keep in ');
    }
    const kept = async () =>
      Object.entries(await filesInside()).filter(([name]) => name.startsWith('Twice'));
    await app.until('two whole files', async () => {
      const files = await kept();
      return files.length === 2 && files.every(([, bytes]) => bytes.length === 4);
    });
    expect((await kept()).map(([name]) => name).sort()).toEqual(['Twice-2.jpg', 'Twice.jpg']);
    await browser.driver.switchTo().window(second);
    await browser.driver.close();
    await browser.driver.switchTo().window(first);
  }, 60_000);

  test('is one of the places of Then, and is forgotten in Setup', async () => {
    await app.take();
    const more = await browser.driver.findElement(By.css('select[aria-label="Another place"]'));
    await app.choose(more, 'Keep in Garden');
    await app.click('Full screen');
    await app.click('Take the screen');
    await app.sees('Kept in Garden: ');
    await app.go('/setup/folders');
    await app.click('Forget Garden');
    await app.until(
      'forgotten',
      async () =>
        (await browser.driver.findElements(By.css('[aria-label="Edit Garden"]'))).length === 0,
    );
  }, 60_000);
});
