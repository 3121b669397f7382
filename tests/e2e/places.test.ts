import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key, until } from 'selenium-webdriver';
import sharp from 'sharp';
import { simpleParser } from 'mailparser';
import { remotesSchema } from '@/core/contracts/remote';
import { App, decode, plainPng, sendShot, WAIT } from './lib/app';
import {
  allowClipboard,
  isSent,
  lettered,
  newFolder,
  openKeep,
  readClipboard,
} from './lib/keeping';
import { appUrl, openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;
const downloads = mkdtempSync(join(tmpdir(), 'rezzik-downloads-'));
let root = '';
let folderId = '';

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  await browser.driver.sendDevToolsCommand('Browser.setDownloadBehavior', {
    behavior: 'allow',
    downloadPath: downloads,
  });
  await allowClipboard(browser);
  ({ id: folderId, path: root } = await newFolder('Places'));
}, 120_000);
afterAll(() => browser.close());

const open = (title: string) => openKeep(app, title);
const readText = () => readClipboard(browser);

test.each([
  ['WebP', 'webp'],
  ['GIF', 'gif'],
  ['TIFF', 'tif'],
  ['BMP', 'bmp'],
  ['SVG', 'svg'],
  ['PDF', 'pdf'],
])(
  '%s is chosen, seen beforehand and kept',
  async (label, extension) => {
    await open(`Bed as ${label}`);
    await app.click('Places');
    await app.click(label);
    await app.sees(`Bed as ${label}.${extension}`);
    await app.click('Keep in 1 place');
    await app.until('the file', async () =>
      Promise.resolve(existsSync(join(root, `Bed as ${label}.${extension}`))),
    );
  },
  60_000,
);

test('the chart fills in, its line is moved by keys, and the worst spot is shown', async () => {
  await open('Chart');
  await app.click('JPEG');
  const chart = await browser.driver.wait(until.elementLocated(By.css('svg[role="slider"]')), WAIT);
  await app.until(
    'several points',
    async () =>
      (await browser.driver.findElements(By.css('svg[role="slider"] circle'))).length >= 8,
    30_000,
  );
  await chart.sendKeys(Key.HOME);
  await app.until('quality 1', async () => (await chart.getAttribute('aria-valuenow')) === '1');
  await app.sees('The worst spot');
  await app.until(
    'a likeness below',
    async () => /likeness 0\.[0-9]/.test((await chart.getAttribute('aria-valuetext')) ?? ''),
    30_000,
  );
  await app.click('Looks the same');
  await app.until(
    'a better quality',
    async () => Number(await chart.getAttribute('aria-valuenow')) > 20,
    40_000,
  );
}, 120_000);

test('at most so many kilobytes, and a size, are kept to', async () => {
  await open('Small');
  await app.click('Places');
  await app.click('JPEG');
  await app.type('At most, KB', '4');
  await app.sees('fit into');
  const size = await browser.driver.findElement(By.css('select[aria-label="Size"]'));
  await size.sendKeys('Percent');
  await app.until('the size', async () =>
    (await (await browser.driver.findElement(By.css('main'))).getText()).includes('200 × 120 px'),
  );
  await app.click('Keep in 1 place');
  const file = join(root, 'Small.jpg');
  await app.until('the file', async () => Promise.resolve(existsSync(file)));
  expect(readFileSync(file).length).toBeLessThanOrEqual(4000);
  const { width, height } = await decode(readFileSync(file));
  expect([width, height]).toEqual([200, 120]);
}, 60_000);

test('a size fitted into pixels is kept to; one beyond all bounds is said, and nothing is kept', async () => {
  await open('Fitted');
  await app.click('Places');
  await app.click('PNG');
  await app.choose(
    await browser.driver.findElement(By.css('select[aria-label="Size"]')),
    'Fit into pixels',
  );
  await app.type('Width', '100');
  await app.until('the size', async () =>
    (await (await browser.driver.findElement(By.css('main'))).getText()).includes('100 × 60 px'),
  );
  await app.click('Keep in 1 place');
  const file = join(root, 'Fitted.png');
  await app.until('the file', () => Promise.resolve(existsSync(file)));
  const { width, height } = await decode(readFileSync(file));
  expect([width, height]).toEqual([100, 60]);
  await app.type('Height', '30000');
  await app.type('Width', '30000');
  await app.sees('Rezzik makes up to 134 megapixels');
  await app.click('Keep in 1 place');
  await app.sees('Not kept in Places.');
  expect(existsSync(join(root, 'Fitted-2.png'))).toBe(false);
}, 60_000);

test('a link is made, copied, shows the picture only, and is taken back', async () => {
  await open('For Wren');
  await app.click('Link');
  await app.click('Keep in 1 place');
  await app.sees('The link is copied');
  const address = await readText();
  expect(address).toMatch(/\/v\/[A-Za-z0-9_-]{22}$/);
  const page = await (await fetch(address)).text();
  expect(page).toContain('<h1>For Wren</h1>');
  const picture = await decode(await (await fetch(`${address}.png`)).arrayBuffer());
  expect([picture.width, picture.height]).toEqual([400, 240]);
  await app.click('Take the link back');
  await app.sees('Taken back');
  expect((await fetch(address)).status).toBe(404);
}, 60_000);

