import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import { By, Key, until } from 'selenium-webdriver';
import { foldersSchema } from '@/core/contracts/folder';
import { firstWay, type Way } from '@/core/contracts/way';
import { App, getShot, listShots, plainPng, sendShot, setWay, WAIT } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';
import { addRoutine } from './lib/hand';
import { allowClipboard, lettered, newFolder } from './lib/keeping';

let browser: Browser;
let app: App;
const routines: string[] = [];
const routine = async (key: string, way: Partial<Way>) => {
  routines.push(await addRoutine(key, way));
};

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  await allowClipboard(browser);
  await browser.driver.sendDevToolsCommand('Network.enable', {});
}, 60_000);
beforeEach(() => setWay(firstWay));
afterEach(async () => {
  for (const id of routines.splice(0))
    await fetch(`${appUrl()}/api/routines/${id}`, { method: 'DELETE' });
});
afterAll(() => browser.close());

const at = (end: string) =>
  app.until(end, async () => (await browser.driver.getCurrentUrl()).endsWith(end));
const listFolders = async () =>
  foldersSchema.parse(await (await fetch(`${appUrl()}/api/folders`)).json());
const removeFolder = (id: string) => fetch(`${appUrl()}/api/folders/${id}`, { method: 'DELETE' });

/** Waits until the browser's trail knows of something, whatever answer stands in front. */
const trailHolds = (words: string) =>
  app.until(words, () =>
    browser.driver.executeScript<boolean>(
      "return (localStorage.getItem('rezzik-trail') ?? '').includes(arguments[0])",
      words,
    ),
  );
/** Requests to these addresses fail, as if the server did not answer. */
const block = (urls: string[]): Promise<unknown> =>
  browser.driver.sendDevToolsCommand('Network.setBlockedURLs', { urls });

describe('what became of a take', () => {
  afterEach(() => block([]));
  const waiting = async () => {
    const tag = { do: 'tag' as const, tags: ['Frost'] };
    await routine('f2', { then: [{ do: 'keep', folderId: null }, tag] });
    await app.take();
    await app.sees('By f2');
    await block([`${appUrl()}/api/*`]);
    await app.keys(Key.F2);
    await trailHolds('Tag: Frost');
  };
  const trail = async () => {
    await app.chord(Key.SHIFT, 'l');
    await app.sees('The last takes, and what became of each.');
    return browser.driver.findElements(By.css('[role="dialog"] li'));
  };

  test('what waits for its turn is in the trail, too, when the page is left', async () => {
    await waiting();
    await browser.driver.navigate().refresh();
    await app.desk();
    const [newest] = await trail();
    const said = await newest?.getText();
    expect(said).toContain('Keep in a folder was cut off when the page was left.');
    expect(said).toContain('Tag: Frost was cut off when the page was left.');
    await app.keys(Key.ESCAPE);
  });

  test('nothing more is done with a take that was thrown away', async () => {
    await waiting();
    await app.chord(Key.SHIFT, 't');
    await trailHolds('"gone":true');
    await block([]);
    await trailHolds('Tag: Frost: not begun');
    await trailHolds('Tagged: Frost');
    const [, thrown] = await trail();
    const said = await thrown?.getText();
    expect(said).toContain('thrown away');
    expect(said).toContain('Not kept in a folder. The take was thrown away.');
    expect(said).not.toContain('Try again');
    await app.keys(Key.ESCAPE);
  });

  test('is in the trail, also after a reload; what failed is tried again from there', async () => {
    await routine('f2', { then: [{ do: 'keep', folderId: null }, { do: 'copy' }] });
    await app.take();
    await app.sees('By f2');
    await app.keys(Key.F2);
    await app.sees('Not kept in a folder. No default folder is set up yet.');
    // The answer of what failed stands in front; the trail knows when the copy is done.
    await trailHolds('Copied: paste it anywhere');
    await browser.driver.navigate().refresh();
    await app.desk();
    await app.chord(Key.SHIFT, 'l');
    await app.sees('The last takes, and what became of each.');
    const dialog = await browser.driver.findElement(By.css('[role="dialog"]'));
    const newest = await dialog.findElement(By.css('li'));
    expect(await newest.getText()).toContain('No default folder is set up yet.');
    expect(await newest.getText()).toContain('Copied: paste it anywhere');
    const { id } = await newFolder('Later', { isDefault: true });
    await (await newest.findElement(By.xpath('.//button[.="Try again"]'))).click();
    await app.until('kept', async () => (await newest.getText()).includes('Kept: '));
    await removeFolder(id);
    await app.keys(Key.ESCAPE);
    await app.until('closed', async () => !(await app.has('[role="dialog"]')));
  }, 60_000);

  test('thrown away, it is taken again the same way, whatever the panel says', async () => {
    await routine('f2', { kind: 'window', inUse: true, then: [{ do: 'mark' }] });
    await app.take();
    await app.sees('By f2');
    await app.keys(Key.F2);
    const first = await app.marked();
    await app.stored();
    const { width } = (await getShot(first)).document.view.crop;
    await app.chord(Key.SHIFT, 't');
    await app.until(
      'another shot',
      async () => /shots/.test(await browser.driver.getCurrentUrl()) && (await app.id()) !== first,
    );
    const second = await app.marked();
    await app.stored();
    expect((await getShot(second)).document.view.crop.width).toBe(width);
    expect((await getShot(first)).binnedAt).not.toBeNull();
  }, 60_000);

  test('a routine started in Mark or on the Shelf leads back there; the shot in hand stays', async () => {
    await routine('f2', { kind: 'window', inUse: true, then: [{ do: 'copy' }] });
    const id = await sendShot(await plainPng(60, 40, '#009E73'), 'In hand');
    await app.go(`/shots/${id}`);
    await app.stage();
    const before = (await listShots()).total;
    await app.keys(Key.F2);
    await app.until('taken', async () => (await listShots()).total === before + 1);
    await at(id);
    await app.sees('Copied: paste it anywhere');
    await app.chord(Key.SHIFT, 's');
    await at('/shelf');
    await app.keys(Key.F2);
    await app.until('taken', async () => (await listShots()).total === before + 2);
    await at('/shelf');
  }, 60_000);

  test('the key of a routine that a view has already is said when the routine is made', async () => {
    await app.go('/setup/routines');
    await app.click('New routine');
    const key = await app.field('Key');
    await key.sendKeys('a');
    await app.sees('In Mark, A is “Arrow”.');
    await key.sendKeys('3');
    await app.sees('In Take, 3 is “Region”.');
  }, 60_000);
});

