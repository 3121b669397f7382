import { execFileSync } from 'node:child_process';
import { beforeAll, beforeEach, expect, test } from '@jest/globals';
import { By, Key, type WebElement } from 'selenium-webdriver';
import { clipSchema, type Clip } from '@/core/contracts/clip';
import { copiesSchema } from '@/core/contracts/folder';
import { linksSchema } from '@/core/contracts/link';
import { firstWay } from '@/core/contracts/way';
import { deskDisplays } from '@/core/desk/model';
import type { Point } from '@/core/geometry/point';
import { getPixels, getShot, listShots, read, setWay } from './lib/app';
import { inSight, sendClip, showsPicture } from './lib/clip';
import { newFolder } from './lib/keeping';
import { app, browser, inOneBrowser } from './lib/suite';

inOneBrowser();

const [left] = deskDisplays;

const text = async (css: string): Promise<string> =>
  (await browser.driver.findElements(By.css(css)))[0]?.getText() ?? '';
const recording = (): Promise<string> => text('section[aria-label="Recording"] [role="status"]');
const isRecorded = (bytes: number): Promise<void> =>
  app.until('more is on the disk', async () => {
    const [, size = '0', unit = ''] = /([\d.,]+) (KB|MB) on the disk/.exec(await recording()) ?? [];
    return Number(size.replace(',', '')) * (unit === 'MB' ? 1e6 : 1e3) > bytes;
  });

/** Records something that moves until a little of it is on the disk. */
async function record(): Promise<void> {
  await app.go('/take');
  await app.desk();
  await app.keys('0', Key.ENTER);
  await app.until('it records', async () => (await recording()).startsWith('Recording'));
  const desk = await app.desk();
  // A window is moved, so that something changes.
  await app.drag(desk, await app.onDesk('title:register'), { x: 300, y: 200 });
  await isRecorded(1);
  expect(await recording()).toMatch(/ on the disk, room for [\d.,]+ (MB|GB|TB) more/);
}

/** The clip that is open. */
async function opened(): Promise<Clip> {
  await app.until('the clip is open', async () =>
    (await browser.driver.getCurrentUrl()).includes('/clips/'),
  );
  const id = (await browser.driver.getCurrentUrl()).slice(-36);
  await app.sees('Begin here');
  await app.until('it can be seen', async () =>
    Boolean(
      await browser.driver.executeScript(
        'return document.querySelector("video").readyState >= 2 && document.querySelector("video").videoWidth',
      ),
    ),
  );
  return clipSchema.parse(await (await read(`/api/clips/${id}`)).json());
}

/** What another reader says of a file: how it is packed, its size, its pictures. */
const told = (path = ''): string =>
  execFileSync('ffprobe', [
    ...['-loglevel', 'error', '-count_packets', '-select_streams', 'v:0', '-of', 'csv=p=0'],
    ...['-show_entries', 'stream=codec_name,width,height,nb_read_packets', path],
  ])
    .toString()
    .trim();

/** Whether a person asked the system for less motion. */
const still = (reduced: boolean): Promise<void> =>
  browser.driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
    features: [{ name: 'prefers-reduced-motion', value: reduced ? 'reduce' : 'no-preference' }],
  });

beforeAll(() => newFolder('Clips'), 60_000);
beforeEach(() => setWay({ ...firstWay, display: 'Left' }));

