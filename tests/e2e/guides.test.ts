import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { By, Key, type WebElement } from 'selenium-webdriver';
import { guidesSchema, storedGuideSchema, type StoredGuide } from '@/core/contracts/guide';
import { markSchema } from '@/core/marks/registry';
import { App, plainPng, read, sendShot, WAIT } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';
import { newFolder } from './lib/keeping';

let browser: Browser;
let app: App;
let root: string;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  ({ path: root } = await newFolder('Guide folder', { isDefault: true }));
}, 120_000);
afterAll(() => browser.close());

const number = (id: string, caption: string, x: number) =>
  markSchema.parse({
    ...{ id, kind: 'number', at: { x, y: 60 }, value: 1, colour: '#0072B2', caption },
  });

/** Three shots, of which the second has two numbers; their names begin so. */
async function shots(name: string): Promise<string[]> {
  const ids: string[] = [];
  for (const [i, nth] of ['one', 'two', 'three'].entries()) {
    const frame = await plainPng(300, 200, '#FFFFFF');
    const marks = i === 1 ? [number('a', 'The field', 60), number('b', '', 200)] : [];
    const view = { crop: { x: 0, y: 0, width: 300, height: 200 } };
    const document = JSON.stringify({ version: 4, view, marks });
    ids.push(await sendShot(frame, `${name} ${nth}`, { document }));
  }
  return ids;
}
const ask = (path: string, init: RequestInit) => fetch(appUrl() + path, init);
const guideOf = async (id: string): Promise<StoredGuide> =>
  storedGuideSchema.parse(await (await read(`/api/guides/${id}`)).json());
const headings = async (id: string) =>
  (await guideOf(id)).guide.items.map((item) =>
    item.kind === 'heading' ? item.text : item.heading,
  );
const made = (name: string, ids: readonly string[], title = 'Beds'): Promise<StoredGuide> =>
  ask('/api/guides', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ title: `${title} ${name}`, shots: ids }),
  }).then(async (answer) => storedGuideSchema.parse(await answer.json()));
const idIn = async () => /guides\/([0-9a-f-]{36})/.exec(await browser.driver.getCurrentUrl())?.[1];
const entries = () => browser.driver.findElements(By.css('[data-item]'));
const spans = async () => {
  const texts = await Promise.all((await entries()).map((entry) => entry.getText()));
  return texts.map((words) => words.split('\n')[0]);
};
const field = (label: string): Promise<WebElement> =>
  Promise.resolve(browser.driver.findElement(By.css(`[aria-label="${label}"]`)));
/** Opens a guide and waits until its steps are there. */
const open = async (id: string) => {
  await app.go(`/guides/${id}`);
  await app.until('its steps', async () => (await entries()).length > 0);
};

let name = '';
let count = 0;
beforeEach(() => {
  count += 1;
  name = `Seeds${count}`;
});