test('the clipboard takes picture with description, or a line of Markdown', async () => {
  await open('Marigold');
  await app.click('Clipboard');
  const form = await browser.driver.findElement(
    By.css('select[aria-label="What goes to the clipboard"]'),
  );
  await app.choose(form, 'picture and');
  await app.click('Keep in 1 place');
  await app.sees('Copied, with its description');
  const types = await browser.driver.executeAsyncScript<string[]>(
    'const done = arguments[0]; navigator.clipboard.read().then(([i]) => done(i.types), (e) => done([String(e)]));',
  );
  expect(types).toEqual(expect.arrayContaining(['image/png', 'text/html', 'text/plain']));
  await app.choose(form, 'a Markdown');
  await app.click('Keep in 1 place');
  await app.sees('Copied as a line with a link');
  expect(await readText()).toMatch(/^!\[Marigold\]\(http.*\/v\/.*\.png\)$/);
}, 60_000);

test('a message file is saved with the picture in it', async () => {
  await open('By mail');
  await app.click('Mail');
  await app.click('Keep in 1 place');
  await app.sees('The message is saved');
  const file = join(downloads, 'By mail.eml');
  await app.until('the message', async () => Promise.resolve(existsSync(file)));
  const message = await simpleParser(readFileSync(file));
  expect(message.subject).toBe('By mail');
  expect(message.attachments[0]?.contentType).toBe('image/png');
}, 60_000);

test('the practice remote folder gets the picture', async () => {
  await app.go('/setup/sending');
  await app.click('Practice remote folder');
  // The page has other addresses, too: of links, for one.
  await app.until('the remote folder', async () => {
    const answer = await fetch(`${appUrl()}/api/remotes`);
    return remotesSchema.parse(await answer.json()).remotes.length > 0;
  });
  const shot = await open('To the shed');
  await app.click('Practice remote folder');
  await app.click('Keep in 1 place');
  await isSent(app, shot, 'Practice remote folder');
}, 150_000);

describe('many at once', () => {
  const choose = async (titles: readonly string[]) => {
    await app.go('/shelf');
    for (const title of titles) {
      const box = By.xpath(`//label[contains(., "Choose ${title} among several")]//input`);
      const found = await browser.driver.wait(until.elementLocated(box), WAIT);
      await browser.driver.executeScript('arguments[0].click()', found);
    }
    const places = By.xpath('//select[@aria-label="Folder"]/option[.="Places"]');
    await (await browser.driver.wait(until.elementLocated(places), WAIT)).click();
  };

  test('can be stopped, and what was not kept by then is not', async () => {
    const noise = { type: 'gaussian', mean: 128, sigma: 40 } as const;
    const create = { width: 1200, height: 900, channels: 3, background: '#FFFFFF' } as const;
    const picture = await sharp({ create: { ...create, noise } })
      .png({ compressionLevel: 1 })
      .toBuffer();
    const titles = Array.from({ length: 8 }, (_, i) => `Stopped ${'abcdefgh'.charAt(i)}`);
    for (const title of titles) await sendShot(picture, title);
    await choose(titles);
    await app.click('Keep all');
    await app.click('Stop');
    const said = await (await app.sees('stopped.')).getText();
    const kept = () => readdirSync(root).filter((name) => name.startsWith('Stopped')).length;
    expect(kept()).toBeLessThan(titles.length);
    expect(said).toBe(`${kept()} of 8 done; stopped.`);
    await app.click('Go on with the rest');
    await app.until('the rest', () => Promise.resolve(kept() === titles.length), 60_000);
  }, 90_000);

  test('are chosen in the Shelf and kept, with a report of those that could not be', async () => {
    const titles = ['Many one', 'Many two', 'Many three'];
    for (const title of titles) await sendShot(await plainPng(60, 40, '#009E73'), title);
    await choose(titles);
    await app.sees('3 shots chosen');
    const folder = await browser.driver.findElement(By.css('select[aria-label="Folder"]'));
    expect(await folder.getAttribute('value')).toBe(folderId);
    await app.click('Keep all');
    await app.sees('3 of 3 done');
    expect(readdirSync(root)).toEqual(expect.arrayContaining(titles.map((t) => `${t}.png`)));
    const away = await fetch(`${appUrl()}/api/folders/${folderId}`, { method: 'DELETE' });
    expect(away.status).toBe(204);
    await app.click('Keep all');
    await app.sees('0 of 3 done; 3 not');
    await app.sees('Try those again');
  }, 60_000);
});

test('a page is printed with picture, title and description on A4; the window stays here', async () => {
  const id = await sendShot(lettered(), 'On paper, Order of bed 12', {
    titleMade: '1',
    provenance: JSON.stringify({
      source: 'screen',
      takenAt: new Date().toISOString(),
      windowTitle: 'Order of bed 12',
    }),
  });
  await app.go(`/print/${id}`);
  await app.sees('On paper');
  await app.until('the picture', async () =>
    browser.driver.executeScript<boolean>(
      'return [...document.images].length > 0 && [...document.images].every((i) => i.complete)',
    ),
  );
  const answer = (await browser.driver.sendAndGetDevToolsCommand('Page.printToPDF', {
    preferCSSPageSize: true,
  })) as unknown as { data: string };
  const path = join(downloads, 'page.pdf');
  writeFileSync(path, Buffer.from(answer.data, 'base64'));
  const about = execFileSync('pdfinfo', [path], { encoding: 'utf8' });
  expect(about).toMatch(/Page size: +59[45]\.?\d* x 84[12]\.?\d* pts \(A4\)/);
  const words = execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' });
  expect(words).toContain('On paper');
  expect(words).not.toContain('Shelf');
  expect(words).not.toContain('Order of');
}, 60_000);
