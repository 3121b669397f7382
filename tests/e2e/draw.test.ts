import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { By, Key, until } from 'selenium-webdriver';
import sharp from 'sharp';
import { randomFrom } from '@/core/random/random';
import { markSchema, type Mark, type MarkName } from '@/core/marks/registry';
import { fillText, layoutText } from '@/core/drawing/textLayout';
import { testTools } from '@/tests/lib/painting';
import { testShaper } from '@/tests/lib/shaper';
import { App, getPixels, getShot, pixelAt, WAIT } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';
import { Marking } from './lib/marking';

let browser: Browser;
let app: App;
let marking: Marking;
let speckled: Buffer;

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  marking = new Marking(app);
  await browser.driver.sendDevToolsCommand('Browser.grantPermissions', {
    permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
    origin: appUrl(),
  });
  const next = randomFrom(3);
  const data = Buffer.from(Array.from({ length: 600 * 400 * 3 }, () => 120 + next() * 100));
  speckled = await sharp(data, { raw: { width: 600, height: 400, channels: 3 } })
    .png()
    .toBuffer();
}, 120_000);
afterAll(() => browser.close());

const words = async (text: string) => {
  const field = await browser.driver.wait(until.elementLocated(By.css('textarea')), WAIT);
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), text, Key.ESCAPE);
};

const drag = (ax: number, ay: number, bx: number, by: number) => marking.drag(ax, ay, bx, by);
const click = (x: number, y: number) => marking.click(x, y);

/** Key, what is done with the pointer, the kind that comes of it, and a place it changes. */
const cases: [string, () => Promise<void>, MarkName, [number, number]][] = [
  ['n', () => click(200, 150), 'number', [200, 143]],
  ['d', () => drag(150, 100, 400, 300), 'dim', [40, 40]],
  ['u', () => drag(200, 150, 280, 210), 'closeUp', [240, 155]],
  ['s', () => click(300, 200), 'stamp', [300, 188]],
  ['x', () => drag(100, 100, 300, 200), 'blur', [200, 150]],
  ['q', () => drag(100, 100, 300, 200), 'blocks', [200, 150]],
  ['j', () => drag(100, 100, 300, 200), 'cover', [200, 150]],
  ['z', () => drag(100, 100, 300, 200), 'paintOut', [200, 150]],
  [
    'c',
    async () => {
      await drag(120, 320, 250, 150);
      await words('Look here');
    },
    'callout',
    [170, 140],
  ],
  [
    'y',
    async () => {
      await click(100, 100);
      await click(300, 120);
      await click(220, 300);
      await app.keys(Key.ENTER);
    },
    'polygon',
    [200, 110],
  ],
];

/** The marks that the tests below left behind, by the shot they are on. */
const left = new Map<string, readonly Mark[]>();

test.each(cases)(
  '%s is drawn, painted, changed by number and undone',
  async (key, draw, kind, [x, y]) => {
    const id = await marking.open([], speckled);
    const before = pixelAt(await getPixels(id, 'picture'), x, y);
    await app.keys(key);
    await draw();
    const [mark] = await marking.marksOf(id);
    expect(mark?.kind).toBe(kind);
    expect(pixelAt(await getPixels(id, 'picture'), x, y)).not.toEqual(before);
    await app.keys('g');
    const row = await browser.driver.wait(
      until.elementLocated(By.css(`[data-mark="${mark?.id ?? ''}"]`)),
      WAIT,
    );
    await row.click();
    const numbers = await browser.driver.findElements(
      By.css('section[aria-label="Marks"] li input'),
    );
    await numbers[0]?.sendKeys(Key.chord(Key.CONTROL, 'a'), '77', Key.ENTER);
    const [changed] = await marking.marksOf(id);
    expect(changed).not.toEqual(mark);
    await app.chord(Key.CONTROL, 'z');
    expect(await marking.marksOf(id)).toEqual([mark]);
    left.set(id, await marking.marksOf(id));
  },
  60_000,
);

test('all of them are there after a reload, and are undone then', async () => {
  expect(left.size).toBe(cases.length);
  await browser.driver.navigate().refresh();
  for (const [id, marks] of left) {
    await app.openShot(id);
    expect(await marking.marksOf(id)).toEqual(marks);
    await app.chord(Key.CONTROL, 'z');
    expect(await marking.marksOf(id)).toEqual([]);
  }
}, 60_000);

