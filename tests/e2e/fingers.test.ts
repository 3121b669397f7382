import { beforeAll, describe, expect, test } from '@jest/globals';
import { By, Key, type WebElement } from 'selenium-webdriver';
import type { Point } from '@/core/geometry/point';
import { markSchema } from '@/core/marks/registry';
import { plainPng, sendShot } from './lib/app';
import { app, browser, inOneBrowser, marking } from './lib/suite';

/** Mark by fingers and by pen, and what a pressed and held place offers. */

inOneBrowser();
beforeAll(() =>
  browser.driver.sendDevToolsCommand('Emulation.setTouchEmulationEnabled', {
    ...{ enabled: true, maxTouchPoints: 2 },
  }),
);
/** Places on the picture as they are on the page. */
async function onPage(...points: [number, number][]): Promise<Point[]> {
  const { x, y } = await (await marking.stage()).getRect();
  return Promise.all(
    points.map(async ([px, py]) => {
      const at = await marking.at(px, py);
      return { x: x + at.x, y: y + at.y };
    }),
  );
}

const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: readonly Point[]) =>
  browser.driver.sendDevToolsCommand('Input.dispatchTouchEvent', {
    type,
    touchPoints: points.map(({ x, y }, id) => ({ x, y, id })),
  });

/** Fingers that go from places to others, in steps. */
async function slide(from: readonly Point[], to: readonly Point[]): Promise<void> {
  await touch('touchStart', from.slice(0, 1));
  if (from.length > 1) await touch('touchStart', from);
  for (let i = 1; i <= 8; i += 1) {
    const t = i / 8;
    await touch(
      'touchMove',
      from.map((p, k) => {
        const end = to[k] ?? p;
        return { x: p.x + (end.x - p.x) * t, y: p.y + (end.y - p.y) * t };
      }),
    );
  }
  await touch('touchEnd', []);
}

const choose = async (words: string) => {
  const entry = By.xpath(`//*[@role="menuitem"][starts-with(normalize-space(.), "${words}")]`);
  await (await browser.driver.findElement(entry)).click();
};

const scale = async () =>
  Number(/(\d+) %/.exec(await browser.driver.findElement(By.css('footer')).getText())?.[1]);

const arrow = markSchema.parse({
  ...{ id: 'a', kind: 'arrow', from: { x: 100, y: 100 }, to: { x: 300, y: 200 } },
  ...{ colour: '#D55E00', thickness: 8, heads: 'end' },
});

describe('fingers', () => {
  test('one draws an arrow', async () => {
    const id = await marking.open();
    await app.keys('a');
    const [from, to] = await onPage([100, 100], [300, 220]);
    await slide(from ? [from] : [], to ? [to] : []);
    const [mark] = await marking.marksOf(id);
    if (mark?.kind !== 'arrow') throw new Error('no arrow');
    expect(Math.hypot(mark.from.x - 100, mark.from.y - 100)).toBeLessThan(3);
    expect(Math.hypot(mark.to.x - 300, mark.to.y - 220)).toBeLessThan(3);
  }, 60_000);

  test('two apart enlarge, two together move the picture, and nothing is drawn', async () => {
    const id = await marking.open();
    await app.keys('p');
    const before = await scale();
    await slide(await onPage([250, 200], [350, 200]), await onPage([150, 200], [450, 200]));
    await app.until('it is larger', async () => (await scale()) > before * 1.5);
    const larger = await scale();
    await slide(await onPage([250, 200], [350, 200]), await onPage([300, 260], [400, 260]));
    expect(await scale()).toBe(larger);
    expect(await marking.marksOf(id)).toEqual([]);
  }, 60_000);

  test('pressed and held on a mark: what can be done with it; nothing was drawn meanwhile', async () => {
    const id = await marking.open([arrow]);
    await app.keys('p');
    const held = await onPage([200, 150]);
    await touch('touchStart', held);
    await app.until('the menu', () => app.has('[role="menu"]'));
    await touch('touchEnd', []);
    const menu = await browser.driver.findElement(By.css('[role="menu"]'));
    expect(await menu.getText()).toMatch(/Copy[\s\S]*Duplicate[\s\S]*Lock[\s\S]*Delete/);
    await choose('Delete');
    expect(await marking.marksOf(id)).toEqual([]);
    await app.chord(Key.CONTROL, 'z');
    expect(await marking.marksOf(id)).toHaveLength(1);
  }, 60_000);

  test('held on the bare picture: paste, select all, fit; Esc leaves everything as it was', async () => {
    const id = await marking.open([arrow]);
    await app.keys('b');
    await touch('touchStart', await onPage([500, 350]));
    await app.until('the menu', () => app.has('[role="menu"]'));
    await touch('touchEnd', []);
    await app.keys(Key.ESCAPE);
    await app.until('it is closed', async () => !(await app.has('[role="menu"]')));
    expect(await marking.marksOf(id)).toHaveLength(1);
  }, 60_000);
});

