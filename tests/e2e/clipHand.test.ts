import { beforeEach, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { clipSchema } from '@/core/contracts/clip';
import { firstWay } from '@/core/contracts/way';
import { deskDisplays } from '@/core/desk/model';
import { centre } from '@/core/geometry/rect';
import { read, setWay } from './lib/app';
import { app, browser, inOneBrowser } from './lib/suite';

inOneBrowser();
beforeEach(() => setWay({ ...firstWay, display: 'Left', kind: 'clip' }));

const stands = async (): Promise<string> => {
  const css = 'section[aria-label="Recording"] [role="status"]';
  return (await browser.driver.findElements(By.css(css)))[0]?.getText() ?? '';
};
const recorded = async (): Promise<number> =>
  Number(/0:(\d\d\.\d) of/.exec(await stands())?.[1] ?? 0);
const isPast = (seconds: number): Promise<void> =>
  app.until(`${seconds} s are recorded`, async () => (await recorded()) > seconds);

test('clicks and keys on the desk lie on the clip as marks, seen in their time, and undo takes them back', async () => {
  await app.go('/take');
  await app.click('Clicks as rings');
  await app.click('Keys pressed');
  await app.sees('What is typed can be read.');
  // The panel was touched last: Enter records all the same.
  await app.keys(Key.ENTER);
  await isPast(0.5);
  const desk = await app.desk();
  const { bounds } = deskDisplays[0];
  const place = { x: bounds.x + 500, y: bounds.y + 300 };
  await app.clickAt(desk, await app.deskPoint(place));
  await app.keys('ab');
  // On a picture of its own.
  await isPast((await recorded()) + 0.3);
  await app.chord(Key.CONTROL, 's');
  await isPast((await recorded()) + 1);
  await app.keys(Key.ENTER);
  await app.sees('Begin here');
  const id = (await browser.driver.getCurrentUrl()).slice(-36);
  const { document, times } = clipSchema.parse(await (await read(`/api/clips/${id}`)).json());
  const words = document.marks.map((mark) => ('text' in mark && mark.text) || mark.kind);
  expect(words).toEqual(['oval', 'ab', expect.stringMatching(/^(ab )?Ctrl\+S$/)]);
  const [ring] = document.marks;
  if (ring?.kind !== 'oval' || !ring.time) throw new Error('There is no ring.');
  const at = centre(ring);
  const wanted = { x: place.x - bounds.x, y: place.y - bounds.y };
  // A pixel of the page is some of the desk.
  expect(Math.hypot(at.x - wanted.x, at.y - wanted.y)).toBeLessThan(3);
  expect(times[ring.time.from]).toBeGreaterThan(0.4);
  expect(ring.time.to).toBeLessThan(times.length);
  await app.keys('m');
  await app.stage();
  await app.chord(Key.CONTROL, 'z');
  await app.until('undone', async () => {
    const now = clipSchema.parse(await (await read(`/api/clips/${id}`)).json());
    return now.document.marks.length === 0;
  });
}, 120_000);
