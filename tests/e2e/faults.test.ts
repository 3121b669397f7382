import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { By, until } from 'selenium-webdriver';
import { App, getShot, listShots, setWay, WAIT } from './lib/app';
import { fakeDevices, openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;

beforeAll(async () => {
  browser = await openBrowser({
    args: fakeDevices,
  });
  app = new App(browser.driver);
}, 60_000);
afterAll(async () => {
  await setWay({ delay: 0, kind: 'full' });
  await browser.close();
});

const endSharing = () =>
  browser.driver.executeScript(`
    const [track] = document.querySelector('video').srcObject.getVideoTracks();
    track.stop();
    track.dispatchEvent(new Event('ended'));`);

async function share(): Promise<void> {
  await app.click('Shared screen');
  await app.click('Share a screen');
  await browser.driver.wait(until.elementLocated(By.css('video')), WAIT);
  await app.sees(' px');
}

beforeEach(async () => {
  await app.take();
});

test('a shared screen is asked for once, serves several takes, and its end is said', async () => {
  await share();
  for (let i = 0; i < 2; i += 1) {
    await app.click('Full screen');
    await app.click('0 s');
    await app.click('Take the screen');
    const id = await app.marked();
    await app.stored();
    expect((await getShot(id)).provenance.source).toBe('screen');
    await app.click('Take');
    await browser.driver.wait(until.elementLocated(By.css('video')), WAIT);
  }
  await endSharing();
  await app.sees('Sharing has ended');
}, 90_000);

test('sharing that ends in the countdown is said at its end; nothing hangs and nothing is taken', async () => {
  await share();
  await app.click('3 s');
  await app.click('Full screen');
  const before = (await listShots()).total;
  await app.click('Take the screen');
  await app.sees('seconds until the picture');
  await endSharing();
  await app.sees('Nothing is shared any more. Share a screen, then take.');
  await app.named('Take the screen');
  expect((await listShots()).total).toBe(before);
  await app.click('0 s');
}, 60_000);

test('a refusal is said kindly', async () => {
  await app.click('Shared screen');
  await browser.driver.executeScript(
    `navigator.mediaDevices.getDisplayMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));`,
  );
  await app.click('Share a screen');
  await app.sees('Nothing is shared: the browser or you said no');
  await app.click('Practice desk');
}, 60_000);

test('a picture that memory does not suffice for is said, and the next take works', async () => {
  await browser.driver.executeScript(`
    window.whole = window.createImageBitmap;
    window.createImageBitmap = () => Promise.reject(new DOMException('allocation failed', 'InvalidStateError'));`);
  await app.click('Full screen');
  await app.click('Take the screen');
  await app.sees('This browser has too little memory for a picture of that size.');
  await browser.driver.executeScript('window.createImageBitmap = window.whole;');
  await app.click('Take the screen');
  await app.marked();
}, 60_000);

test('without a window that stays on top the small control is an ordinary one; it takes, too', async () => {
  await setWay({ delay: 0, then: [] });
  await app.go('/take');
  await browser.driver.executeScript('delete window.documentPictureInPicture;');
  const main = await browser.driver.getWindowHandle();
  const before = (await listShots()).total;
  await app.click('Small control');
  await app.until(
    'the small window',
    async () => (await browser.driver.getAllWindowHandles()).length === 2,
  );
  const small = (await browser.driver.getAllWindowHandles()).find((handle) => handle !== main);
  await browser.driver.switchTo().window(small ?? '');
  const take = await browser.driver.wait(
    until.elementLocated(By.xpath("//button[normalize-space()='Take']")),
    WAIT,
  );
  await take.click();
  await app.until('the shot', async () => (await listShots()).total === before + 1);
  await app.sees('Last taken');
  await browser.driver.manage().window().setRect({ width: 420, height: 320 });
  await browser.driver.close();
  await browser.driver.switchTo().window(main);
  const place = await browser.driver.executeScript<string>(
    'return localStorage.getItem("rezzik-small-place")',
  );
  expect(JSON.parse(place)).toHaveProperty('width');
  await setWay({ then: [{ do: 'mark' }] });
}, 60_000);