test('select, Guide, type, keep', async () => {
  await shots(name);
  await app.go(`/shelf?q=${name}`);
  await app.until('its cards', async () => {
    const cards = await browser.driver.findElements(By.css('[data-shot]'));
    return cards.length === 3;
  });
  for (const card of await browser.driver.findElements(By.css('[data-shot]'))) {
    const actions = browser.driver.actions();
    await actions.keyDown(Key.CONTROL).click(card).keyUp(Key.CONTROL).perform();
  }
  await app.click('Guide');
  await app.until('a guide', async () => (await idIn()) !== undefined);
  await app.until('its title', () => app.has('[aria-label="Title of the guide"]'));
  // The title stands ready to be typed over.
  await app.keys(name, Key.ENTER);
  await app.until('its steps', async () => (await entries()).length === 3);
  expect((await spans()).map((span) => span?.[0])).toEqual(['1', '2', expect.any(String)]);
  await app.click('Page (HTML)');
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('Choose what it is kept as.');
  await app.click('Page (HTML)');
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('The guide is kept');
  const file = readdirSync(root).find((one) => one.startsWith(name));
  expect(file).toBe(`${name}.html`);
  const page = readFileSync(`${root}/${name}.html`, 'utf8');
  expect(page.match(/<img src="data:image\/png/g)).toHaveLength(3);
  expect(page).toContain(`<h1>${name}</h1>`);
  expect(page).toContain(`${name} two</h2>`);
  const { guides } = guidesSchema.parse(await (await read('/api/guides')).json());
  expect(guides.some(({ title, steps }) => title === name && steps === 3)).toBe(true);
}, 90_000);

test('steps are ordered by a drag and by the keyboard; numbers run on, undo leads back', async () => {
  const guide = await made(name, await shots(name));
  await open(guide.id);
  await app.until('numbers', async () => (await spans()).join() === '1,2–3,4');
  const [first, , last] = await entries();
  if (!first || !last) throw new Error('There are no steps.');
  const drag = browser.driver.actions();
  await drag
    .move({ origin: first })
    .press()
    .move({ origin: first, x: 0, y: 20 })
    .move({ origin: last, x: 0, y: 8 })
    .pause(500)
    .release()
    .perform();
  await app.until('moved', async () => (await spans()).join() === '1–2,3,4');
  await app.stored();
  const ids = guide.guide.items.map(({ id }) => id);
  const now = async () => (await guideOf(guide.id)).guide.items.map(({ id }) => id);
  expect(await now()).toEqual([ids[1], ids[2], ids[0]]);
  // The first of them, by keys.
  await (await entries())[0]?.click();
  await app.chord(Key.ALT, Key.ARROW_DOWN);
  await app.until('down', async () => (await spans()).join() === '1,2–3,4');
  await app.chord(Key.CONTROL, 'z');
  await app.until('undone', async () => (await spans()).join() === '1–2,3,4');
  await app.chord(Key.CONTROL, 'z');
  await app.stored();
  expect(await now()).toEqual(ids);
}, 90_000);

test('captions are Markdown, name numbers of the picture and are stored as they are typed', async () => {
  const guide = await made(name, await shots(name));
  await open(guide.id);
  await (await entries())[1]?.click();
  await app.sees('2 The field');
  await (await field('Heading of the step')).sendKeys('Fill it in', Key.ENTER);
  // Enter goes on to the caption.
  await app.keys('Press ({1}), then ');
  await browser.driver.actions().keyDown(Key.CONTROL).sendKeys('b').keyUp(Key.CONTROL).perform();
  await app.keys('Send');
  await app.until('as it will be written', async () => {
    const seen = await (await field('Caption as it will be written')).getText();
    return seen === 'Press (2), then Send';
  });
  await app.stored();
  const [, step] = (await guideOf(guide.id)).guide.items;
  expect(step).toMatchObject({ heading: 'Fill it in', caption: 'Press ({1}), then **Send**' });
  // A reload loses nothing.
  await browser.driver.navigate().refresh();
  await app.sees('Fill it in');
}, 60_000);

test('a heading is put in, a step taken out; the answer brings it back', async () => {
  const guide = await made(name, await shots(name));
  await open(guide.id);
  await (await entries())[1]?.click();
  await app.click('Heading');
  await app.keys('Second part', Key.ESCAPE);
  await app.stored();
  expect(await headings(guide.id)).toEqual(['', 'Second part', '', '']);
  await (await entries())[3]?.click();
  await app.keys(Key.DELETE);
  await app.until('gone', async () => (await entries()).length === 3);
  await app.sees('Removed from the guide');
  await app.stored();
  expect((await guideOf(guide.id)).guide.items).toHaveLength(3);
  await app.chord(Key.CONTROL, 'z');
  await app.until('back', async () => (await entries()).length === 4);
}, 60_000);

test('two tabs on one guide: the second is told, and either version can be taken', async () => {
  const guide = await made(name, await shots(name));
  await open(guide.id);
  const here = await browser.driver.getWindowHandle();
  const elsewhere = async (title: string) => {
    const { revision } = await guideOf(guide.id);
    await ask(`/api/guides/${guide.id}`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ revision, title }),
    });
  };
  await elsewhere('Theirs');
  await app.type('Title of the guide', 'Mine');
  await app.sees('This guide was changed in another tab.');
  await app.click('Take the other version');
  await app.until('theirs', async () => (await browser.driver.getTitle()).startsWith('Theirs'));
  await elsewhere('Theirs again');
  await app.type('Title of the guide', 'Mine after all');
  await app.sees('This guide was changed in another tab.');
  await app.click('Store this one');
  await app.until('mine', async () => (await guideOf(guide.id)).title === 'Mine after all');
  expect(await browser.driver.getWindowHandle()).toBe(here);
}, 60_000);

test('a shot in the Bin is said, is left out, and comes back', async () => {
  const ids = await shots(name);
  const guide = await made(name, ids);
  await ask(`/api/shots/${ids[0]}/bin`, { method: 'POST' });
  await open(guide.id);
  await app.sees('This shot lies in the Bin.');
  expect(await spans()).toEqual(['–', '1–2', '3']);
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('The guide is kept');
  await app.click('Take it out of the Bin');
  await app.until('counted', async () => (await spans()).join() === '1,2–3,4');
}, 60_000);

test('it is looked at as it will be kept, shots are added, and it is removed only when asked', async () => {
  const ids = await shots(name);
  const guide = await made(name, ids.slice(0, 1));
  await open(guide.id);
  await app.click('Shots from the Shelf');
  await (await field('Search the Shelf')).sendKeys(name);
  await app.click(`${name} two`);
  await app.click(`${name} three`);
  await app.click('Add 2 shots');
  await app.until('added', async () => (await entries()).length === 3);
  await app.stored();
  await app.click('Look at it');
  const frame = await app
    .until('the page', () => app.has('iframe[title="The guide"]'))
    .then(() => browser.driver.findElement(By.css('iframe[title="The guide"]')));
  await browser.driver.switchTo().frame(frame);
  const pictures = () => browser.driver.findElements(By.css('img'));
  await browser.driver.wait(async () => (await pictures()).length === 3, WAIT);
  await browser.driver.switchTo().defaultContent();
  await app.keys(Key.ESCAPE);
  await app.click('Remove the guide');
  await app.click('Leave it');
  await app.click('Remove the guide');
  await app.click('Remove');
  await app.until('the list', async () =>
    (await browser.driver.getCurrentUrl()).endsWith('/guides'),
  );
  const { guides } = guidesSchema.parse(await (await read('/api/guides')).json());
  expect(guides.some(({ id }) => id === guide.id)).toBe(false);
  expect((await read(`/api/shots/${ids[0]}`)).ok).toBe(true);
}, 90_000);
