import { afterAll, beforeAll, expect, test } from '@jest/globals';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { By, Key, until } from 'selenium-webdriver';
import sharp from 'sharp';
import { firstWay } from '@/core/contracts/way';
import { StandInPortal } from '@/tests/lib/standInPortal';
import { App, getPixels, getShot, pixelAt, setWay, WAIT } from '@/tests/e2e/lib/app';
import { stilled } from '@/tests/e2e/lib/stilled';
import { openBrowser, type Browser } from '@/tests/e2e/lib/browser';
import { OwnApp } from './lib/ownApp';

/** The real interface on a desktop that gives pictures of its screens through its portal alone. */

const data = join(process.env.REZZIK_DATA ?? '', 'wayland');
const pictures = join(data, 'pictures');
let portal: StandInPortal;
let own: OwnApp;
let browser: Browser;
let app: App;

beforeAll(async () => {
  mkdirSync(pictures, { recursive: true });
  portal = await StandInPortal.open();
  const screen = { width: 1600, height: 900, channels: 3 as const, background: '#0072B2' };
  const bed = { width: 200, height: 100, channels: 3 as const, background: '#D55E00' };
  const png = await sharp({ create: screen })
    .composite([{ input: { create: bed }, left: 300, top: 200 }])
    .png()
    .toBuffer();
  let made = 0;
  portal.manner = () => {
    made += 1;
    const path = join(pictures, `Screen ${made}.png`);
    writeFileSync(path, png);
    return { code: 0, uri: pathToFileURL(path).href };
  };
  // What opens addresses on a desktop; this one writes them down.
  const programs = join(data, 'programs');
  mkdirSync(programs, { recursive: true });
  const opener = join(programs, 'xdg-open');
  writeFileSync(opener, `#!/bin/sh\necho "$1" > '${join(data, 'opened')}'\n`);
  chmodSync(opener, 0o755);
  own = await OwnApp.start({
    data,
    databaseUrl: process.env.DATABASE_URL ?? '',
    env: {
      WAYLAND_DISPLAY: 'wayland-9',
      DBUS_SESSION_BUS_ADDRESS: portal.address,
      PATH: `${programs}:${process.env.PATH ?? ''}`,
    },
  });
  process.env.REZZIK_URL = own.url;
  browser = await openBrowser();
  app = new App(browser.driver);
}, 120_000);

afterAll(async () => {
  await browser.close();
  await own.end();
  await portal.close();
});

test('leave is asked for; then what can be had is said', async () => {
  await setWay({ ...firstWay, source: 'display', kind: 'region', atOnce: true });
  await app.go('/take');
  await app.click('Allow reading this computer’s screen');
  await app.sees('It tells no program which windows there are');
  expect(portal.asked).toEqual([]);
});

test('a region in two actions: a key, a drag', async () => {
  await app.keys(Key.ENTER);
  const id = await dragOnStill();
  const { document, provenance } = await getShot(id);
  expect(provenance).toMatchObject({ source: 'display' });
  const { crop } = document.view;
  expect([crop.x, crop.y]).toEqual([expect.closeTo(320, -0.5), expect.closeTo(220, -0.5)]);
  const pixels = await getPixels(id, 'picture?format=png');
  expect(pixelAt(pixels, 2, 2)).toEqual([0xd5, 0x5e, 0, 255]);
  expect(await getPixels(id, 'frame')).toMatchObject({ width: 1600, height: 900 });
  // The desktop's own file of it does not stay.
  expect(readdirSync(pictures)).toEqual([]);
});

/** Drags over a place of the stilled picture. @returns the shot */
async function dragOnStill(): Promise<string> {
  const { at } = await stilled(app, { width: 1600, height: 900 });
  const hand = browser.driver.actions({ async: true });
  await hand.move(at(320, 220)).press().move(at(400, 260)).move(at(480, 280)).release().perform();
  const id = await app.marked();
  await app.stored();
  return id;
}

test('by a system key: the chooser comes up on the picture of that moment; a key, a drag', async () => {
  const way = { ...firstWay, source: 'display', kind: 'region', atOnce: true };
  const routine = { name: 'Bed card', key: null, systemKey: 'mod+alt+r', way };
  const made = await fetch(`${own.url}/api/routines`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(routine),
  });
  expect(made.status).toBe(201);
  await app.go('/shelf');
  await browser.driver.wait(
    until.elementLocated(By.css('html[data-hears="takes"]')),
    WAIT,
    'the page hears of takes',
  );
  await app.until('the desktop has the key', () => Promise.resolve(portal.keys.size > 0));
  expect(portal.press('CTRL+ALT+r')).toBe(1);
  const id = await dragOnStill();
  const { provenance, document } = await getShot(id);
  expect(provenance).toMatchObject({ source: 'display' });
  expect(document.view.crop.width).toBeGreaterThan(150);
  expect(readdirSync(pictures)).toEqual([]);
});

test('with no page open, one is opened in front, and the same picture is chosen on there', async () => {
  const address = join(data, 'opened');
  await browser.driver.get('about:blank');
  // The server notices that the page is gone when it next speaks to it.
  await app.until('a page to be opened', async () => {
    portal.press('CTRL+ALT+r');
    await new Promise((resolve) => setTimeout(resolve, 300));
    return existsSync(address);
  });
  const opened = readFileSync(address, 'utf8').trim();
  expect(opened).toContain('/take?routine=');
  await browser.driver.get(opened.replace(/^http:\/\/127.0.0.1:\d+/, own.url));
  const { document } = await getShot(await dragOnStill());
  expect(document.view.crop.width).toBeGreaterThan(150);
});

test('a desktop that does not allow it is told in words, and nothing is lost', async () => {
  portal.manner = () => ({ code: 1 });
  await app.go('/take');
  await app.sees('It tells no program which windows there are');
  await app.keys(Key.ENTER);
  await app.sees('The desktop was told not to give a picture to Rezzik.');
});
