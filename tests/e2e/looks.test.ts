import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { By, Key, until } from 'selenium-webdriver';
import { looksSchema } from '@/core/contracts/look';
import { App, WAIT, getPixels, getShot, listShots, plainPng, read, sendShot } from './lib/app';
import { openBrowser, type Browser } from './lib/browser';
import { addRoutine } from './lib/hand';
import { Marking } from './lib/marking';

let browser: Browser;
let app: App;
let marking: Marking;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  marking = new Marking(app);
}, 120_000);
afterAll(() => browser.close());

const looks = async () => looksSchema.parse(await (await read('/api/looks')).json()).looks;
const finishOf = async (id: string) => (await getShot(id)).document.finish;
const named = async (name: string) => {
  const look = (await looks()).find((one) => one.name === name);
  if (!look) throw new Error(`no look ${name}`);
  return look;
};

test('a look is given by a click in one step; what is there becomes a new one with a key', async () => {
  const id = await marking.open();
  await app.keys(',', ',');
  await app.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await app.click('Torn slip');
  await app.stored();
  const torn = await named('Torn slip');
  expect(await finishOf(id)).toEqual(torn.finish);
  await app.until('as it leaves', () => app.has('[data-testid="whole"][data-painted="true"]'));
  await app.type('Name of a new look', 'Torn anew');
  await app.until('made', async () => (await looks()).some(({ name }) => name === 'Torn anew'));
  expect((await named('Torn anew')).finish).toEqual(torn.finish);
  const field = '[aria-label="Key of the look Torn anew"]';
  await app.until('its field', () => app.has(field));
  const key = await browser.driver.findElement(By.css(field));
  await key.sendKeys(Key.chord(Key.ALT, 'l'));
  await app.until('its key', async () => (await named('Torn anew')).key === 'alt+l');
  await app.chord(Key.CONTROL, 'z');
  await app.stored();
  expect(await finishOf(id)).toBeUndefined();
  // On another shot, with any tool in hand.
  const other = await marking.open();
  await app.chord(Key.ALT, 'l');
  await app.sees('Leaves with ragged edge');
  await app.stored();
  expect(await finishOf(other)).toEqual(torn.finish);
  // What goes away for good is asked for first.
  await app.keys(',', Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await app.click('Remove the look Torn anew');
  await app.click('Leave it');
  expect((await looks()).some(({ name }) => name === 'Torn anew')).toBe(true);
  await app.click('Remove the look Torn anew');
  await app.click('Remove it');
  await app.until('gone', async () => !(await looks()).some(({ name }) => name === 'Torn anew'));
  expect(await finishOf(other)).toEqual(torn.finish);
}, 90_000);

test('a look is set as it is here, and back', async () => {
  await marking.open();
  await app.keys(',', Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await app.click('Torn slip');
  await app.stored();
  const before = await named('Calm card');
  // The first of the list.
  await app.click('Set as here');
  const surroundOf = async () => (await named('Calm card')).finish.surround;
  await app.until('as here', async () => (await surroundOf())?.ragged !== undefined);
  // By key: a click this soon would be meant for what was there before.
  await (await app.named('As it was')).sendKeys(Key.ENTER);
  await app.until('as it was', async () => (await surroundOf())?.ragged === undefined);
  expect((await named('Calm card')).finish).toEqual(before.finish);
}, 90_000);

test('a routine gives its look to what it takes', async () => {
  const look = await named('For paper');
  await addRoutine('alt+k', { source: 'desk', kind: 'full', look: look.id, then: [] });
  await app.take();
  await app.chord(Key.ALT, 'k');
  await app.sees('On the Shelf');
  const [taken] = (await listShots()).shots;
  const { id = '', width = 0 } = taken ?? {};
  expect(await finishOf(id)).toEqual(look.finish);
  expect((await getPixels(id, 'picture')).width).toBe(width + 4);
}, 90_000);

test('many get a look at once, from the Shelf', async () => {
  const ids = [];
  for (const name of ['Reed one', 'Reed two']) {
    ids.push(await sendShot(await plainPng(80, 60, '#808080'), name, {}));
  }
  await app.go('/shelf');
  for (const name of ['Reed one', 'Reed two']) {
    const box = By.xpath(`//label[contains(., "Choose ${name} among several")]//input`);
    const found = await browser.driver.wait(until.elementLocated(box), WAIT);
    await browser.driver.executeScript('arguments[0].click()', found);
  }
  await app.sees('2 shots chosen');
  await app.choose(
    await browser.driver.findElement(By.css('[aria-label="Chosen shots"] [aria-label="Look"]')),
    'Field note',
  );
  await app.sees('2 shots have this look');
  const { finish } = await named('Field note');
  for (const [i, id] of ids.entries()) {
    const given = await finishOf(id);
    expect(given?.surround?.border).toEqual(finish.surround?.border);
    expect(given?.surround?.caption?.number).toBe(i + 1);
  }
}, 90_000);