/** docs/actions.md: a clip of the desk in a folder: 0, Enter, Enter, Ctrl+Enter. */
test('0, Enter, Enter, Ctrl+Enter: what moved lies in a folder, and on the Shelf', async () => {
  await record();
  await app.keys(Key.ENTER);
  const clip = await opened();
  const { bounds } = left;
  expect(clip).toMatchObject({ width: bounds.width, height: bounds.height });
  expect(clip.title).toMatch(/^Clip \d+, ./);
  expect(clip.provenance).toMatchObject({ source: 'desk', display: 'Left' });
  expect(clip.times.length).toBeGreaterThan(5);
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.until('kept', async () => (await text('section[aria-label="Keep"]')).includes('Kept'));
  const { copies } = copiesSchema.parse(await (await read(`/api/shots/${clip.id}/copies`)).json());
  expect(copies).toHaveLength(1);
  expect(told(copies[0]?.path)).toBe(`h264,${bounds.width},${bounds.height},${clip.times.length}`);
  await app.chord(Key.SHIFT, 's');
  const css = `[data-shot="${clip.id}"]`;
  await app.until('it is on the Shelf', () => app.has(css));
  const card = await browser.driver.findElement(By.css(css));
  expect(await card.getText()).toMatch(/^Clip,\s\d:\d\d\.\d/);
  // Under the pointer it moves, on through its small pictures; where motion is not wanted, not.
  const rest = await browser.driver.findElement(By.css('header'));
  const over = (element: WebElement) =>
    browser.driver.actions({ async: true }).move({ origin: element }).perform();
  const place = () =>
    browser.driver.executeScript<string>(
      `const moving = document.querySelector('.strip-moves');
       return moving ? getComputedStyle(moving).backgroundPositionX : '';`,
    );
  await over(card);
  await app.until('it moves', async () => !['', '0%'].includes(await place()));
  await over(rest);
  await app.until('it rests', async () => (await place()) === '');
  await still(true);
  await over(card);
  await over(card);
  expect(await app.has('[data-testid="moving-preview"]')).toBe(false);
  await still(false);
  await card.sendKeys(Key.ENTER);
  expect((await opened()).id).toBe(clip.id);
}, 120_000);

/** On the picture that is still, drags from one place to another, in pixels of the display. */
async function dragOnStill(from: Point, to: Point): Promise<void> {
  await app.sees('What is recorded?');
  const still = await browser.driver.findElement(By.css('canvas'));
  const { width = 1 } = await still.getRect();
  const scale = width / left.bounds.width;
  const at = ({ x, y }: Point) => ({ x: x * scale, y: y * scale });
  await app.drag(still, at(from), at(to));
}

/** docs/actions.md: a region of what moves in a folder: Enter, drag, Enter, Ctrl+Enter. */
test('Enter, drag, Enter, Ctrl+Enter: a region of what moved lies in a folder; all of it can be shown again', async () => {
  await setWay({ kind: 'clip', records: 'region', atOnce: true, delay: 1 });
  await app.go('/take');
  await app.desk();
  await app.keys(Key.ENTER);
  await dragOnStill({ x: 200, y: 100 }, { x: 500, y: 300 });
  // The delay is there to make ready what shall be recorded.
  await app.until('it counts', () => app.has('[role="timer"]'));
  await app.until('it records', async () => (await recording()).startsWith('Recording'));
  expect(await recording()).toMatch(/(299|30[01]) × (199|20[01]) px/);
  await isRecorded(1);
  await app.keys(Key.ENTER);
  const { id, width, height, document, leaves, provenance, times } = await opened();
  expect({ width, height }).toEqual({ width: left.bounds.width, height: left.bounds.height });
  const { crop } = document.view;
  const off = [crop.x - 200, crop.y - 100, crop.width - 300, crop.height - 200];
  expect(Math.max(...off.map(Math.abs))).toBeLessThanOrEqual(2);
  expect(leaves).toEqual({ width: crop.width, height: crop.height });
  expect(provenance.windowTitle).toBeDefined();
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.until('kept', async () => (await text('section[aria-label="Keep"]')).includes('Kept'));
  const { copies } = copiesSchema.parse(await (await read(`/api/shots/${id}/copies`)).json());
  const even = (side: number) => side - (side % 2);
  expect(told(copies[0]?.path)).toBe(
    `h264,${even(crop.width)},${even(crop.height)},${times.length}`,
  );
}, 120_000);

test('a window is recorded on its display alone, under its name; Esc on the still picture records nothing', async () => {
  await setWay({ kind: 'clip', records: 'window', display: 'current' });
  const { total } = await listShots();
  await app.go('/take');
  await app.desk();
  await app.keys(Key.ENTER);
  await app.sees('What is recorded?');
  await app.keys(Key.ESCAPE);
  await app.desk();
  expect(await recording()).toBe('');
  await app.keys(Key.ENTER);
  await app.sees('Record this window');
  await app.keys(Key.ENTER);
  await app.until('it records', async () => (await recording()).startsWith('Recording'));
  await isRecorded(1);
  await app.keys(Key.ENTER);
  const clip = await opened();
  expect((await listShots()).total).toBe(total + 1);
  expect(clip.width).toBe(left.bounds.width);
  expect(clip.leaves.width).toBeLessThan(left.bounds.width);
  expect(clip.title.endsWith(clip.provenance.windowTitle ?? '–')).toBe(true);
}, 120_000);