describe('Keep', () => {
  test('with eight folders and the chart everything is seen at once; nothing is lost on the way', async () => {
    // Other files of this worker have left folders of theirs.
    for (const { id } of (await listFolders()).folders) await removeFolder(id);
    const made = [];
    for (let i = 0; i < 8; i += 1) made.push(await newFolder(`Place ${i}`));
    const id = await sendShot(lettered(), 'All at once');
    await app.go(`/shots/${id}/keep`);
    await app.click('JPEG');
    await app.click('Place 3');
    await app.until('the chart', () => app.has('[role="slider"][aria-label="Quality"]'));
    const hidden = () =>
      browser.driver.executeScript<number>(
        `const column = document.querySelector('aside[aria-label="How to keep it"] > .overflow-auto');
         return column.scrollHeight - column.clientHeight;`,
      );
    expect(await hidden()).toBeLessThanOrEqual(0);
    const on = async () =>
      (await (await app.named('Place 3')).getAttribute('aria-checked')) === 'true';
    await browser.driver.navigate().refresh();
    await app.named('Place 3');
    expect(await on()).toBe(true);
    await app.chord(Key.SHIFT, 'm');
    await app.stage();
    await browser.driver.navigate().back();
    await app.named('Place 3');
    expect(await on()).toBe(true);
    expect(await (await app.named('JPEG')).getAttribute('aria-checked')).toBe('true');
    for (const { id: folder } of made) await removeFolder(folder);
  }, 60_000);

  test('asking, as what comes then: the name is selected, Enter keeps', async () => {
    const folder = await newFolder('Asked', { isDefault: true });
    await routine('f2', { then: [{ do: 'keepAsk' }] });
    await app.take();
    await app.sees('By f2');
    await app.keys(Key.F2);
    await app.named('Clipboard');
    await app.until('the name has the focus', () =>
      browser.driver.executeScript<boolean>(
        `const field = document.activeElement;
         return field.tagName === 'INPUT' && field.selectionEnd - field.selectionStart === field.value.length;`,
      ),
    );
    await app.keys('Frost damage', Key.ENTER);
    await app.sees('Kept in Asked');
    expect(readdirSync(folder.path)).toEqual(['Frost damage.png']);
  }, 60_000);

  test('a way has a size and a format for what it keeps', async () => {
    const folder = await newFolder('Small', { isDefault: true });
    await routine('f2', {
      ...{ kind: 'full', format: 'webp', size: { longest: 300 } },
      then: [{ do: 'keep', folderId: null }, { do: 'copy' }],
    });
    await app.take();
    await app.sees('By f2');
    await app.keys(Key.F2);
    await app.sees('Copied: paste it anywhere');
    expect((await app.pasted()).width).toBe(300);
    await app.until('kept', () =>
      Promise.resolve(readdirSync(folder.path).some((name) => name.endsWith('.webp'))),
    );
  }, 60_000);

  test('the smallest words and the worst spot speak of the picture as it is sized', async () => {
    const id = await sendShot(lettered(), 'Sized');
    await app.go(`/shots/${id}/keep`);
    await app.sees('Every pixel arrives as it is');
    const size = () => browser.driver.findElement(By.css('select[aria-label="Size"]'));
    await app.choose(await size(), 'Percent');
    await app.type('%', '30');
    await app.sees('it is no longer the same pixels');
    expect(await app.has('[data-testid="stage"]')).toBe(false);
  }, 60_000);
});

