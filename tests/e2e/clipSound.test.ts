import { execFileSync } from 'node:child_process';
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { clipSchema, type Clip } from '@/core/contracts/clip';
import { copiesSchema } from '@/core/contracts/folder';
import { firstWay } from '@/core/contracts/way';
import { untouched } from '@/core/document/view';
import { App, read, setWay } from './lib/app';
import { fakeDevices, openBrowser, type Browser } from './lib/browser';
import { ask } from './lib/hand';
import { newFolder } from './lib/keeping';

let browser: Browser;
let app: App;

beforeAll(async () => {
  browser = await openBrowser({
    args: fakeDevices,
  });
  app = new App(browser.driver);
  await newFolder('Clips with sound');
}, 120_000);
afterAll(() => browser.close());
beforeEach(() => setWay({ ...firstWay, display: 'Left', kind: 'clip' }));

const run = <T>(script: string): Promise<T> => browser.driver.executeScript<T>(script);
const text = async (css: string): Promise<string> =>
  (await browser.driver.findElements(By.css(css)))[0]?.getText() ?? '';
const stands = (): Promise<string> => text('section[aria-label="Recording"] [role="status"]');
const stood = (words: string): Promise<void> =>
  app.until(words, async () => (await stands()).includes(words));
const onDisk = async (): Promise<number> => {
  const [, size = '0', unit] = /([\d.,]+) (KB|MB) on the disk/.exec(await stands()) ?? [];
  return Number(size.replace(',', '')) * (unit === 'MB' ? 1_000 : 1);
};

async function opened(): Promise<Clip> {
  await app.until('the clip is open', async () =>
    (await browser.driver.getCurrentUrl()).includes('/clips/'),
  );
  const id = (await browser.driver.getCurrentUrl()).slice(-36);
  await app.sees('Begin here');
  return clipSchema.parse(await (await read(`/api/clips/${id}`)).json());
}

/** The film in the view: whether it is silent, and how much of its sound was heard. */
const heard = (): Promise<[muted: boolean, bytes: number]> =>
  run(`const film = document.querySelector('main video');
    return [film.muted, film.webkitAudioDecodedByteCount];`);

/** Keeps the clip that is open. @returns how what is in its newest file is packed */
async function kept({ id }: Clip, count: number): Promise<string[]> {
  await app.chord(Key.CONTROL, Key.ENTER);
  const copies = async () =>
    copiesSchema.parse(await (await read(`/api/shots/${id}/copies`)).json()).copies;
  await app.until('it is kept', async () => (await copies()).length === count);
  // The next one can be asked for once that is seen.
  await app.until('it is said', async () =>
    (await text('section[aria-label="Keep"]')).includes('Kept'),
  );
  const paths = (await copies()).map(({ path }) => path);
  const codecs = paths.map((path) =>
    execFileSync('ffprobe', [
      ...['-loglevel', 'error', '-show_entries', 'stream=codec_name', '-of', 'csv=p=0', path],
    ])
      .toString()
      .trim()
      .split('\n')
      .join(' '),
  );
  return codecs.toSorted();
}

test('what the microphone hears is recorded, heard, silent under a Hide mark, and kept as it is wanted', async () => {
  await app.go('/take');
  await app.desk();
  await app.click('Microphone');
  await app.click('Record');
  await stood('with sound');
  await app.until('a little of it', async () => (await onDisk()) > 0);
  await app.click('End the clip');
  const clip = await opened();
  expect(clip.sound).toBe(true);
  await app.click('Play');
  await app.until('it is heard', async () => (await heard())[1] > 0);
  expect((await heard())[0]).toBe(false);
  await app.click('Sound');
  expect((await heard())[0]).toBe(true);
  expect(await text('section[aria-label="Where from"]')).toContain('with sound');
  expect(await kept(clip, 1)).toEqual(['h264 aac']);
  const { width, height } = clip;
  const hide = { id: 'hide', kind: 'blocks', x: 0, y: 0, width: 90, height: 40 };
  await ask(`/api/shots/${clip.id}`, 'PUT', {
    revision: clip.marksRevision,
    document: { ...untouched({ width, height }), marks: [hide] },
  });
  await app.go(`/clips/${clip.id}`);
  await app.click('Play');
  await app.sees('silent while something is hidden');
  expect((await heard())[0]).toBe(true);
  await app.click('None');
  expect(await kept(clip, 2)).toEqual(['h264', 'h264 aac']);
  await app.click('Whole');
  expect(await kept(clip, 3)).toEqual(['h264', 'h264 aac', 'h264 aac']);
}, 240_000);

test('a microphone that is refused, silent, gone: it is said, and no picture is lost', async () => {
  await setWay({ sounds: ['microphone'] });
  await app.go('/take');
  await app.desk();
  await run(`navigator.mediaDevices.getUserMedia = () =>
    Promise.reject(new DOMException('no', 'NotAllowedError'));`);
  await app.click('Record');
  await app.sees('The browser or you said no to the microphone');
  expect(await stands()).toBe('');
  await run(`navigator.mediaDevices.getUserMedia = () => {
    const { stream } = new AudioContext().createMediaStreamDestination();
    [window.microphone] = stream.getAudioTracks();
    return Promise.resolve(stream);
  };`);
  await app.click('Record');
  await stood('nothing is heard');
  await run(`window.microphone.stop(); window.microphone.dispatchEvent(new Event('ended'));`);
  await app.sees('The microphone has gone');
  const before = await onDisk();
  await app.until('more is on the disk', async () => (await onDisk()) > before);
  await app.click('End the clip');
  const { sound, times } = await opened();
  expect(sound).toBe(true);
  expect(times.at(-1)).toBeGreaterThan(4);
}, 120_000);