test('it is looked through by keys, trimmed, cut, undone; a reload keeps what was cut', async () => {
  await record();
  await app.keys(Key.ENTER);
  const { id, times } = await opened();
  const last = times.length - 1;
  // Touched first: the keys are the view's all the same, and Space plays.
  await browser.driver.findElement(By.css('[aria-label="Time line"]')).click();
  await app.until('its middle', async () => (await inSight()) > 2);
  await app.keys(Key.SPACE);
  await app.sees('Pause');
  await app.keys(Key.SPACE, Key.HOME);
  await showsPicture(0);
  await app.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await showsPicture(2);
  await app.keys('[');
  await app.keys(Key.END, Key.ARROW_LEFT);
  await showsPicture(last - 1);
  await app.keys(']');
  await app.keys(Key.HOME);
  await showsPicture(2);
  await app.keys(Key.ARROW_RIGHT);
  await app.chord(Key.SHIFT, Key.ARROW_RIGHT);
  await app.keys('/');
  const away = async () =>
    clipSchema.parse(await (await read(`/api/clips/${id}`)).json()).cuts.away;
  const cut = [
    { from: 0, to: 2 },
    { from: 3, to: 5 },
    { from: last, to: last + 1 },
  ];
  await app.until('it is cut', async () => (await away()).length === 3);
  expect(await away()).toEqual(cut);
  await app.chord(Key.CONTROL, 'z');
  await app.until('undone', async () => (await away()).length === 2);
  await app.chord(Key.CONTROL, 'y');
  await app.until('done again', async () => (await away()).length === 3);
  await app.go(`/clips/${id}`);
  await opened();
  expect(await browser.driver.findElements(By.css('[data-testid="cut-away"]'))).toHaveLength(3);
  // Undone and done again, the steps from before it too.
  for (const left of [2, 1, 0]) {
    await app.chord(Key.CONTROL, 'z');
    await app.until(`${left} cuts`, async () => (await away()).length === left);
  }
  await app.go(`/clips/${id}`);
  await opened();
  await app.chord(Key.CONTROL, 'z');
  for (const more of [1, 2, 3]) {
    await app.chord(Key.CONTROL, 'y');
    await app.until(`${more} cuts`, async () => (await away()).length === more);
  }
  expect(await away()).toEqual(cut);
  // A part is played faster, seen so on the time line, and undone like a cut.
  await app.keys(Key.HOME, Key.ARROW_RIGHT);
  await app.chord(Key.SHIFT, Key.ARROW_RIGHT);
  await browser.driver.findElement(By.css('[aria-label="4 times as fast, kept so"]')).click();
  const faster = By.css('[data-testid="sped"]');
  await app.until(
    'it is faster',
    async () => (await browser.driver.findElements(faster)).length === 1,
  );
  const cutsNow = async () => clipSchema.parse(await (await read(`/api/clips/${id}`)).json()).cuts;
  await app.until('stored', async () => (await cutsNow()).speeds?.[0]?.speed === 4);
  await app.keys(Key.ESCAPE);
  await app.chord(Key.CONTROL, 'z');
  await app.until('undone', async () => (await cutsNow()).speeds === undefined);
  expect(await browser.driver.findElements(faster)).toHaveLength(0);
  // Played from its begin, only what is kept is seen, and it stops at its end.
  await app.keys(Key.HOME, Key.SPACE);
  await showsPicture(last - 1);
  await app.sees('Play');
}, 120_000);

test('a still is a shot of its own, to be marked; the address of its shot leads to the clip', async () => {
  await record();
  await app.keys(Key.ENTER);
  const { id, title } = await opened();
  await app.keys(Key.ARROW_RIGHT, 'i');
  await app.sees('is a shot');
  await browser.driver.findElement(By.css('[data-notice="still"] a')).click();
  const still = await app.marked();
  expect((await getShot(still)).title).toContain(`${title}, 0:0`);
  const { width } = await getPixels(still, 'frame');
  expect(width).toBe(left.bounds.width);
  await app.go(`/shots/${id}`);
  expect((await opened()).id).toBe(id);
}, 120_000);

