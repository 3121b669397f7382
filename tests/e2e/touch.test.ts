import { describe, expect, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { firstWay } from '@/core/contracts/way';
import { contains } from '@/core/geometry/rect';
import { everyMark } from '@/tests/lib/marks';
import { getShot, plainPng, sendShot, setWay } from './lib/app';
import { ask, post } from './lib/hand';
import { sendClip } from './lib/clip';
import { stilled } from './lib/stilled';
import { newFolder, openKeep } from './lib/keeping';
import { app, browser, inOneBrowser, marking } from './lib/suite';

/** Every control of every view is touched, and the keys must act all the same. */

inOneBrowser(async () => {
  await newFolder('Touched', { isDefault: true });
  const id = await sendShot(await plainPng(60, 40, '#FFFFFF'), 'On the Shelf');
  await post('/api/searches', { name: 'Touched', query: 'touched' });
  await ask('/api/shots/tags', 'POST', { shots: [id], add: ['Touched'] });
});

/**
 * Run in the page: touches every control that can be seen, by pointer and by the Tab key, presses
 * each of the keys there, and tells which were not heard. Fields that are typed into keep their
 * letters; lists and sliders their arrow keys.
 */
const touching = `
  const press = (target, name) => {
    const parts = name === '+' ? [] : name.split('+');
    const key = parts.pop() ?? '+';
    const event = new KeyboardEvent('keydown', {
      key, bubbles: true, cancelable: true,
      ctrlKey: parts.includes('mod'), shiftKey: parts.includes('shift'), altKey: parts.includes('alt'),
    });
    target.dispatchEvent(event);
    return event.defaultPrevented;
  };
  const isSeen = (el) => el.checkVisibility() && !el.disabled && el.tabIndex >= -1 && el.getClientRects().length > 0;
  const wanted = 'button, a[href], input:not([type=file]), select, textarea, [role="slider"]';
  // A press opens a menu, which keeps its keys.
  const opensMenu = (el) => el.getAttribute('aria-haspopup') === 'menu';
  const controls = () => [...document.querySelectorAll(wanted)].filter((el) => isSeen(el) && !opensMenu(el));
  const nameOf = (el) => (el.getAttribute('aria-label') || el.textContent || el.value || el.tagName).trim().slice(0, 40);
  const isTyped = (el) => el.matches('textarea, input:not([type=checkbox]):not([type=color]):not([type=radio])');
  const touch = (el, way) => {
    if (way === 'keys') press(document.activeElement ?? document.body, 'Tab');
    else el.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
    el.focus();
    return document.activeElement === el;
  };`;

const touchAll = `${touching}
  const [keys, done] = arguments;
  const missed = [];
  let touched = 0;
  const count = controls().length;
  for (let i = 0; i < count; i += 1) {
    for (const way of ['pointer', 'keys']) {
      for (const key of keys) {
        const el = controls()[i];
        if (!el || !touch(el, way)) continue;
        touched += 1;
        const heard = press(el, key);
        const own = isTyped(el) && key !== 'mod+d';
        if (heard === own && !(own && key === 'Escape')) missed.push(way + ': ' + nameOf(el) + ' / ' + key);
      }
    }
  }
  done({ touched, missed: [...new Set(missed)] });`;

interface Touched {
  touched: number;
  missed: string[];
}

const touch = (keys: readonly string[]) =>
  browser.driver.executeAsyncScript<Touched>(touchAll, keys);

describe('after any control was touched, by pointer or by Tab, the keys of the view act', () => {
  test('Take', async () => {
    await app.take();
    const { touched, missed } = await touch(['1', '2', '3', '4', '5', '6']);
    expect(missed).toEqual([]);
    expect(touched).toBeGreaterThan(200);
  }, 60_000);

  test('Mark, with every kind of setting in the strip', async () => {
    const tools = ['a', 'n', 't', 's', 'u', 'x'];
    await marking.open([...everyMark].slice(0, 3));
    const letters = [
      'g',
      'b',
      'o',
      'p',
      'h',
      'e',
      'c',
      'y',
      'd',
      'q',
      'j',
      'z',
      'l',
      'm',
      'i',
      '.',
    ];
    const rest = [
      'v',
      'w',
      '[',
      ']',
      '0',
      '1',
      '+',
      '-',
      'Delete',
      'mod+z',
      'mod+y',
      'mod+d',
      'Escape',
    ];
    let all = 0;
    for (const tool of tools) {
      await app.keys(Key.ESCAPE, tool);
      const { touched, missed } = await touch([
        ...(tool === 'a' ? [...letters, ...rest] : ['b', 'mod+z']),
        tool,
      ]);
      expect([tool, missed]).toEqual([tool, []]);
      all += touched;
    }
    expect(all).toBeGreaterThan(2000);
  }, 120_000);

  /** “?” opens the list of keys, and Esc closes it: both must be heard, from every control. */
  const askFromAll = `${touching}
    const done = arguments[arguments.length - 1];
    const until = (test) => new Promise((resolve) => { const look = () => test() ? resolve() : setTimeout(look, 4); look(); });
    const dialog = () => document.querySelector('[role="dialog"]');
    (async () => {
      const missed = [];
      let touched = 0;
      // Of long lists of the same, some.
      const count = controls().length;
      const step = Math.ceil(count / 40);
      for (let i = 0; i < count; i += step) {
        for (const way of ['pointer', 'keys']) {
          const el = controls()[i];
          if (!el || !touch(el, way)) continue;
          touched += 1;
          const heard = press(el, '?');
          if (heard === isTyped(el)) missed.push(way + ': ' + nameOf(el));
          if (!heard) continue;
          await until(dialog);
          press(document.activeElement ?? document.body, 'Escape');
          await until(() => !dialog());
        }
      }
      done({ touched, missed });
    })();`;

  test.each([
    ['Keep', 40],
    ['/shelf', 10],
    ['/setup/folders', 10],
    ['/setup/routines', 10],
    ['/setup/taking', 10],
    ['/setup/sending', 10],
    ['/setup/keys', 10],
    ['/setup/computer', 10],
    ['/setup/words', 10],
    ['/series/new', 10],
    ['Clip', 15],
    ['Clip, marked', 15],
    ['/shelf?q=touched+', 15],
  ])(
    '%s',
    async (view, least) => {
      if (view === 'Keep') await openKeep(app, 'Touched');
      else if (view === 'Clip') await app.go(`/clips/${await sendClip('Touched')}`);
      else if (view === 'Clip, marked')
        await app.go(`/clips/${await sendClip('Touched')}/mark?at=0.5`);
      else await app.go(view);
      await app.until('the view', () => app.has('main button'));
      await app.atRest();
      const { touched, missed } = await browser.driver.executeAsyncScript<Touched>(askFromAll);
      expect(missed).toEqual([]);
      expect(touched).toBeGreaterThan(least);
    },
    120_000,
  );
});

describe('a pointer that is quicker than the page', () => {
  /** What a pointer does in one task of the page: only a real one can be captured. */
  async function pointer(...moves: [type: string, x: number, y: number][]): Promise<void> {
    const { still, scale } = await stilled(app, { width: 1440, height: 900 });
    await browser.driver.executeScript(
      `const [still, scale, moves] = arguments;
       Element.prototype.setPointerCapture = () => {};
       const box = still.getBoundingClientRect();
       for (const [type, x, y] of moves) still.dispatchEvent(new PointerEvent('pointer' + type, {
         bubbles: true, pointerId: 1, button: type === 'move' ? -1 : 0,
         clientX: box.left + x * scale, clientY: box.top + y * scale }));`,
      ...[still, scale, moves],
    );
  }

  test('a drag let go in the very moment of its last move loses nothing of it', async () => {
    await setWay({ ...firstWay, kind: 'region', atOnce: true });
    await app.go('/take');
    await app.click('Take a region');
    await pointer(['down', 210, 210], ['move', 300, 260], ['move', 600, 500], ['up', 610, 505]);
    const id = await app.marked();
    await app.stored();
    const { crop } = (await getShot(id)).document.view;
    expect(Math.abs(crop.width - 400)).toBeLessThan(8);
    expect(Math.abs(crop.height - 295)).toBeLessThan(8);
  });

  test('a tap takes the part it touches, though nothing moved there before', async () => {
    await setWay({ ...firstWay, kind: 'part' });
    const taken = [];
    for (const at of [
      { x: 150, y: 150 },
      { x: 715, y: 568 },
    ]) {
      await app.go('/take');
      await app.click('Take a part');
      await app.sees('around this place');
      await pointer(['down', at.x, at.y], ['up', at.x, at.y]);
      const id = await app.marked();
      await app.stored();
      const { crop } = (await getShot(id)).document.view;
      expect(contains(crop, at)).toBe(true);
      taken.push(crop);
    }
    // Both would be what lies in the middle, which is offered as long as no pointer came.
    expect(taken[0]).not.toEqual(taken[1]);
    await setWay(firstWay);
  });
});