test('a pen draws with its pressure', async () => {
  const id = await marking.open();
  await app.keys('p');
  const [from, to] = await onPage([100, 200], [400, 220]);
  if (!from || !to) throw new Error('no places');
  const pen = (type: string, { x, y }: Point, force: number) =>
    browser.driver.sendDevToolsCommand('Input.dispatchMouseEvent', {
      ...{ type, x, y, force, pointerType: 'pen', button: 'left', buttons: 1 },
      ...(type === 'mouseMoved' ? {} : { clickCount: 1 }),
    });
  await pen('mousePressed', from, 0.2);
  for (let i = 1; i <= 10; i += 1) {
    const t = i / 10;
    await pen(
      'mouseMoved',
      { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t },
      t,
    );
  }
  await pen('mouseReleased', to, 0);
  const [stroke] = await marking.marksOf(id);
  if (stroke?.kind !== 'pen') throw new Error('no stroke');
  const pressures = stroke.points.map(([, , pressure]) => pressure);
  expect(Math.max(...pressures)).toBeGreaterThan(Math.min(...pressures) + 0.4);
}, 60_000);

test('the second button and the menu key offer the same', async () => {
  const id = await marking.open([arrow]);
  await app.keys('g');
  const stage = await marking.stage();
  const box = await stage.getRect();
  const at = await marking.at(200, 150);
  const place = { x: Math.round(at.x - box.width / 2), y: Math.round(at.y - box.height / 2) };
  const actions = browser.driver.actions({ async: true });
  await actions
    .move({ origin: stage, ...place })
    .contextClick()
    .perform();
  await choose('Duplicate');
  expect(await marking.marksOf(id)).toHaveLength(2);
  await app.keys(Key.ESCAPE);
  await browser.driver.executeScript(
    `arguments[0].focus();
     arguments[0].dispatchEvent(new MouseEvent('contextmenu', { bubbles: true, cancelable: true }));`,
    stage,
  );
  await app.until('the menu', () => app.has('[role="menu"]'));
  await app.keys(Key.ESCAPE);
}, 60_000);

test('corners that were clicked stay while the menu is looked at; words being typed have their own', async () => {
  const id = await marking.open();
  await app.keys('y');
  await marking.click(100, 100);
  await marking.click(300, 120);
  const open = async (element: WebElement) =>
    browser.driver.executeScript<boolean>(
      `return !arguments[0].dispatchEvent(new MouseEvent('contextmenu', { bubbles: true, cancelable: true }));`,
      element,
    );
  expect(await open(await marking.stage())).toBe(true);
  await app.until('the menu', () => app.has('[role="menu"]'));
  await app.keys(Key.ESCAPE);
  await marking.click(220, 300);
  await app.keys(Key.ENTER);
  const [polygon] = await marking.marksOf(id);
  expect(polygon?.kind === 'polygon' && polygon.points).toHaveLength(3);
  await app.keys('t');
  await marking.click(400, 300);
  const field = await browser.driver.findElement(By.css('[data-testid="stage"] textarea'));
  expect(await open(field)).toBe(false);
  expect(await app.has('[role="menu"]')).toBe(false);
}, 60_000);

test('on the Shelf, what else can be done with a place is seen without a pointer that hovers', async () => {
  await sendShot(await plainPng(60, 40, '#FFFFFF'), 'Under a thumb');
  await browser.driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
    features: [{ name: 'hover', value: 'none' }],
  });
  await app.go('/shelf');
  const box = By.xpath('//label[contains(., "Choose Under a thumb")]');
  await app.until('the card', async () => (await browser.driver.findElements(box)).length > 0);
  expect(await browser.driver.findElement(box).getCssValue('opacity')).toBe('1');
}, 60_000);
