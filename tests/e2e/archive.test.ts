import { beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key, until } from 'selenium-webdriver';
import { plainPng, read, sendShot, WAIT } from './lib/app';
import { appUrl } from './lib/browser';
import { heldBack, newFolder } from './lib/keeping';
import { app, browser, inOneBrowser } from './lib/suite';

inOneBrowser();

let root = '';
let shots: string[] = [];

beforeAll(async () => {
  ({ path: root } = await newFolder('Archives', { isDefault: true }));
  shots = [
    await sendShot(await plainPng(120, 80, '#336699'), 'Bean order'),
    await sendShot(await plainPng(120, 90, '#996633'), 'Seed list'),
  ];
}, 60_000);

const open = async (): Promise<void> => {
  await browser.driver.get(`${appUrl()}/setup/archive`);
  await app.sees('Everything out');
  await app.atRest();
};
const button = (name: string) =>
  browser.driver.wait(
    until.elementLocated(By.xpath(`//main//button[normalize-space()="${name}"]`)),
    WAIT,
  );
const written = (): string[] => readdirSync(root).filter((name) => name.endsWith('.zip'));
const entries = (path: string): string[] =>
  execFileSync('unzip', ['-Z1', path], { encoding: 'utf8' }).trim().split('\n');
const gone = (words: string): Promise<void> =>
  app.until(`${words} is gone`, async () => {
    const found = await browser.driver.findElements(
      By.xpath(`//*[text()[contains(., ${JSON.stringify(words)})]]`),
    );
    return found.length === 0;
  });
const erase = async (id: string): Promise<void> => {
  await fetch(`${appUrl()}/api/shots/${id}/bin`, { method: 'POST' });
  await fetch(`${appUrl()}/api/shots/${id}`, { method: 'DELETE' });
};

test('into a folder, with what is in it told; only what a search finds, by the keyboard', async () => {
  await open();
  await button('Write into').click();
  await app.sees('2 shots · ');
  expect(written()).toHaveLength(1);
  const field = await browser.driver.findElement(By.css('section[aria-label="Out"] input'));
  await field.click();
  await field.sendKeys('bean');
  await app.sees('1 found');
  await field.sendKeys(Key.TAB, Key.TAB);
  await browser.driver.actions().sendKeys(Key.ENTER).perform();
  await app.sees('1 shot · ');
  const [only = ''] = written().filter((name) => name.endsWith('-2.zip'));
  expect(entries(join(root, only)).filter((name) => name.startsWith('shots/'))).toEqual([
    `shots/${shots[0] ?? ''}.json`,
  ]);
  // What finds nothing is not written.
  await field.clear();
  await field.sendKeys('nothing-like-this');
  await app.sees('0 found');
  expect(await (await button('Write into')).isEnabled()).toBe(false);
}, 60_000);

test('saved as a file by one click', async () => {
  const downloads = mkdtempSync(join(tmpdir(), 'rezzik-archive-'));
  await browser.driver.sendDevToolsCommand('Browser.setDownloadBehavior', {
    behavior: 'allow',
    downloadPath: downloads,
  });
  await open();
  await browser.driver.findElement(By.linkText('Save as a file')).click();
  await browser.driver.wait(
    () => readdirSync(downloads).some((name) => name.endsWith('.zip')),
    WAIT,
    'The archive was not saved.',
  );
  const [file = ''] = readdirSync(downloads).filter((name) => name.endsWith('.zip'));
  expect(entries(join(downloads, file)).at(-1)).toBe('manifest.jsonl');
}, 60_000);

test('in again: what was deleted for good is there, and what is no archive is refused in words', async () => {
  const [id = ''] = shots;
  const picture = async () =>
    Buffer.from(await (await read(`/api/shots/${id}/frame`)).arrayBuffer());
  const before = await picture();
  await erase(id);
  expect((await fetch(`${appUrl()}/api/shots/${id}`)).status).toBe(404);
  await open();
  const picker = await browser.driver.findElement(By.css('input[type="file"]'));
  await picker.sendKeys(join(root, written().find((name) => !name.endsWith('-2.zip')) ?? ''));
  await app.sees('New: 1 shot. Here already: ');
  expect((await picture()).equals(before)).toBe(true);
  await picker.sendKeys(join(process.cwd(), 'package.json'));
  await app.sees('This is no zip file');
}, 60_000);

test('a folder that comes in does nothing before it is confirmed', async () => {
  const path = join(root, '..', 'brought');
  execFileSync('mkdir', ['-p', path]);
  const added = await fetch(`${appUrl()}/api/folders`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: 'Brought', path }),
  });
  const { id } = (await added.json()) as { id: string };
  const before = new Set(written());
  await open();
  await button('Write into').click();
  await browser.driver.wait(() => written().length > before.size, WAIT);
  await fetch(`${appUrl()}/api/folders/${id}`, { method: 'DELETE' });
  const file = written().find((name) => !before.has(name)) ?? '';
  await open();
  await browser.driver.findElement(By.css('input[type="file"]')).sendKeys(join(root, file));
  await app.sees('New: 1 folder. ');
  await browser.driver.get(`${appUrl()}/setup/folders`);
  await app.sees('Came in with an archive. ');
  const keep = () =>
    fetch(`${appUrl()}/api/shots/${shots[1] ?? ''}/copies`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ folderId: id }),
    });
  expect((await keep()).status).toBe(409);
  await browser.driver.findElement(By.css('[aria-label="Confirm Brought"]')).click();
  await gone('Came in with an archive. ');
  expect((await keep()).status).toBe(201);
  expect(existsSync(path)).toBe(true);
}, 60_000);

test('nothing says that there is no folder before that is known', async () => {
  await browser.driver.get(`${appUrl()}/setup/folders`);
  await app.sees('Archives');
  const answer = await heldBack('/api/folders');
  await browser.driver.findElement(By.linkText('Archive')).click();
  await app.sees('Everything out');
  // The plan came with the list of archives.
  await browser.driver.wait(
    until.elementLocated(By.css('section[aria-label="Archives"] li')),
    WAIT,
  );
  expect(await browser.driver.findElements(By.css('section[aria-label="By itself"]'))).toEqual([]);
  await answer.comes();
  await app.sees('By itself');
  expect(await browser.driver.findElement(By.css('body')).getText()).not.toContain('Add a folder');
}, 60_000);

test('the plan is set, and ended, by the page', async () => {
  await open();
  const every = await browser.driver.findElement(By.css('section[aria-label="By itself"] select'));
  await app.choose(every, 'every week');
  await app.sees('Leave the latest');
  const plan = async () => ((await (await read('/api/archives')).json()) as { plan: unknown }).plan;
  expect(await plan()).toMatchObject({ every: 'week', keep: 3 });
  await app.choose(every, 'never');
  await gone('Leave the latest');
  expect(await plan()).toBeNull();
}, 60_000);
