import { expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import {
  field,
  focused,
  ids,
  openShelf,
  put,
  shows,
  tagsOf,
  titles,
  type,
  valueOf,
} from './lib/finding';
import { ask } from './lib/hand';
import { app, browser, inOneBrowser } from './lib/suite';

/** Finding things as a busy person does: quicker than the server, back and forth, by keys alone. */

inOneBrowser(async () => {
  await put('Cold frame', ['Sensor', 'frost'], 2);
  await put('Potting shed', ['Order', 'frost'], 3);
  await put('Long border', ['Order', 'received'], 4);
});

/** Answers to some requests wait in the page until `let()` lets the next one go. */
const holding = (method: string, path: string) =>
  browser.driver.executeScript(
    `const [method, path] = arguments;
     const { fetch } = window;
     const waiting = [];
     window.letOne = () => waiting.shift()?.();
     window.letAll = () => { window.fetch = fetch; waiting.splice(0).forEach((go) => go()); };
     window.held = () => waiting.length;
     window.fetch = (url, init) =>
       (init?.method ?? 'GET') === method && String(url).includes(path)
         ? new Promise((go) => waiting.push(go)).then(() => fetch(url, init))
         : fetch(url, init);`,
    method,
    path,
  );
const held = () => browser.driver.executeScript<number>('return window.held()');
const letOne = () => browser.driver.executeScript('window.letOne()');
const letAll = () => browser.driver.executeScript('window.letAll()');
const tagField = () => browser.driver.findElement(By.css('aside [aria-label="Add a tag"]'));

test('words that are names of the language’s own are words, typed and from the address', async () => {
  await app.go('/shelf?q=constructor:x');
  await app.sees('No shot fits all of this.');
  await type('-constructor:');
  await app.sees('without constructor:');
  await type('order ');
  await shows('Long border', 'Potting shed');
}, 60_000);

test('tags typed quicker than the server answers are all there', async () => {
  await openShelf('?q=received+');
  await app.click('Long border');
  await holding('PUT', '/tags');
  await (await tagField()).sendKeys('Alder', Key.ENTER, 'Birch', Key.ENTER);
  await app.until('the first is on its way', async () => (await held()) === 1);
  await letOne();
  await app.until('the second is on its way', async () => (await held()) === 1);
  await (await tagField()).sendKeys('Cedar', Key.ENTER);
  await letAll();
  await app.until('all three', async () => {
    return String(await tagsOf('Long border')) === 'Alder,Birch,Cedar';
  });
}, 60_000);

test('a name given while a tag is on its way stays', async () => {
  await openShelf('?q=received+');
  await app.click('Long border');
  await holding('PUT', '/tags');
  await (await tagField()).sendKeys('Elm', Key.ENTER);
  await app.until('on its way', async () => (await held()) === 1);
  const name = await browser.driver.findElement(By.css('aside [aria-label="Name of the shot"]'));
  await name.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Far border', Key.ENTER);
  await shows('Far border');
  await letAll();
  await app.until('tagged', async () => (await tagsOf('Long border')).includes('Elm'));
  await app.until('the dot', () => app.has('[data-shot] [aria-label="Tag Elm"]'));
  expect(await titles()).toEqual(['Far border']);
}, 60_000);

test('while the server is silent nothing is said to be empty', async () => {
  await openShelf();
  await type('nowhere ');
  await app.sees('No shot fits all of this.');
  await holding('GET', '/api/shots');
  await app.click('Clear the search');
  await app.until('asked', async () => (await held()) > 0);
  const main = await browser.driver.findElement(By.css('main'));
  expect(await main.getText()).not.toContain('Nothing on the Shelf yet');
  await letAll();
  await app.until('cards', () => app.has('[data-shot]'));
}, 60_000);

test('the field takes the focus when it is called for, and not whenever the Shelf opens', async () => {
  await app.take();
  await app.chord(Key.CONTROL, 'f');
  await app.until('the field', async () => (await focused()) === 'Search the Shelf');
  await app.keys(Key.ESCAPE);
  await app.chord(Key.SHIFT, 'n');
  await app.desk();
  await app.chord(Key.SHIFT, 's');
  await app.until('cards', () => app.has('[data-shot]'));
  expect(await focused()).not.toBe('Search the Shelf');
  // A key of the view is heard, not typed.
  await app.keys('?');
  await app.until('all keys', () => app.has('[role="dialog"]'));
  await app.keys(Key.ESCAPE);
}, 60_000);

test('Back leads from one place to the one before', async () => {
  await ask('/api/searches', 'POST', { name: 'Cold', query: 'frost ' });
  await openShelf();
  await app.click('Elm');
  await shows('Far border');
  await app.click('Cold');
  await shows('Potting shed', 'Cold frame');
  expect(await valueOf(await field())).toBe('frost ');
  await browser.driver.navigate().back();
  await shows('Far border');
  await browser.driver.navigate().back();
  await app.until('everything', async () => (await titles()).length === 3);
}, 60_000);

test('the places are few Tab stops; the right arrow leads to what else can be done with one', async () => {
  await openShelf();
  const stops = await browser.driver.executeScript<number>(
    `return [...document.querySelectorAll('nav[aria-label="Places"] button')].filter((b) => b.tabIndex >= 0).length`,
  );
  expect(stops).toBeLessThanOrEqual(4);
  await browser.driver.executeScript(
    `[...document.querySelectorAll('nav[aria-label="Places"] button')].find((b) => b.title === 'Elm').focus()`,
  );
  await app.keys(Key.ARROW_RIGHT);
  expect(await focused()).toBe('More about the tag Elm');
  await app.keys(Key.ARROW_LEFT);
  expect(await focused()).not.toBe('More about the tag Elm');
  await app.keys(Key.ARROW_RIGHT, Key.ENTER);
  await app.until('the menu', () => app.has('[role="menu"]'));
  await app.keys(Key.ESCAPE);
}, 60_000);

test('after a look at large one is where one stepped to', async () => {
  await openShelf('?q=frost+');
  await shows('Potting shed', 'Cold frame');
  await app.keys('/', Key.ENTER);
  await app.until('the first', async () => (await focused()) === ids['Potting shed']);
  await app.keys(' ');
  await app.until('large', () => app.has('[role="dialog"] img'));
  await app.keys(Key.ARROW_RIGHT);
  await app.until('the next', async () => {
    const heading = await browser.driver.findElement(By.css('[role="dialog"] h2'));
    return (await heading.getText()) === 'Cold frame';
  });
  await app.keys(Key.ESCAPE);
  await app.until('there', async () => (await focused()) === ids['Cold frame']);
}, 60_000);
