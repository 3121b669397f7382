import { afterAll, expect, test } from '@jest/globals';
import jsQR from 'jsqr';
import { By, Key } from 'selenium-webdriver';
import sharp from 'sharp';
import { phoneSchema } from '@/core/contracts/phone';
import { getShot, listShots } from './lib/app';
import { ask } from './lib/hand';
import { app, browser, inOneBrowser } from './lib/suite';

/** A picture of a phone, from the code on the screen to the mark on it. */

const PORT = 24_391;
inOneBrowser();
afterAll(() => ask('/api/settings', 'PATCH', { linkPort: null }));

const door = (open: boolean) => ask('/api/settings', 'PATCH', { linkPort: open ? PORT : null });

/** What a camera reads off the screen. */
async function readCode(): Promise<string> {
  const code = await browser.driver.findElement(By.css('[role="dialog"] svg[role="img"]'));
  const png = Buffer.from(await code.takeScreenshot(), 'base64');
  const { data, info } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  // Source: jsQR, an independent reader of ISO/IEC 18004.
  const read = jsQR(new Uint8ClampedArray(data), info.width, info.height);
  if (!read) throw new Error('no code is read');
  return read.data;
}

const photo = (colour: string) =>
  sharp({ create: { width: 320, height: 200, channels: 3, background: colour } })
    .jpeg()
    .toBuffer();

async function sendFrom(address: string, picture: Buffer, name: string): Promise<Response> {
  const form = new FormData();
  form.set('picture', new Blob([new Uint8Array(picture)], { type: 'image/jpeg' }), name);
  // The phone knows the computer by another address than its own; here there is but one machine.
  return fetch(address, { method: 'POST', body: form });
}

test('off until Setup opens the second door, which is said with the way there', async () => {
  await door(false);
  await app.take();
  await app.click('From a phone');
  await app.sees('The second door is closed');
  await app.click('Go to Setup › Sending');
  await app.sees('Reached from other machines');
});

test('the code is read, the picture sent, and it is there to be marked, said with its thumbnail', async () => {
  await door(true);
  await app.take();
  await app.click('From a phone');
  await app.sees('Waiting for the phone.');
  const address = await readCode();
  await app.sees(address);
  const sent = await sendFrom(address, await photo('#009E73'), 'Bean row.jpg');
  expect(sent.status).toBe(200);
  const id = await app.marked();
  expect((await getShot(id)).title).toBe('Bean row');
  expect(await app.has(`[data-notice="phone ${id}"] img`)).toBe(true);
  expect((await sendFrom(address, await photo('#000000'), 'Twice.jpg')).status).toBe(410);
}, 60_000);

test('Esc ends the address; a tab loaded anew goes on waiting', async () => {
  await app.take();
  await app.click('From a phone');
  await app.sees('Waiting for the phone.');
  const first = await readCode();
  await browser.driver.navigate().refresh();
  await app.sees('Waiting for the phone.');
  expect(await readCode()).toBe(first);
  await app.keys(Key.ESCAPE);
  await app.until('it is closed', async () => !(await app.has('[role="dialog"]')));
  await app.until('it has ended', async () => (await fetch(first)).status === 410);
  const { shots } = await listShots();
  const before = shots.length;
  expect((await sendFrom(first, await photo('#000000'), 'Late.jpg')).status).toBe(410);
  expect((await listShots()).shots).toHaveLength(before);
}, 60_000);

test('another tab that asks for an address ends this one, and gets its own picture alone', async () => {
  await app.take();
  await app.click('From a phone');
  await app.sees('Waiting for the phone.');
  const first = await readCode();
  const other = phoneSchema.parse(await (await ask('/api/phone', 'POST', {})).json());
  await app.sees('This address has ended.');
  expect((await sendFrom(first, await photo('#000000'), 'Late.jpg')).status).toBe(410);
  await sendFrom(other.offer?.address ?? '', await photo('#CC79A7'), 'Other tab.jpg');
  expect(new URL(await browser.driver.getCurrentUrl()).pathname).toBe('/take');
  await app.click('Make another address');
  await app.sees('Waiting for the phone.');
  await app.keys(Key.ESCAPE);
}, 60_000);

test('what is wrong with a picture is said on both sides, and another may come', async () => {
  await app.take();
  await app.click('From a phone');
  await app.sees('Waiting for the phone.');
  const address = await readCode();
  const wrong = await sendFrom(address, Buffer.from('words'), 'words.jpg');
  expect(await wrong.text()).toContain('Not sent');
  await app.sees('The address is still good.');
  await sendFrom(address, await photo('#0072B2'), 'Second try.jpg');
  expect((await getShot(await app.marked())).title).toBe('Second try');
}, 60_000);
