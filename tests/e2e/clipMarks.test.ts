import { expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { clipSchema, type Clip } from '@/core/contracts/clip';
import { read } from './lib/app';
import { inSight, sendClip, showsPicture } from './lib/clip';
import { app, browser, inOneBrowser } from './lib/suite';

inOneBrowser();

const clipOf = async (id: string): Promise<Clip> =>
  clipSchema.parse(await (await read(`/api/clips/${id}`)).json());
const marksOf = async (id: string) => (await clipOf(id)).document.marks;

const steps = (count: number, key = Key.ARROW_RIGHT): string[] =>
  Array.from({ length: count }, () => key);

async function openedClip(title: string): Promise<string> {
  const id = await sendClip(title);
  await app.go(`/clips/${id}`);
  await app.sees('Begin here');
  return id;
}

/** How many pixels of what is painted in sight are of the orange that boxes are drawn in. */
const orange = (): Promise<number> =>
  browser.driver.executeScript(
    `const c = document.querySelector('[data-testid="painted-picture"]');
     if (!c || !c.width) return -1;
     const { data } = c.getContext('2d').getImageData(0, 0, c.width, c.height);
     let found = 0;
     for (let i = 0; i < data.length; i += 4)
       if (data[i] === 0xD5 && data[i + 1] === 0x5E && data[i + 2] === 0) found += 1;
     return found;`,
  );

test('M: a mark lies on the clip from its picture on, for as long as is said, and can be undone', async () => {
  const id = await openedClip('Marked');
  await app.keys(...steps(5));
  await showsPicture(5);
  await app.keys('m');
  await app.stage();
  await showsPicture(5);
  await app.keys('b', Key.ENTER);
  await app.until('it is stored', async () => (await marksOf(id)).length === 1);
  expect((await marksOf(id))[0]).toMatchObject({ kind: 'box', time: { from: 5, to: 30 } });
  // With nothing chosen the arrow keys go through the pictures.
  await app.keys(Key.ESCAPE, ...steps(2));
  await showsPicture(7);
  await app.until('its picture', async () =>
    (await browser.driver.getCurrentUrl()).includes(`at=${(await clipOf(id)).times[7]}`),
  );
  await browser.driver.findElement(By.css('[data-mark]')).click();
  await app.click('Until here');
  await app.until('until then', async () => (await marksOf(id))[0]?.time?.to === 8);
  await app.keys(Key.ESCAPE, Key.ARROW_RIGHT);
  await app.sees('is over');
  // Chosen, but not on this picture, it is not moved unseen: the keys go on through the pictures.
  await browser.driver.findElement(By.css('[data-mark]')).click();
  await app.keys(Key.ARROW_RIGHT);
  await showsPicture(9);
  await app.keys(Key.ESCAPE, Key.ARROW_LEFT);
  await showsPicture(8);
  // On a busy machine pictures come late; no step is lost meanwhile.
  await browser.driver.executeScript(`
    const ask = window.fetch.bind(window);
    window.fetch = async (where, how) => {
      if (String(where).includes('/frames?')) await new Promise((done) => setTimeout(done, 400));
      return ask(where, how);
    };`);
  await app.keys(...steps(3));
  await showsPicture(11);
  for (const picture of [10, 9, 8]) {
    await app.keys(Key.ARROW_LEFT);
    await new Promise((done) => setTimeout(done, 250));
    expect(await inSight()).toBe(picture);
  }
  await app.keys(Key.ARROW_LEFT);
  await showsPicture(7);
  await app.until('it is back', async () => !(await app.has('[data-mark] .text-faint')));
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('Begin here');
  await showsPicture(7);
  await app.until('it is painted', async () => (await orange()) > 20);
  await app.keys(Key.ARROW_RIGHT);
  await app.until('it is over', async () => (await orange()) === 0);
  // Undo leads back across a reload.
  await app.go(`/clips/${id}/mark?at=0.3`);
  await app.stage();
  await app.chord(Key.CONTROL, 'z');
  await app.until('longer again', async () => (await marksOf(id))[0]?.time?.to === 30);
  await app.chord(Key.CONTROL, 'z');
  await app.until('gone', async () => (await marksOf(id)).length === 0);
}, 120_000);

test('what lies on a clip is painted while it is read anew, and is not waited for until a step', async () => {
  const id = await openedClip('Painted late');
  await app.keys(...steps(5), 'm');
  await app.stage();
  await app.keys('b', Key.ENTER);
  await app.until('it is stored', async () => (await marksOf(id)).length === 1);
  // Its changes are still looked for, so it is asked again; a picture takes longer than that.
  await browser.driver.executeScript(`
    const ask = window.fetch.bind(window);
    let more = 3;
    window.fetch = async (where, how) => {
      const answer = await ask(where, how);
      if (!String(where).endsWith('/api/clips/${id}') || more === 0) return answer;
      more -= 1;
      return Response.json({ ...(await answer.json()), changes: null });
    };
    const read = window.createImageBitmap.bind(window);
    window.createImageBitmap = async (...what) => {
      if (what[0] instanceof HTMLVideoElement) await new Promise((done) => setTimeout(done, 900));
      return read(...what);
    };`);
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('Begin here');
  await app.until('it is painted', async () => (await orange()) > 20);
}, 60_000);

test('nor is it waited for where the browser tells of no picture, and has none to give at first', async () => {
  const id = await openedClip('Told late');
  await app.keys(...steps(5), 'm');
  await app.stage();
  await app.keys('b', Key.ENTER);
  await app.until('it is stored', async () => (await marksOf(id)).length === 1);
  await browser.driver.executeScript(`
    HTMLVideoElement.prototype.requestVideoFrameCallback = () => 0;
    const read = window.createImageBitmap.bind(window);
    let refused = 0;
    window.createImageBitmap = (...what) => {
      if (!(what[0] instanceof HTMLVideoElement) || refused === 3) return read(...what);
      refused += 1;
      return Promise.reject(new DOMException('There is no picture.', 'InvalidStateError'));
    };`);
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('Begin here');
  await app.until('it is painted', async () => (await orange()) > 20);
  await app.keys(Key.ARROW_LEFT);
  await app.until('before it nothing is', async () => (await orange()) === 0);
}, 60_000);

test('what hides does so all the time; what is chosen on the time line is when the chosen is seen', async () => {
  const id = await openedClip('Hidden');
  await app.keys(...steps(3), 'm');
  await app.stage();
  await app.keys('z', Key.ENTER);
  await app.until('it is stored', async () => (await marksOf(id)).length === 1);
  expect((await marksOf(id))[0]).not.toHaveProperty('time');
  await app.sees('is seen all the time');
  const line = await browser.driver.findElement(By.css('[aria-label="Time line"]'));
  const { width = 0 } = await line.getRect();
  await app.drag(line, { x: width * 0.2, y: 20 }, { x: width * 0.6, y: 20 });
  // What is stored in the middle of the drag is not yet where it ends.
  await app.until('from 20 % to 60 % of it', async () => {
    const { from = 0, to = 0 } = (await marksOf(id))[0]?.time ?? {};
    return [from - 6, to - 19].every((off) => Math.abs(off) <= 1);
  });
  await app.click('All the time');
  await app.until('all of it again', async () => !(await marksOf(id))[0]?.time);
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('all the time');
}, 120_000);

test('cropped in Mark, the clip is kept as large as what is shown', async () => {
  const id = await openedClip('Cropped');
  await app.keys('m');
  await app.stage();
  await app.keys('k');
  await app.type('Width', '81');
  await app.type('Height', '61');
  await app.keys(Key.ENTER);
  await app.until('cropped', async () => (await clipOf(id)).leaves.width === 81);
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('Begin here');
  const size = By.css('section[aria-label="Keep"]');
  await app.until('its size', async () =>
    (await browser.driver.findElement(size).getText()).includes('80 × 60 px'),
  );
  await app.keys(Key.HOME);
  await app.until('it is shown so', () =>
    browser.driver.executeScript<boolean>(
      `const c = document.querySelector('[data-testid="painted-picture"]');
       return c?.width === 81 && c.height === 61;`,
    ),
  );
}, 120_000);
