import { beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { firstWay } from '@/core/contracts/way';
import { getShot, plainPng, sendShot, setWay } from './lib/app';
import { newFolder, openKeep } from './lib/keeping';
import { everyMark } from '@/tests/lib/marks';
import { app, browser, inOneBrowser, marking } from './lib/suite';

inOneBrowser();

const boxes = async (id: string) => (await marking.marksOf(id)).map((mark) => mark.kind);

describe('touch a control, then press a key', () => {
  test('a slider, then undo, letters and Delete', async () => {
    const id = await marking.open();
    await app.keys('b');
    await marking.drag(100, 100, 220, 180);
    await (await browser.driver.findElement(By.css('[role="slider"]'))).click();
    await app.chord(Key.CONTROL, 'z');
    await app.chord(Key.CONTROL, 'z');
    expect(await boxes(id)).toEqual([]);
    await (await browser.driver.findElement(By.css('[role="slider"]'))).click();
    await app.keys('o');
    await marking.drag(100, 100, 220, 180);
    await (await browser.driver.findElement(By.css('[role="slider"]'))).click();
    expect(await boxes(id)).toEqual(['oval']);
    await app.keys(Key.DELETE);
    expect(await boxes(id)).toEqual([]);
  }, 60_000);

  test('a list, then a letter; a number, Enter, then a letter', async () => {
    const id = await marking.open();
    await app.keys('a');
    const list = await browser.driver.findElement(By.css('[role="toolbar"] select'));
    await list.click();
    await list.sendKeys(Key.ESCAPE);
    await app.keys('b');
    expect(await (await app.named('Box')).getAttribute('aria-pressed')).toBe('true');
    await app.keys('t');
    await app.type('Size', '48');
    await app.keys('a');
    expect(await (await app.named('Arrow')).getAttribute('aria-pressed')).toBe('true');
    await app.keys('t');
    expect(await (await app.field('Size')).getAttribute('value')).toBe('48');
    expect(await boxes(id)).toEqual([]);
  }, 60_000);

  test('a clicked chip, then Enter: the next step, not the chip again', async () => {
    await app.take();
    await app.click('Full screen');
    await app.click('Camera');
    await app.click('Practice desk');
    await app.keys(Key.ENTER);
    await app.marked();
  }, 60_000);

  test('a control reached by Tab is pressed by Enter', async () => {
    await app.take();
    for (let i = 0; i < 12; i += 1) {
      await app.keys(Key.TAB);
      const name = await browser.driver.switchTo().activeElement().getText();
      if (name.startsWith('Copy')) break;
    }
    const before = await browser.driver.switchTo().activeElement().getAttribute('aria-pressed');
    await app.keys(Key.ENTER);
    const now = await browser.driver.switchTo().activeElement().getAttribute('aria-pressed');
    expect([before, now]).toEqual(['false', 'true']);
    expect(await browser.driver.getCurrentUrl()).toContain('/take');
    await setWay(firstWay);
  }, 60_000);

  test('Enter and Esc in fields of Keep, Ctrl Enter from any of them', async () => {
    const id = await openKeep(app, 'Fielded');
    const name = await app.field('Name');
    await name.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Given', Key.ENTER);
    expect(
      await browser.driver.switchTo().activeElement().getAttribute('data-home'),
    ).not.toBeNull();
    await app.click('Clipboard');
    await name.click();
    await app.chord(Key.CONTROL, Key.ENTER);
    await app.until('kept', () => app.has('[data-testid="kept"], [role="alert"]'));
    await name.click();
    await app.keys(Key.ESCAPE);
    expect(await browser.driver.getCurrentUrl()).toContain('/keep');
    await app.keys(Key.ESCAPE);
    await app.until('Mark', async () => (await browser.driver.getCurrentUrl()).endsWith(id));
  }, 60_000);
});

describe('by keyboard alone', () => {
  /** How many times Tab is pressed from the start of the view until something has the focus. */
  async function tabsTo(css: string, most: number): Promise<number> {
    for (let i = 1; i <= most; i += 1) {
      await app.keys(Key.TAB);
      const there = await browser.driver.executeScript<boolean>(
        `return document.activeElement?.matches(${JSON.stringify(css)}) ?? false`,
      );
      if (there) return i;
    }
    throw new Error(`not reached in ${most} steps: ${css}`);
  }
  const saffron = 'button.bg-saffron';
  let shot: string;
  beforeAll(async () => {
    shot = await sendShot(await plainPng(600, 400, '#FFFFFF'), 'Steps');
    await newFolder('Steps', { isDefault: true });
  });

  test.each([
    ['/take', saffron, 12],
    ['shot', saffron, 12],
    ['shot', '[data-testid="stage"]', 12],
    ['shot', '#description, section[aria-label="Description"] textarea', 20],
    ['keep', saffron, 12],
    ['/shelf', saffron, 12],
    ['/setup/folders', saffron, 12],
  ])(
    '%s: %s is near the start',
    async (view, css, most) => {
      const path =
        view === 'shot' ? `/shots/${shot}` : view === 'keep' ? `/shots/${shot}/keep` : view;
      await app.go(path);
      await app.until('the view', () => app.has(css));
      expect(await tabsTo(css, most)).toBeLessThanOrEqual(most);
    },
    60_000,
  );

  test('A, Enter puts an arrow; a second Enter puts none upon it', async () => {
    const id = await marking.open();
    await app.keys('a', Key.ENTER);
    expect(await boxes(id)).toEqual(['arrow']);
    await app.keys(Key.ENTER);
    expect(await boxes(id)).toEqual(['arrow']);
    await app.keys('a', Key.ENTER);
    expect(await boxes(id)).toEqual(['arrow', 'arrow']);
  }, 60_000);

  test('Enter pressed twice takes once, and marks nothing', async () => {
    await app.take();
    await app.click('Full screen');
    await app.keys(Key.ENTER, Key.ENTER);
    const id = await app.marked();
    await app.keys(Key.ENTER);
    await app.stored();
    expect((await getShot(id)).document.marks).toEqual([]);
  }, 60_000);

  test('whoever deletes a row stays in the list; what was done is read out', async () => {
    const id = await marking.open([...everyMark].slice(0, 3));
    await (await browser.driver.findElement(By.css('[data-mark]'))).click();
    await app.keys(Key.DELETE);
    expect(await boxes(id)).toHaveLength(2);
    const inList = () =>
      browser.driver.executeScript<boolean>(
        'return document.activeElement?.closest("section[aria-label=Marks] li") !== null',
      );
    await app.until('a row has the focus', inList);
    await app.sees('Delete. 2 marks now.');
  }, 60_000);

  test('the keys lead to every view and back; routines act in all of them', async () => {
    const id = await marking.open();
    const at = (end: string) =>
      app.until(end, async () => (await browser.driver.getCurrentUrl()).endsWith(end));
    await app.chord(Key.SHIFT, 's');
    await at('/shelf');
    await app.chord(Key.SHIFT, 'm');
    await at(id);
    await app.chord(Key.SHIFT, 'k');
    await at('/keep');
    await app.chord(Key.SHIFT, 'n');
    await at('/take');
    await browser.driver.navigate().back();
    await at('/keep');
  }, 60_000);

  test('? closes by one Esc, and shows all keys of a view at once', async () => {
    await marking.open();
    await app.keys('?');
    await app.named('Find a key');
    const fits = await browser.driver.executeScript<boolean>(
      `const dialog = document.querySelector('[role="dialog"]');
       return dialog.scrollHeight <= dialog.clientHeight + 1;`,
    );
    expect(fits).toBe(true);
    await app.keys('undo');
    await app.until(
      'few are left',
      async () => (await browser.driver.findElements(By.css('[role="dialog"] dt'))).length === 1,
    );
    await app.keys(Key.ESCAPE);
    await app.until('closed', async () => !(await app.has('[role="dialog"]')));
  }, 60_000);
});

describe('Esc, step by step', () => {
  beforeEach(async () => {
    await marking.open();
  });
  const tool = async () =>
    (
      await browser.driver.findElement(By.css('aside[aria-label="Tools"] [aria-pressed="true"]'))
    ).getText();
  const selected = async () =>
    (await browser.driver.findElements(By.css('[data-mark][aria-pressed="true"]'))).length;

  test.each([
    ['b', () => marking.drag(100, 100, 200, 160)],
    ['n', () => marking.click(150, 150)],
    [
      't',
      async () => {
        await marking.click(150, 150);
        await app.until('the field', () => app.has('textarea[aria-label="Text"]'));
        await app.keys('Pond', Key.ESCAPE);
      },
    ],
  ])('after %s: the selection, then the tool', async (key, draw) => {
    await app.keys(key);
    await draw();
    await app.until('selected', async () => (await selected()) === 1);
    const before = await tool();
    await app.keys(Key.ESCAPE);
    expect(await selected()).toBe(0);
    expect(await tool()).toBe(before);
    await app.keys(Key.ESCAPE);
    expect(await tool()).toContain('Grab');
  });

  test('a stroke selects nothing, so the tool is next', async () => {
    await app.keys('p');
    await marking.drag(100, 100, 200, 160);
    await app.keys(Key.ESCAPE);
    expect(await tool()).toContain('Grab');
  });
});

describe('pressing on the picture', () => {
  test('clicking away from words ends them and begins no new ones', async () => {
    const id = await marking.open();
    await app.keys('t');
    await marking.click(150, 150);
    await app.until('the field', () => app.has('textarea[aria-label="Text"]'));
    await app.keys('Pond edge');
    await marking.click(400, 300);
    await app.until('no field', async () => !(await app.has('textarea[aria-label="Text"]')));
    expect(await boxes(id)).toEqual(['text']);
  }, 60_000);

  test('a press that does not move selects what lies there; drawing tools draw by moving', async () => {
    const id = await marking.open();
    await app.keys('b');
    await marking.drag(100, 100, 200, 160);
    await app.keys(Key.ESCAPE, 'o');
    await marking.click(100, 130);
    await app.until('selected', async () => app.has('[data-mark][aria-pressed="true"]'));
    expect(await boxes(id)).toEqual(['box']);
  }, 60_000);

  test.each([[Key.CONTROL], [Key.ALT]])(
    'dragging with %j duplicates',
    async (key) => {
      const id = await marking.open();
      await app.keys('b');
      await marking.drag(100, 100, 200, 160);
      await app.keys(Key.ESCAPE, 'g');
      await browser.driver.actions().keyDown(key).perform();
      await marking.drag(100, 130, 260, 250);
      await browser.driver.actions().keyUp(key).perform();
      expect(await boxes(id)).toEqual(['box', 'box']);
    },
    60_000,
  );

  test('Crop is drawn: K, a drag, Enter; what is wholly kept is not shown smaller first', async () => {
    const id = await marking.open();
    const scale = async () => (await browser.driver.findElement(By.css('#status-slot'))).getText();
    const before = (await scale()).split('\n')[0];
    await app.keys('k');
    expect((await scale()).split('\n')[0]).toBe(before);
    await marking.drag(120, 80, 420, 300);
    await app.keys(Key.ENTER);
    await app.stored();
    const { crop } = (await getShot(id)).document.view;
    for (const [is, wanted] of [
      [crop.x, 120],
      [crop.y, 80],
      [crop.width, 300],
      [crop.height, 220],
    ] as const)
      expect(Math.abs(is - wanted)).toBeLessThanOrEqual(2);
  }, 60_000);

  test('a double click on a stamp leaves it what it is', async () => {
    const id = await marking.open();
    await app.keys('s');
    await marking.click(200, 200);
    const [before] = await marking.marksOf(id);
    await app.keys(Key.ESCAPE, Key.ESCAPE);
    const stage = await marking.stage();
    const at = await marking.at(200, 200);
    const { width, height } = await stage.getRect();
    const move = {
      origin: stage,
      x: Math.round(at.x - width / 2),
      y: Math.round(at.y - height / 2),
    };
    await browser.driver.actions({ async: true }).move(move).doubleClick().perform();
    expect(await app.has('textarea[aria-label="Stamp"]')).toBe(false);
    expect(await marking.marksOf(id)).toEqual([before]);
  }, 60_000);
});
