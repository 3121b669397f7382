import { describe, expect, test } from '@jest/globals';
import { By, Key, until } from 'selenium-webdriver';
import type { Mark } from '@/core/marks/registry';
import { everyMark } from '@/tests/lib/marks';
import { getPixels, getShot, pixelAt, WAIT } from './lib/app';
import { Marking } from './lib/marking';
import { app, browser, inOneBrowser, marking } from './lib/suite';

inOneBrowser();

const blank = (marks: readonly Mark[] = []) => marking.open(marks);
const stage = () => marking.stage();
const at = (x: number, y: number) => marking.at(x, y);
const drag = (ax: number, ay: number, bx: number, by: number) => marking.drag(ax, ay, bx, by);
const marksOf = (id: string) => marking.marksOf(id);

describe('drawing', () => {
  test.each([
    ['a', 'arrow', { heads: 'end' }],
    ['l', 'line', { heads: 'none' }],
    ['b', 'box', {}],
    ['o', 'oval', {}],
    ['p', 'pen', {}],
    ['h', 'highlighter', {}],
  ])(
    '%s makes an %s where it was drawn',
    async (key, kind, more) => {
      const id = await blank();
      await app.keys(key);
      await drag(100, 100, 300, 220);
      const [mark] = await marksOf(id);
      expect(mark).toMatchObject({ kind, ...more });
      if (mark?.kind === 'box' || mark?.kind === 'oval') {
        expect(Math.abs(mark.x - 100)).toBeLessThanOrEqual(1.5);
        expect(Math.abs(mark.width - 200)).toBeLessThanOrEqual(2);
      }
      if (mark?.kind === 'arrow' || mark?.kind === 'line') {
        expect(Math.abs(mark.to.x - 300)).toBeLessThanOrEqual(1.5);
        expect(Math.abs(mark.to.y - 220)).toBeLessThanOrEqual(1.5);
      }
      const picture = await getPixels(id, 'picture');
      const onIt =
        kind === 'box' || kind === 'oval' ? pixelAt(picture, 200, 100) : pixelAt(picture, 200, 160);
      expect(onIt).not.toEqual([255, 255, 255, 255]);
    },
    60_000,
  );

  test('a text is typed in place, wraps, and is edited by a double click', async () => {
    const id = await blank();
    await app.keys('t');
    await drag(60, 60, 200, 100);
    const field = await browser.driver.wait(until.elementLocated(By.css('textarea')), WAIT);
    await field.sendKeys('Cover the north bank before six tonight', Key.ESCAPE);
    const [text] = await marksOf(id);
    expect(text).toMatchObject({
      kind: 'text',
      text: 'Cover the north bank before six tonight',
      plate: '#FFFFFF',
    });
    const before = await getPixels(id, 'picture');
    const inked = (y: number) =>
      Array.from({ length: 600 }, (_, x) => pixelAt(before, x, y)).some((p) => (p[0] ?? 255) < 128);
    expect([80, 110, 140].filter((y) => inked(y) || inked(y + 6) || inked(y - 6)).length).toBe(3);
    await app.keys('g');
    const place = await at(90, 78);
    await browser.driver
      .actions({ async: true })
      .move({ origin: await stage(), ...(await offset(place)) })
      .doubleClick()
      .perform();
    const again = await browser.driver.wait(until.elementLocated(By.css('textarea')), WAIT);
    await again.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Done', Key.ESCAPE);
    expect((await marksOf(id))[0]).toMatchObject({ text: 'Done' });
  }, 60_000);

  test('Esc in the middle of a stroke leaves nothing', async () => {
    const id = await blank();
    await app.keys('b');
    const s = await stage();
    await browser.driver
      .actions({ async: true })
      .move({ origin: s, ...(await offset(await at(100, 100))) })
      .press()
      .move({ origin: s, ...(await offset(await at(200, 200))) })
      .sendKeys(Key.ESCAPE)
      .release()
      .perform();
    expect(await marksOf(id)).toHaveLength(0);
  }, 60_000);
});

