import { beforeEach, describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { By, Key } from 'selenium-webdriver';
import { plants } from '@/core/desk/content';
import type { Way } from '@/core/contracts/way';
import { createDesk, deskDisplays } from '@/core/desk/model';
import { mostScroll } from '@/core/desk/windows';
import { getPixels, getShot, listShots, setWay, type Pixels } from './lib/app';
import { cutOut } from '../lib/pictures';
import { appUrl } from './lib/browser';
import { addRoutine } from './lib/hand';
import { stilled } from './lib/stilled';
import { app, browser, inOneBrowser } from './lib/suite';

inOneBrowser();

const register = createDesk(2026, 0).windows.find((w) => w.name === 'register')?.bounds ?? {
  ...{ x: 0, y: 0, width: 0, height: 0 },
};
const [left] = deskDisplays;
/**
 * What of the register no other window covers, without its title, its foot and the row that is cut
 * there: letters that are cut are painted a little otherwise.
 */
const OPEN = { left: 4, top: 34, width: 580, height: 400 };

const said = async (): Promise<string> =>
  (await browser.driver.findElements(By.css('output[aria-label="Long page"]')))[0]?.getText() ?? '';
/** A busy machine may need long to scroll to an end. */
const says = (words: string): Promise<void> =>
  app.until(`it says “${words}”`, async () => (await said()).includes(words), 80_000);
const had = async (): Promise<string> =>
  browser.driver.findElement(By.css('[aria-label="What is had"]')).getText();

const pictures = async (): Promise<number> => Number(/(\d+) pictures/.exec(await had())?.[1] ?? 0);

/** Turns the wheel over the register as a hand does. */
async function wheel(by: number): Promise<void> {
  const desk = await (await app.desk()).getRect();
  await browser.driver.sendDevToolsCommand('Input.dispatchMouseEvent', {
    ...{ type: 'mouseWheel', deltaX: 0, deltaY: by },
    ...{ x: Math.round(desk.x + desk.width * 0.2), y: Math.round(desk.y + desk.height * 0.3) },
  });
}

/** … and waits until what came into sight is laid where it belongs. */
async function wheelOn(by: number): Promise<void> {
  // The one before anything moved is there from then on only.
  const before = Math.max(1, await pictures());
  await wheel(by);
  await app.until('it is laid', async () => (await pictures()) > before);
}

async function begin(): Promise<void> {
  await setWay({ source: 'desk', display: 'Left', kind: 'full', then: [{ do: 'mark' }] });
  await app.go('/take');
  await app.desk();
  await app.keys('7', Key.ENTER);
  await says('Scroll slowly');
}

beforeEach(begin);

/** The register is scrolled down so far before anything is taken: the rest is a shorter way. */
const BEFORE = 3500;

async function scrolledDesk(): Promise<void> {
  await app.go('/take');
  await app.desk();
  await wheel(BEFORE);
}

/** The whole left display, taken at once. */
async function takeScreen(): Promise<Pixels> {
  await scrolledDesk();
  await app.keys('1', Key.ENTER);
  const id = await app.marked();
  await app.stored();
  return getPixels(id, 'frame');
}

/** The open part of the register as it lies on the display. */
const onScreen = (screen: Pixels): Promise<Buffer> =>
  cutOut(screen, {
    ...OPEN,
    left: register.x - left.bounds.x + OPEN.left,
    top: register.y - left.bounds.y + OPEN.top,
  });

/** docs/actions.md: a long page in three actions. */
test('a routine’s key, Space, Enter: it scrolls to its end, and all of that is one picture', async () => {
  await app.keys(Key.ESCAPE);
  const way: Partial<Way> = {
    source: 'desk',
    display: 'Left',
    kind: 'long',
    then: [{ do: 'mark' }],
  };
  const routine = await addRoutine('f2', way);
  await scrolledDesk();
  await app.keys(Key.F2);
  await says('Scroll slowly');
  await app.keys(Key.SPACE);
  await says('The end is reached');
  expect(await had()).toContain(`${register.width} × ${register.height + mostScroll - BEFORE} px`);
  await app.keys(Key.ENTER);
  const id = await app.marked();
  await app.stored();
  const frame = await getPixels(id, 'frame');
  expect([frame.width, frame.height]).toEqual([
    register.width,
    register.height + mostScroll - BEFORE,
  ]);
  const { channels } = await sharp(frame.data, { raw: { ...frame, channels: 4 } }).stats();
  expect(channels[3]?.min).toBe(255);
  const shot = await getShot(id);
  expect(shot.title).toBe('Long page 1, Plant register');
  expect(shot.provenance).toMatchObject({ source: 'desk', windowTitle: 'Plant register' });
  expect(shot.provenance.frames).toBeGreaterThan(8);
  expect(Date.parse(shot.provenance.until ?? '')).toBeGreaterThan(
    Date.parse(shot.provenance.takenAt),
  );
  await app.sees(`of ${shot.provenance.frames} pictures`);

  await fetch(`${appUrl()}/api/routines/${routine}`, { method: 'DELETE' });
  // A desk that is scrolled as far shows how it begins.
  expect((await cutOut(frame, OPEN)).equals(await onScreen(await takeScreen()))).toBe(true);
}, 120_000);

describe('by hand', () => {
  test('down and up again; what is had is as long as what was seen', async () => {
    for (const by of [60, 120, 150, -90]) await wheelOn(by);
    expect(await had()).toContain(`${register.width} × ${register.height + 330} px`);
    await app.click('Take this page');
    const id = await app.marked();
    await app.stored();
    const frame = await getPixels(id, 'frame');
    expect([frame.width, frame.height]).toEqual([register.width, register.height + 330]);
  });

  test('its buttons pressed, then Enter: it is taken, and only once', async () => {
    const before = (await listShots()).total;
    await app.click('Let it scroll');
    await app.until('it scrolls', async () => (await pictures()) > 4);
    await app.click('Stop scrolling');
    await app.named('Let it scroll');
    await app.keys(Key.ENTER, Key.ENTER);
    await app.marked();
    await app.stored();
    expect((await listShots()).total).toBe(before + 1);
  });

  test('Enter, and Esc in the same breath while it comes to rest: nothing is taken', async () => {
    const before = (await listShots()).total;
    await wheelOn(120);
    await browser.driver.executeScript(`
      for (const key of ['Enter', 'Escape'])
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));`);
    await app.sees('Take a long page');
    await app.keys(Key.ENTER);
    await says('Scroll slowly');
    // It would have been taken by the time a page that began after it is.
    await wheelOn(60);
    await app.click('Take this page');
    await app.marked();
    await app.stored();
    expect((await listShots()).total).toBe(before + 1);
  });

  test('a reload in the middle: what was had is offered, once; what is left by Esc is not', async () => {
    await wheelOn(120);
    await wheelOn(150);
    const held = () =>
      browser.driver.executeAsyncScript<number>(`
        const done = arguments[0];
        const open = indexedDB.open('rezzik-long');
        open.onsuccess = () => {
          if (!open.result.objectStoreNames.contains('long')) return done(0);
          const ask = open.result.transaction('long').objectStore('long').getAll();
          ask.onsuccess = () => done(Math.max(0, ...ask.result.map((l) => l.pieces[0].height)));
          open.result.close();
        };`);
    await app.until('it is put aside', async () => {
      await wheel(30);
      await wheel(-30);
      return (await held()) === register.height + 300;
    });
    await app.go('/take');
    const before = (await listShots()).total;
    // Pressed twice.
    const button = await app.named('Take what was had');
    await browser.driver.executeScript('arguments[0].click(); arguments[0].click();', button);
    const id = await app.marked();
    await app.stored();
    expect((await listShots()).total).toBe(before + 1);
    expect(await getShot(id)).toMatchObject({
      ...{ width: register.width, height: register.height + 300 },
      provenance: { source: 'desk', windowTitle: 'Plant register' },
    });
    await begin();
    await wheelOn(120);
    await app.keys(Key.ESCAPE);
    await app.go('/take');
    await app.desk();
    expect(await held()).toBe(0);
    expect(await app.has('[aria-label="A long page that was not finished"]')).toBe(false);
  });

  test('too far leaves a gap, which is said; scrolling back closes it', async () => {
    await wheel(100);
    await says('Scroll on');
    await wheel(1000);
    await says('A gap');
    const gaps = By.xpath('//section//p[contains(., "A gap")]');
    await app.until(
      'it is shown',
      async () => (await browser.driver.findElements(gaps)).length === 1,
    );
    // Upwards until both meet.
    for (let turns = 0; turns < 6; turns += 1) await wheelOn(-150);
    await says('The gap is closed');
    expect(await had()).toContain(`${register.width} × ${register.height + 1100} px`);
  });

  test('the area is chosen by hand: that alone is watched; Esc there goes on as it was', async () => {
    await app.click('Choose the area');
    await app.named('Watch this area');
    await app.keys(Key.ESCAPE);
    await says('Scroll slowly');
    await app.click('Choose the area');
    const { at } = await stilled(app, left.bounds);
    const corner = { x: register.x - left.bounds.x + 20, y: register.y - left.bounds.y + 60 };
    await browser.driver
      .actions({ async: true })
      .move(at(corner.x, corner.y))
      .press()
      .move(at(corner.x + 200, corner.y + 150))
      .move(at(corner.x + 300, corner.y + 240))
      .release()
      .perform();
    const numbers = await Promise.all(
      ['Width', 'Height'].map(async (label) => (await app.field(label)).getAttribute('value')),
    );
    const [width = 0, height = 0] = numbers.map(Number);
    expect(Math.abs(width - 300) < 4 && Math.abs(height - 240) < 4).toBe(true);
    await app.click('Watch this area');
    await says('Scroll on.');
    await wheelOn(90);
    await wheelOn(60);
    await app.keys(Key.ENTER);
    const id = await app.marked();
    await app.stored();
    expect(await getShot(id)).toMatchObject({ width, height: height + 150 });
  });

  test('taken with a gap, each piece is a shot', async () => {
    await wheel(100);
    await says('Scroll on');
    await wheel(1000);
    await says('A gap');
    const before = (await listShots()).total;
    await app.keys(Key.ENTER);
    const id = await app.marked();
    await app.stored();
    await app.until('both are there', async () => (await listShots()).total === before + 2);
    const titles = (await listShots()).shots.map(({ title }) => title);
    for (const piece of ['piece 1', 'piece 2'])
      expect(titles.filter((title) => title.endsWith(`Plant register, ${piece}`))).toHaveLength(1);
    expect((await getPixels(id, 'frame')).height).toBe(register.height + 100);
  });
});

test('Esc leaves nothing behind, before and after something was scrolled', async () => {
  const before = (await listShots()).total;
  await app.keys(Key.ESCAPE);
  await app.sees('Take a long page');
  await app.keys(Key.ENTER);
  await says('Scroll slowly');
  await wheel(100);
  await says('Scroll on');
  await app.keys(Key.ESCAPE);
  await app.sees('Take a long page');
  expect(await app.has('[data-testid="watched"]')).toBe(false);
  expect((await listShots()).total).toBe(before);
});

test('Enter before anything was scrolled says what to do, and watches on', async () => {
  await app.keys(Key.ENTER);
  await app.sees('Nothing was scrolled yet. Scroll first, then press Enter.');
  await wheel(100);
  await says('Scroll on');
});

test('a source that cannot be scrolled says why', async () => {
  await app.keys(Key.ESCAPE);
  await app.click('Camera');
  await app.keys(Key.ENTER);
  await app.sees('A camera has nothing to scroll.');
});

test('the register is long enough to be scrolled', () => {
  expect(plants).toHaveLength(214);
  expect(new Set(plants.map(([accession]) => accession)).size).toBe(214);
});