describe('names', () => {
  const name = () => app.named('Name of the shot');
  const rename = async (words: string) =>
    (await name()).sendKeys(Key.chord(Key.CONTROL, 'a'), words, Key.ENTER);

  test('given without an answer of the server is held, and given later', async () => {
    const id = await sendShot(await plainPng(60, 40, '#009E73'), 'Before');
    await app.go(`/shots/${id}`);
    await app.stage();
    await browser.driver.sendDevToolsCommand('Network.setBlockedURLs', {
      urls: [`${appUrl()}/api/*`],
    });
    await rename('Given offline');
    await app.until(
      'shown',
      async () => (await (await name()).getAttribute('value')) === 'Given offline',
    );
    expect((await getShot(id)).title).toBe('Before');
    await browser.driver.sendDevToolsCommand('Network.setBlockedURLs', { urls: [] });
    await browser.driver.executeScript(`window.dispatchEvent(new Event('online'))`);
    await app.until('given', async () => (await getShot(id)).title === 'Given offline');
  }, 60_000);

  test('given in one tab is seen in the other, and drawing there does not undo it', async () => {
    const id = await sendShot(await plainPng(600, 400, '#FFFFFF'), 'Old');
    await app.go(`/shots/${id}`);
    await app.stage();
    const first = await browser.driver.getWindowHandle();
    await browser.driver.switchTo().newWindow('tab');
    await app.go(`/shots/${id}/keep`);
    await app.named('Clipboard');
    await rename('New name');
    await app.until('given', async () => (await getShot(id)).title === 'New name');
    await browser.driver.close();
    await browser.driver.switchTo().window(first);
    await app.until(
      'seen',
      async () => (await (await name()).getAttribute('value')) === 'New name',
    );
    await app.keys('b');
    const stage = await browser.driver.findElement(By.css('[data-testid="stage"]'));
    await app.drag(stage, { x: 200, y: 200 }, { x: 400, y: 330 });
    await app.stored();
    expect(await getShot(id)).toMatchObject({ title: 'New name' });
    expect((await getShot(id)).document.marks).toHaveLength(1);
  }, 60_000);

  test('made by a take tell kind and number; the window stays here when it leaves', async () => {
    await setWay({ ...firstWay, kind: 'window', inUse: true });
    await app.take();
    await app.keys(Key.ENTER);
    const id = await app.marked();
    await app.stored();
    const { title } = await getShot(id);
    expect(title).toMatch(/^Window \d+, Seed exchange – order$/);
    await app.chord(Key.CONTROL, Key.ENTER);
    await app.click('Link');
    await app.sees('the window’s title stays here');
    await app.click('Use the whole name');
    await app.until('confirmed', async () => (await getShot(id)).titleOwn);
  }, 60_000);
});

test('a region can begin with the last place, handles out', async () => {
  await routine('f2', { kind: 'region', atOnce: true, then: [] });
  await routine('f4', { kind: 'region', fromLast: true, then: [{ do: 'mark' }] });
  await app.take();
  await app.sees('By f4');
  await app.keys(Key.F2);
  const still = By.css('[data-testid="still"]');
  const picture = await browser.driver.wait(until.elementLocated(still), WAIT);
  await app.drag(picture, { x: 60, y: 60 }, { x: 200, y: 160 });
  await app.sees('On the Shelf');
  await app.desk();
  await app.keys(Key.F4);
  await app.sees('Take this region');
  await app.keys(Key.ARROW_RIGHT, Key.ENTER);
  const id = await app.marked();
  await app.stored();
  const { regions } = (await (await fetch(`${appUrl()}/api/settings`)).json()) as {
    regions: { desk: { region: { width: number } } };
  };
  expect((await getShot(id)).document.view.crop.width).toBe(regions.desk.region.width);
}, 60_000);