async function offset(p: { x: number; y: number }) {
  const { width, height } = await (await stage()).getRect();
  return { x: Math.round(p.x - width / 2), y: Math.round(p.y - height / 2) };
}

describe('arranging', () => {
  test('select, move, resize, bend, nudge, duplicate, order, delete, undo and redo', async () => {
    const box = everyMark.find((m) => m.id === 'box2');
    const arrow = everyMark.find((m) => m.id === 'arrow2');
    if (!box || !arrow) throw new Error('no marks');
    const id = await blank([box, arrow]);
    await app.keys('g');
    await drag(360, 150, 260, 150);
    // On the way to 220 it meets a line of the picture and snaps to it.
    expect((await marksOf(id))[0]).toMatchObject({ x: 219, y: 100 });
    await drag(300, 220, 340, 260);
    const resized = (await marksOf(id))[0];
    expect(
      resized?.kind === 'box' &&
        Math.abs(resized.width - 120) <= 2 &&
        Math.abs(resized.height - 160) <= 2,
    ).toBe(true);
    await app.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
    await app.chord(Key.SHIFT, Key.ARROW_UP);
    expect((await marksOf(id))[0]).toMatchObject({ x: 221, y: 90 });
    await app.clickAt(await stage(), await at(460, 180));
    await drag(460, 180, 500, 150);
    const bent = (await marksOf(id))[1];
    expect(bent?.kind === 'arrow' && bent.bend !== null).toBe(true);
    await app.chord(Key.CONTROL, 'd');
    expect(await marksOf(id)).toHaveLength(3);
    await app.keys('[', '[');
    expect((await marksOf(id)).map((m) => m.kind)).toEqual(['arrow', 'box', 'arrow']);
    await app.keys(Key.DELETE);
    expect(await marksOf(id)).toHaveLength(2);
    const steps = 10;
    for (let i = 0; i < steps; i += 1) await app.chord(Key.CONTROL, 'z');
    expect((await marksOf(id)).map((m) => m.id)).toEqual(['box2', 'arrow2']);
    expect((await marksOf(id))[0]).toMatchObject({ x: 320, y: 100, width: 80, height: 120 });
    for (let i = 0; i < steps; i += 1) await app.chord(Key.CONTROL, 'y');
    expect(await marksOf(id)).toHaveLength(2);
  }, 90_000);

  test('undo goes on after a reload, and back to the untouched frame is one step', async () => {
    const id = await blank();
    await app.keys('b');
    await drag(50, 50, 100, 100);
    await drag(150, 50, 200, 100);
    await app.stored();
    await app.openShot(id);
    await app.chord(Key.CONTROL, 'z');
    expect(await marksOf(id)).toHaveLength(1);
    await app.click('Untouched frame');
    expect(await marksOf(id)).toHaveLength(0);
    await app.chord(Key.CONTROL, 'z');
    expect(await marksOf(id)).toHaveLength(1);
    await app.chord(Key.CONTROL, 'z');
    expect(await marksOf(id)).toHaveLength(0);
  }, 60_000);

  test('the Marks list does it all without a pointer', async () => {
    const id = await blank(everyMark.slice(0, 4));
    const row = (mark: string) => browser.driver.findElement(By.css(`[data-mark="${mark}"]`));
    await (await row('arrow')).sendKeys(Key.ENTER);
    await app.type('End x', '333');
    expect((await marksOf(id))[0]).toMatchObject({ to: { x: 333, y: 230.25 } });
    await (await row('arrow')).sendKeys(Key.ARROW_DOWN);
    expect(await (await browser.driver.switchTo().activeElement()).getAttribute('data-mark')).toBe(
      'arrow2',
    );
    await (await app.named('Forward')).sendKeys(Key.ENTER);
    expect((await marksOf(id)).map((m) => m.id)).toEqual(['arrow', 'arrow3', 'arrow2', 'line']);
    await (await app.named('Rename')).sendKeys(Key.ENTER);
    await (await app.field('Name of the mark')).sendKeys('To the gate', Key.ENTER);
    await (await app.named('Lock')).sendKeys(Key.ENTER);
    expect((await marksOf(id))[2]).toMatchObject({ name: 'To the gate', locked: true });
    await (await app.named('Unlock')).sendKeys(Key.ENTER);
    const eyes = await browser.driver.findElements(By.css('[aria-label="Switch off"]'));
    await eyes[2]?.sendKeys(Key.ENTER);
    expect((await marksOf(id))[2]).toMatchObject({ off: true });
    await (await app.named('Delete')).sendKeys(Key.ENTER);
    expect((await marksOf(id)).map((m) => m.id)).toEqual(['arrow', 'arrow3', 'line']);
    await app.keys('o');
    await (await app.named('Add oval')).sendKeys(Key.ENTER);
    expect((await marksOf(id)).at(-1)).toMatchObject({ kind: 'oval' });
  }, 60_000);

  test('colour, thickness and fill change the selected mark and are remembered', async () => {
    const id = await blank();
    await app.keys('b');
    await drag(50, 50, 200, 150);
    await app.click('Blue');
    await app.click('Fill');
    const fill = await browser.driver.findElement(By.css('[role="toolbar"][aria-label="Fill"]'));
    await fill.findElement(By.css('[aria-label="Yellow"]')).click();
    await app.keys(Key.ESCAPE);
    expect((await marksOf(id))[0]).toMatchObject({ colour: '#0072B2', fill: '#F0E442' });
    await blank();
    await app.keys('b');
    await drag(50, 50, 200, 150);
    expect((await marksOf(await app.id()))[0]).toMatchObject({
      colour: '#0072B2',
      fill: '#F0E442',
    });
  }, 60_000);
});

