import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { By, Key, until } from 'selenium-webdriver';
import sharp from 'sharp';
import { firstWay } from '@/core/contracts/way';
import { StandInPortal } from '@/tests/lib/standInPortal';
import { App, getPixels, getShot, pixelAt, setWay, WAIT } from '@/tests/e2e/lib/app';
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
  own = await OwnApp.start({
    data,
    databaseUrl: process.env.DATABASE_URL ?? '',
    env: { WAYLAND_DISPLAY: 'wayland-9', DBUS_SESSION_BUS_ADDRESS: portal.address },
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
  const still = await browser.driver.wait(
    until.elementLocated(By.css('[data-testid="still"]')),
    WAIT,
  );
  const { width } = await still.getRect();
  const scale = width / 1600;
  const at = (x: number, y: number) => ({
    origin: still,
    x: Math.round((x - 800) * scale),
    y: Math.round((y - 450) * scale),
    duration: 0,
  });
  const hand = browser.driver.actions({ async: true });
  await hand.move(at(320, 220)).press().move(at(400, 260)).move(at(480, 280)).release().perform();
  const id = await app.marked();
  await app.stored();
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

test('a desktop that does not allow it is told in words, and nothing is lost', async () => {
  portal.manner = () => ({ code: 1 });
  await app.go('/take');
  await app.sees('It tells no program which windows there are');
  await app.keys(Key.ENTER);
  await app.sees('The desktop was told not to give a picture to Rezzik.');
});