describe('numbers', () => {
  test('count on, close up when one is removed, and begin where they are told', async () => {
    const id = await marking.open();
    await app.keys('n');
    for (const x of [100, 200, 300]) await click(x, 150);
    const values = async () =>
      (await marking.marksOf(id)).map((mark) => mark.kind === 'number' && mark.value);
    expect(await values()).toEqual([1, 2, 3]);
    await app.keys('e');
    await click(200, 150);
    expect(await values()).toEqual([1, 2]);
    await app.keys('g');
    await click(100, 150);
    await app.moreSettings();
    await app.type('First', '7');
    await app.keys(Key.ESCAPE);
    expect(await values()).toEqual([7, 8]);
  }, 60_000);
});

test('the eraser takes several in one rub and one step, and everything by one command', async () => {
  const box = (id: string, x: number): Mark =>
    markSchema.parse({
      ...{ id, kind: 'box', x, y: 100, width: 60, height: 60, colour: '#0072B2' },
      ...{ outline: 4, fill: '#0072B2' },
    });
  const id = await marking.open([box('a', 60), box('b', 160), box('c', 260), box('d', 460)]);
  await app.keys('e');
  await drag(40, 130, 330, 130);
  expect((await marking.marksOf(id)).map((mark) => mark.id)).toEqual(['d']);
  await app.chord(Key.CONTROL, 'z');
  expect(await marking.marksOf(id)).toHaveLength(4);
  await app.click('Everything');
  expect(await marking.marksOf(id)).toEqual([]);
}, 60_000);

test('a Hide mark is switched off only after a question; what leaves hides all the same', async () => {
  const cover = markSchema.parse({
    ...{ id: 'c', kind: 'cover', x: 100, y: 100, width: 200, height: 100, colour: '#000000' },
  });
  const id = await marking.open([cover]);
  const covered = async () => pixelAt(await getPixels(id, 'picture'), 200, 150).slice(0, 3);
  await app.click('Switch off');
  await app.click('Show it only here');
  expect((await marking.marksOf(id))[0]).toMatchObject({ off: true });
  expect(await covered()).toEqual([0, 0, 0]);
  await app.click('Switch on');
  await app.click('Switch off');
  await app.click('Show it everywhere');
  await marking.marksOf(id);
  expect(await covered()).toEqual([255, 255, 255]);
}, 60_000);

test('marks are copied into another shot, and aligned there', async () => {
  const box = (id: string, x: number, y: number): Mark =>
    markSchema.parse({
      ...{ id, kind: 'box', x, y, width: 60, height: 40, colour: '#0072B2', outline: 4 },
    });
  await marking.open([box('a', 60, 80), box('b', 300, 200)]);
  await app.chord(Key.CONTROL, 'a');
  await app.chord(Key.CONTROL, 'c');
  await app.sees('In another shot you get the 2 marks.');
  const other = await marking.open();
  await app.chord(Key.CONTROL, 'v');
  await app.until('both', async () => (await marking.marksOf(other)).length === 2);
  await app.click('Align top');
  const ys = (await marking.marksOf(other)).map((mark) => mark.kind === 'box' && mark.y);
  expect(ys).toEqual([80, 80]);
}, 60_000);

test('a mark that would not be seen gets an edge; the figure is shown; it can be switched off', async () => {
  const id = await marking.open(
    [],
    await sharp({
      create: { width: 600, height: 400, channels: 3, background: '#D55E00' },
    })
      .png()
      .toBuffer(),
  );
  await app.keys('a');
  await drag(100, 100, 300, 220);
  expect((await marking.marksOf(id))[0]).toMatchObject({ halo: '#000000' });
  await app.moreSettings();
  await app.sees('1.0:1');
  await app.click('Stands out');
  await app.keys(Key.ESCAPE);
  expect((await marking.marksOf(id))[0]).not.toHaveProperty('halo');
}, 60_000);

test('colour and distance are read off the picture', async () => {
  await marking.open(
    [],
    await sharp({ create: { width: 600, height: 400, channels: 3, background: '#336699' } })
      .png()
      .toBuffer(),
  );
  await app.keys('i');
  await click(200, 150);
  await app.sees('rgb(51 102 153)');
  await app.sees('hsl(210 50% 40%)');
  expect(await browser.driver.executeScript('return navigator.clipboard.readText()')).toBe(
    '#336699',
  );
  await app.keys('m');
  await drag(100, 100, 400, 300);
  const said = await browser.driver.findElement(By.css('output[aria-label="Measured"]')).getText();
  expect(said).toMatch(/width (299|300|301)(\.\d)?, height (199|200|201)/);
}, 60_000);

