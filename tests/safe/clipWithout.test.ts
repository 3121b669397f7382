import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdirSync, symlinkSync } from 'node:fs';
import { join } from 'node:path';
import { clipSchema } from '@/core/contracts/clip';
import { firstWay } from '@/core/contracts/way';
import { App, setWay } from '@/tests/e2e/lib/app';
import { fakeDevices, openBrowser, type Browser } from '@/tests/e2e/lib/browser';
import { OwnApp } from './lib/ownApp';

/** A computer without the program that makes clips, on which it is installed later. */

const data = join(process.env.REZZIK_DATA ?? '', 'clipWithout');
const programs = join(data, 'programs');
let own: OwnApp;
let browser: Browser;
let app: App;

function installed(...names: string[]): void {
  for (const name of names) {
    const path = execFileSync('sh', ['-c', `command -v ${name}`])
      .toString()
      .trim();
    symlinkSync(path, join(programs, name));
  }
}

beforeAll(async () => {
  mkdirSync(programs, { recursive: true });
  installed('nice', 'sh');
  const databaseUrl = process.env.DATABASE_URL ?? '';
  own = await OwnApp.start({ data, databaseUrl, env: { PATH: programs } });
  process.env.REZZIK_URL = own.url;
  browser = await openBrowser({ args: fakeDevices });
  app = new App(browser.driver);
}, 120_000);
afterAll(async () => {
  await browser.close();
  await own.end();
});

test('the browser records all the same; the command is said; once that is done it is a clip', async () => {
  await setWay({ ...firstWay, display: 'Left', kind: 'clip' });
  await app.go('/take');
  await app.desk();
  await app.click('Record');
  await app.until('a little of it', async () => {
    const text = await browser.driver.findElement({ css: 'body' }).getText();
    return /KB on the disk/.test(text);
  });
  await app.click('End the clip');
  await app.sees('sudo apt-get install -y ffmpeg');
  // An answer is not pressed by a click that was meant for what it covers.
  await browser.driver.sleep(600);
  await app.click('Look at it');
  await app.sees('What was recorded is kept, and no clip yet.');
  installed('ffmpeg', 'ffprobe');
  await app.click('Try again');
  await app.sees('Begin here');
  const id = (await browser.driver.getCurrentUrl()).slice(-36);
  const clip = clipSchema.parse(await (await fetch(`${own.url}/api/clips/${id}`)).json());
  expect(clip.times.length).toBeGreaterThan(1);
  expect(await app.has('[data-notice="clip"]')).toBe(false);
}, 120_000);
