import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { clipSchema } from '@/core/contracts/clip';
import { firstWay } from '@/core/contracts/way';
import { read, setWay } from './lib/app';
import { app, browser, inOneBrowser } from './lib/suite';

// How a recording gets its pictures, and how it comes to an end by itself.

inOneBrowser();
beforeEach(() => setWay({ ...firstWay, display: 'Left', kind: 'clip' }));

const stands = async (): Promise<string> => {
  const css = 'section[aria-label="Recording"] [role="status"]';
  return (await browser.driver.findElements(By.css(css)))[0]?.getText() ?? '';
};

test('it ends by itself when it is as long as Setup has it', async () => {
  await app.go('/setup/taking');
  const minutes = await app.named('Minutes at most');
  await minutes.sendKeys(Key.chord(Key.CONTROL, 'a'), '1', Key.ENTER);
  await app.go('/take');
  await app.desk();
  await app.click('Record');
  await app.until('so long at most', async () => (await stands()).includes('of 1:00'));
  // As if nearly all of it had passed.
  await browser.driver.executeScript('const now = Date.now; Date.now = () => now() + 57_000;');
  await app.click('Pause');
  await app.click('Go on');
  await app.sees('A clip is a minute long at most, as Setup has it.');
  await app.sees('Begin here');
  await app.go('/setup/taking');
  const again = await app.named('Minutes at most');
  await again.sendKeys(Key.chord(Key.CONTROL, 'a'), '10', Key.ENTER);
}, 120_000);

/** Runs something in each page before its own scripts. @returns takes that back */
async function before(source: string): Promise<() => Promise<void>> {
  const { identifier } = (await browser.driver.sendAndGetDevToolsCommand(
    'Page.addScriptToEvaluateOnNewDocument',
    { source },
  )) as unknown as { identifier: string };
  return () =>
    browser.driver.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', { identifier });
}

test('the desk is recorded where not the track of a canvas, but its stream is asked for pictures', async () => {
  const take = await before(`(() => {
    const { requestFrame } = CanvasCaptureMediaStreamTrack.prototype;
    delete CanvasCaptureMediaStreamTrack.prototype.requestFrame;
    delete window.CanvasCaptureMediaStreamTrack;
    MediaStream.prototype.requestFrame = function () {
      requestFrame.call(this.getVideoTracks()[0]);
    };
  })()`);
  await app.go('/take');
  await app.desk();
  await app.click('Record');
  await app.until('a second', async () => /0:0[1-9]\.\d of/.test(await stands()));
  await app.click('End the clip');
  await app.sees('Begin here');
  const id = (await browser.driver.getCurrentUrl()).slice(-36);
  const clip = clipSchema.parse(await (await read(`/api/clips/${id}`)).json());
  expect(clip.times.length).toBeGreaterThan(5);
  await take();
}, 60_000);

test('where a browser plays no sound, that is said as it is, and without sound it records', async () => {
  const take = await before(`(() => {
    Object.defineProperty(AudioContext.prototype, 'state', { get: () => 'suspended' });
    AudioContext.prototype.resume = () => new Promise(() => undefined);
    const heard = new AudioContext().createMediaStreamDestination().stream;
    navigator.mediaDevices.getUserMedia = () => Promise.resolve(heard);
  })()`);
  await setWay({ ...firstWay, display: 'Left', kind: 'clip', sounds: ['microphone'] });
  await app.go('/take');
  await app.desk();
  await app.click('Record');
  await app.sees('The browser finds nothing to play sound on here');
  await app.click('Microphone');
  await app.click('Record');
  await app.until('a second', async () => /0:0[1-9]\.\d of/.test(await stands()));
  await app.click('End the clip');
  await app.sees('Begin here');
  await take();
}, 60_000);

test('a recording of this computer of which nothing came is over, and does not look as if the server were away', async () => {
  const recording = { id: randomUUID(), title: 'Gone', width: 640, height: 480 };
  const told = JSON.stringify({ recording: { ...recording, seconds: 3, paused: false } });
  const source = `(() => {
    const own = window.fetch;
    window.fetch = (path, init) => String(path).endsWith('/api/clips/display')
      ? Promise.resolve(new Response(${JSON.stringify(told)}, { headers: { 'Content-Type': 'application/json' } }))
      : own(path, init);
  })()`;
  const take = await before(source);
  await app.go('/take');
  await app.sees('Nothing was recorded');
  await take();
}, 60_000);