test('a rough stroke is trued up, the runner-up is one click away, undo gives the stroke back', async () => {
  const id = await marking.open();
  await app.keys('p');
  await drag(100, 100, 300, 180);
  await app.keys('v');
  const [line] = await marking.marksOf(id);
  expect(line?.kind).toBe('line');
  await app.chord(Key.CONTROL, 'z');
  expect((await marking.marksOf(id))[0]?.kind).toBe('pen');
}, 60_000);

test('the straight highlighter takes the height of the line of words under it', async () => {
  const { surface, read } = (await testTools()).sheet(600, 400);
  surface.fillStyle = '#FFFFFF';
  surface.fillRect(0, 0, 600, 400);
  const font = { face: 'plain', weight: 400, size: 18 } as const;
  const block = layoutText(await testShaper(), 'Pond edge, north, after the frost', font);
  fillText(surface, block, 100, 150, '#000000');
  const { data } = read();
  const page = await sharp(Buffer.from(data.buffer), {
    raw: { width: 600, height: 400, channels: 4 },
  })
    .png()
    .toBuffer();
  const id = await marking.open([], page);
  await app.keys('h');
  await app.click('Along a line');
  await drag(105, 160, 340, 172);
  const [mark] = await marking.marksOf(id);
  if (mark?.kind !== 'highlighter') throw new Error('no highlighter');
  const baseline = 150 + (block.lines[0]?.baseline ?? 0);
  expect(mark.thickness).toBeGreaterThan(15);
  expect(mark.thickness).toBeLessThan(26);
  const [y0, y1] = [mark.points[0]?.[1], mark.points.at(-1)?.[1]];
  expect(y0).toBe(y1);
  expect(Math.abs((y0 ?? 0) - (baseline - 4))).toBeLessThan(4);
  await app.click('Along a line');
}, 60_000);

test('a description is written beside the marks, kept over a reload, and undone', async () => {
  const id = await marking.open();
  const place = By.css('section[aria-label="Description"] textarea');
  const field = await browser.driver.wait(until.elementLocated(place), WAIT);
  await field.sendKeys('A white sheet');
  await app.stored();
  expect((await getShot(id)).document.description).toBe('A white sheet');
  await browser.driver.navigate().refresh();
  await app.stage();
  const again = await browser.driver.wait(until.elementLocated(place), WAIT);
  expect(await again.getAttribute('value')).toBe('A white sheet');
}, 60_000);

test('strokes follow the rail while near it; its angle is typed; Esc takes it away', async () => {
  const id = await marking.open();
  await app.keys('w', 'p');
  await drag(100, 240, 500, 190);
  const [first] = await marking.marksOf(id);
  if (first?.kind !== 'pen') throw new Error('no stroke');
  // The rail lies in the middle of what is shown: the end of the stroke is near it, the beginning not.
  const near = first.points.filter(([, y]) => Math.abs(y - 200) < 1.5);
  expect(near.length).toBeGreaterThan(2);
  await app.type('Rail angle', '90');
  await drag(308, 60, 296, 340);
  const second = (await marking.marksOf(id))[1];
  if (second?.kind !== 'pen') throw new Error('no second stroke');
  const xs = second.points.map(([x]) => x);
  expect(Math.max(...xs) - Math.min(...xs)).toBeLessThan(0.1);
  await app.keys(Key.ESCAPE, Key.ESCAPE, Key.ESCAPE);
  expect(await app.has('[role="group"][aria-label="Rail"]')).toBe(false);
}, 60_000);

test('the colour picked under a Hide mark is that of its filling, as it leaves', async () => {
  const blur = markSchema.parse({
    ...{ id: 'h', kind: 'blur', x: 100, y: 100, width: 200, height: 100 },
  });
  const id = await marking.open([blur], speckled);
  await app.keys('i');
  await click(200.5, 150.5);
  await app.sees(' copied');
  const picked = await browser.driver.executeScript<string>(
    'return navigator.clipboard.readText()',
  );
  const [r = 0, g = 0, b = 0] = pixelAt(await getPixels(id, 'picture'), 200, 150);
  const channels = [1, 3, 5].map((at) => parseInt(picked.slice(at, at + 2), 16));
  // The pointer may land one pixel aside; neighbours in a filling differ little, noise by much.
  channels.forEach((value, i) =>
    expect(Math.abs(value - ([r, g, b][i] ?? 0))).toBeLessThanOrEqual(12),
  );
}, 60_000);