describe('view', () => {
  test('crop by handles and numbers; widened again by the map', async () => {
    const id = await blank();
    await app.keys('k');
    await drag(600, 400, 400, 300);
    await app.type('Left', '100');
    await app.keys(Key.ESCAPE);
    expect((await getShot(id)).document.view.crop).toEqual(Marking.view);
    await app.keys('k');
    for (const [label, value] of [
      ['Left', 100],
      ['Top', 50],
      ['Width', 200],
      ['Height', 100],
    ] as const)
      await app.type(label, String(value));
    await app.click('Crop to this');
    await app.stored();
    expect((await getShot(id)).document.view.crop).toEqual({
      x: 100,
      y: 50,
      width: 200,
      height: 100,
    });
    const map = await browser.driver.findElement(By.css('[data-testid="map"]'));
    const scale = (await map.getRect()).width / 600;
    await app.drag(map, { x: 300 * scale, y: 150 * scale }, { x: 500 * scale, y: 350 * scale });
    await app.stored();
    const { crop } = (await getShot(id)).document.view;
    expect([crop.x, crop.y]).toEqual([100, 50]);
    expect(Math.abs(crop.width - 400)).toBeLessThan(8);
    expect(Math.abs(crop.height - 300)).toBeLessThan(8);
  }, 60_000);

  test('zoom from fit to 3200 %, sharp when large', async () => {
    await blank();
    const shown = async () => browser.driver.findElement(By.css('footer span')).getText();
    await app.keys('1');
    expect(await shown()).toBe('100 %');
    for (let i = 0; i < 12; i += 1) await app.keys('+');
    expect(await shown()).toBe('3200 %');
    await app.keys('0');
    expect(await shown()).toBe('100 %');
    await browser.driver.executeScript(
      `document.querySelector('[data-testid="stage"]').dispatchEvent(new WheelEvent('wheel', { deltaY: -240, ctrlKey: true, clientX: 600, clientY: 400, bubbles: true, cancelable: true }))`,
    );
    await app.until('enlarged', async () => (await shown()) === '272 %');
  }, 60_000);
});
