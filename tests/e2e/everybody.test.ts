import { describe, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { getPixels, getShot, plainPng, sendShot } from './lib/app';
import { app, browser, inOneBrowser, marking } from './lib/suite';

/** For those who see few colours, write numbers otherwise, or from right to left. */

inOneBrowser();

const emulate = (features: { name: string; value: string }[]) =>
  browser.driver.sendDevToolsCommand('Emulation.setEmulatedMedia', { features });
const inLocale = (locale: string) =>
  browser.driver.sendDevToolsCommand('Emulation.setLocaleOverride', locale ? { locale } : {});

/** Colours as they are computed, of the first element that a selector finds. */
const look = (css: string) =>
  browser.driver.executeScript<{ ground: string; words: string; edge: string; outline: string }>(
    `const el = document.querySelector(arguments[0]);
     if (!el) throw new Error('nothing is ' + arguments[0]);
     const s = getComputedStyle(el);
     return {
       ground: s.backgroundColor, words: s.color, edge: s.borderTopColor,
       outline: s.outlineStyle === 'none' ? '' : s.outlineWidth + ' ' + s.outlineColor,
     };`,
    css,
  );

// Source: W3C, CSS Color Adjustment Level 1, §3: the system's few colours in place of the page's.
describe('in forced colours', () => {
  test('what is chosen, on, filled or a colour itself can still be told', async () => {
    await marking.open();
    await emulate([{ name: 'forced-colors', value: 'active' }]);
    await app.keys('b');
    await marking.drag(100, 100, 300, 200);
    const tool = (name: string) => look(`[aria-label="Tools"] [aria-keyshortcuts="${name}"]`);
    expect((await tool('b')).ground).not.toBe((await tool('o')).ground);
    expect((await tool('b')).words).not.toBe((await tool('b')).ground);
    const colour = (name: string) => look(`[aria-label="Colour"] [aria-label="${name}"]`);
    expect((await colour('Blue')).ground).toBe('rgb(0, 114, 178)');
    expect((await colour('Yellow')).ground).toBe('rgb(240, 228, 66)');
    await app.click('Blue');
    expect((await colour('Blue')).outline).not.toBe('');
    expect((await colour('Yellow')).outline).toBe('');
    const filled = '[aria-label^="Settings of"] [data-filled]';
    expect((await look(filled)).ground).not.toBe((await look(`:has(> ${filled})`)).ground);
    // Where one is, along the top.
    expect((await look('a[aria-current="step"]')).ground).not.toBe(
      (await look('a[href="/take"]')).ground,
    );
    await app.go('/setup/words');
    await app.sees('Read words in pictures');
    const toggle = await browser.driver.findElement(By.css('[role="switch"]'));
    const isOn = async () => (await toggle.getAttribute('aria-checked')) === 'true';
    const before = [await isOn(), (await look('[role="switch"]')).ground];
    await toggle.click();
    await app.until('it is the other way', async () => (await isOn()) !== before[0]);
    expect((await look('[role="switch"]')).ground).not.toBe(before[1]);
    // Its colours change over a moment; the thumb is told from its way, on and off.
    const isTold = async () => {
      const [thumb, way] = [await look('[role="switch"] > span'), await look('[role="switch"]')];
      return thumb.ground !== way.ground;
    };
    await app.until('the thumb is told the other way', isTold);
    await toggle.click();
    await app.until('it is as before', async () => (await isOn()) === before[0]);
    await app.until('the thumb is told', isTold);
    await emulate([]);
  }, 60_000);

  test('a picture keeps its colours, on the screen and as it leaves', async () => {
    const id = await marking.open([], await plainPng(600, 400, '#D55E00'));
    await emulate([{ name: 'forced-colors', value: 'active' }]);
    const [r, g, b] = await browser.driver.executeScript<number[]>(`
      const canvas = document.querySelector('[data-testid="stage"] canvas');
      return [...canvas.getContext('2d').getImageData(canvas.width / 2, canvas.height / 2, 1, 1).data];`);
    expect([r, g, b]).toEqual([0xd5, 0x5e, 0]);
    expect([...(await getPixels(id, 'picture')).data.subarray(0, 3)]).toEqual([0xd5, 0x5e, 0]);
    await emulate([]);
  }, 60_000);
});

describe('in German', () => {
  test('a comma for decimals, out and in; 1.200 is twelve hundred; also once a page is open', async () => {
    const id = await marking.open();
    await inLocale('de-DE');
    await app.keys('u');
    await marking.drag(200, 150, 280, 210);
    const zoom = await app.named('Enlarged');
    await zoom.sendKeys(Key.ARROW_RIGHT);
    await app.until('a comma', async () => (await zoom.getAttribute('aria-valuetext')) === '2,5 ×');
    await app.keys('g');
    await marking.click(240, 180);
    const value = async (label: string) => (await app.field(label)).getAttribute('value');
    await app.type('Left', '12,5');
    await app.until('half a pixel', async () => (await value('Left')) === '12,5');
    await app.type('Left', '1.200');
    await app.until('twelve hundred', async () => (await value('Left')) === '1200');
    await app.type('Left', 'zwölf');
    expect(await value('Left')).toBe('1200');
    await app.stored();
    expect((await getShot(id)).document.marks[0]).toMatchObject({ kind: 'closeUp' });
    await inLocale('en-US');
    await app.type('Left', '1,200.25');
    await app.until('with a dot', async () => (await value('Left')) === '1200.25');
    await inLocale('');
  }, 60_000);
});

describe('from right to left', () => {
  /** Whether the second letter of some words stands left of the first. */
  const runsLeft = (css: string) =>
    browser.driver.executeScript<boolean>(
      `const el = document.querySelector(arguments[0]);
       const walker = document.createTreeWalker(el, NodeFilter.SHOW_TEXT);
       const text = walker.nextNode();
       const left = (i) => {
         const range = document.createRange();
         range.setStart(text, i);
         range.setEnd(text, i + 1);
         return range.getBoundingClientRect().left;
       };
       return left(1) < left(0) && left(text.length - 1) < left(0);`,
      css,
    );

  test('names and descriptions of one’s own run as they are written, and so do dates', async () => {
    const title = 'גן הירק (3) – דוח';
    const id = await sendShot(await plainPng(60, 40, '#FFFFFF'), title);
    await inLocale('he-IL');
    await app.go('/shelf');
    await app.until('the card', () => app.has(`[data-shot="${id}"]`));
    const named = `[data-shot="${id}"] .truncate, [data-shot="${id}"] p`;
    expect(await runsLeft(named)).toBe(true);
    await app.openShot(id);
    const field = await browser.driver.findElement(By.css('[aria-label="Name of the shot"]'));
    expect(
      await browser.driver.executeScript(
        'return getComputedStyle(arguments[0]).unicodeBidi',
        field,
      ),
    ).toBe('plaintext');
    await app.keys('b');
    await app.drag(await app.stage(), { x: 300, y: 200 }, { x: 380, y: 260 });
    await app.stored();
    expect((await getShot(id)).title).toBe(title);
    await inLocale('');
  }, 60_000);

  test('numbers are read and written in its digits', async () => {
    const id = await marking.open();
    await inLocale('ar-EG');
    await app.keys('b');
    await marking.drag(100, 100, 300, 200);
    await app.type('Left', '١٢٠٫٥');
    await app.until(
      'as it is written there',
      async () => (await (await app.field('Left')).getAttribute('value')) === '١٢٠٫٥',
    );
    await app.stored();
    expect((await getShot(id)).document.marks[0]).toMatchObject({ x: 120.5 });
    await inLocale('');
  }, 60_000);
});