test('paused nothing is added; a server that is away loses nothing; Esc puts it into the Bin', async () => {
  await record();
  await app.click('Pause');
  await app.until('it pauses', async () => (await recording()).startsWith('Paused'));
  const before = /^Paused (\S+)/.exec(await recording())?.[1];
  // Told while it pauses, too, it is not over after half a minute.
  const tellings = () =>
    browser.driver.executeScript<number>(
      'return performance.getEntriesByType("resource").filter((e) => e.name.endsWith("/alive")).length',
    );
  const tellingsBefore = await tellings();
  await app.until('it is told', async () => (await tellings()) > tellingsBefore);
  const network = { latency: 0, download_throughput: -1, upload_throughput: -1 };
  await browser.driver.setNetworkConditions({ ...network, offline: true });
  expect(/^Paused (\S+)/.exec(await recording())?.[1]).toBe(before);
  await app.click('Go on');
  await app.until('it says so', async () => (await recording()).includes('does not answer'));
  await browser.driver.setNetworkConditions({ ...network, offline: false });
  await app.until('it is back', async () => !(await recording()).includes('does not answer'));
  const { total } = await listShots();
  await app.keys(Key.ESCAPE);
  await app.sees('lies in the Bin');
  expect((await listShots()).total).toBe(total);
  // A click this soon after the answer appeared was meant for what was there before.
  await app.until('it is brought back', async () => {
    if (!(await app.has('[data-notice="clip"]'))) return true;
    const [button] = await browser.driver.findElements(By.xpath('//*[text()="Bring it back"]'));
    await button?.click().catch(() => undefined);
    return (await browser.driver.getCurrentUrl()).includes('/clips/');
  });
  expect((await opened()).binnedAt).toBeNull();
}, 120_000);

test('in another view it goes on and can be ended there', async () => {
  await record();
  await app.chord(Key.SHIFT, 's');
  await app.click('End the clip');
  await opened();
}, 120_000);

test('a link plays it in a page of its own, until it is taken back', async () => {
  const id = await sendClip('Frost cover');
  await app.go(`/clips/${id}`);
  await opened();
  await app.click('Make a link');
  await app.until('it is made', () => app.has('section[aria-label="Links"] a'));
  const { links } = linksSchema.parse(await (await read(`/api/shots/${id}/links`)).json());
  expect(links).toMatchObject([{ film: true, views: 0, mostViews: null }]);
  const [link] = links;
  await browser.driver.get(link?.address ?? '');
  // Played and gone to its end, which is fetched as a piece of its own.
  await app.until('it plays', () =>
    browser.driver.executeAsyncScript<boolean>(`
      const [done] = [...arguments].slice(-1);
      const video = document.querySelector('video');
      if (!(video?.readyState >= 2)) return done(false);
      video.muted = true;
      video.onseeked = () => done(video.videoWidth > 0 && video.currentTime > 1);
      video.play().then(() => (video.currentTime = 1.5), () => done(false));`),
  );
  await app.go(`/clips/${id}`);
  await app.click('Take the link back');
  await app.until('it is gone', async () => !(await app.has('section[aria-label="Links"]')));
  expect((await fetch(link?.address ?? '')).status).toBe(404);
}, 120_000);

test('as a message it is for the mail program; once written it can be dragged out as a file', async () => {
  const id = await sendClip('Frost cover');
  await app.go(`/clips/${id}`);
  await opened();
  const keep = () => text('section[aria-label="Keep"]');
  await app.until('about how large', async () => (await keep()).includes('about'));
  await app.click('Mail');
  await app.sees('In a message, for your mail program');
  await app.click('GIF');
  await app.click('Download');
  await app.until('it is written', async () => (await keep()).includes('Written'));
  const dragged = await browser.driver.executeScript<string>(`
    const link = document.querySelector('section[aria-label="Keep"] a[download]');
    const dataTransfer = new DataTransfer();
    link.dispatchEvent(new DragEvent('dragstart', { bubbles: true, dataTransfer }));
    return dataTransfer.getData('DownloadURL');`);
  const [, name = '', url = ''] = /^image\/gif:([^:]+):(http.+)$/.exec(dragged) ?? [];
  expect(name).toBe('Frost cover.gif');
  const bytes = Buffer.from(await (await fetch(url)).arrayBuffer());
  expect(bytes.toString('latin1', 0, 6)).toBe('GIF89a');
}, 120_000);
