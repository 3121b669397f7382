import { expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import sharp from 'sharp';
import { markSchema, type Mark } from '@/core/marks/registry';
import { getPixels, getShot, pixelAt, plainPng, sendShot } from './lib/app';
import { app, browser, inOneBrowser, marking } from './lib/suite';

inOneBrowser();

const pen = (id: string, points: [number, number, number][]): Mark =>
  markSchema.parse({ id, kind: 'pen', tip: 'felt', points, colour: '#0072B2', thickness: 6 });

test('a stroke of 100 000 points, one of none, and marks far outside: shown, drawn on and stored', async () => {
  const long = Array.from({ length: 100_000 }, (_, i): [number, number, number] => [
    300 + Math.cos(i / 500) * (i / 600),
    200 + Math.sin(i / 500) * (i / 900),
    0.5,
  ]);
  const marks = [
    pen('long', long),
    pen('dot', [[40, 40, 0.5]]),
    pen('far', [
      [-90_000, -90_000, 0.5],
      [99_000, 99_000, 0.5],
    ]),
  ];
  const id = await marking.open(marks);
  await app.keys('b');
  await marking.drag(450, 40, 560, 120);
  expect(await marking.marksOf(id)).toHaveLength(4);
  await app.chord(Key.CONTROL, 'z');
  expect(await marking.marksOf(id)).toEqual(marks);
  expect(pixelAt(await getPixels(id, 'picture'), 40, 40)).toEqual([0, 0x72, 0xb2, 255]);
}, 120_000);

test('2 000 marks can be drawn on, and one of them erased', async () => {
  const marks = Array.from({ length: 2_000 }, (_, i) =>
    markSchema.parse({
      ...{ id: `b${i}`, kind: 'box', x: (i % 50) * 12, y: Math.floor(i / 50) * 10 },
      ...{ width: 8, height: 6, colour: '#009E73', outline: 1, fill: '#009E73' },
    }),
  );
  const id = await marking.open(marks);
  await app.keys('e');
  await marking.click(4, 3);
  expect(await marking.marksOf(id)).toHaveLength(1_999);
}, 120_000);

test('a text of 20 000 characters is laid out and kept whole', async () => {
  const text = 'Pond edge and north bank. '.repeat(770).slice(0, 20_000);
  const words = markSchema.parse({
    ...{ id: 't', kind: 'text', x: 4, y: 4, width: 590, text, colour: '#000000', textSize: 6 },
  });
  const id = await marking.open([words]);
  await app.keys('l');
  await marking.drag(100, 390, 300, 395);
  const [first] = await marking.marksOf(id);
  expect(first?.kind === 'text' && first.text).toHaveLength(20_000);
}, 120_000);

test('a picture of 1 × 20 000 pixels opens, is marked and stored', async () => {
  const picture = await sharp({
    create: { width: 1, height: 20_000, channels: 3, background: '#336699' },
  })
    .png()
    .toBuffer();
  const id = await sendShot(picture, 'Thread');
  await app.openShot(id);
  await app.keys('a');
  await app.click('Add arrow');
  await app.stored();
  const shot = await getShot(id);
  expect([shot.width, shot.height, shot.document.marks.length]).toEqual([1, 20_000, 1]);
}, 120_000);

test('a picture of 7 680 × 4 320 pixels opens, is marked, turned and leaves', async () => {
  const id = await sendShot(await plainPng(7680, 4320, '#DDE6DD'), 'Large');
  await app.openShot(id);
  const stage = await browser.driver.findElement(By.css('[data-testid="stage"]'));
  const view = { x: 0, y: 0, width: 7680, height: 4320 };
  await app.keys('b');
  await app.drag(
    stage,
    await app.stagePoint(view, { x: 2000, y: 1000 }),
    await app.stagePoint(view, { x: 5000, y: 3000 }),
  );
  await app.keys('r');
  await app.click('Turn right');
  await app.stored();
  const { document } = await getShot(id);
  expect(document.marks).toHaveLength(1);
  expect(document.view.crop).toEqual({ x: 0, y: 0, width: 4320, height: 7680 });
  const picture = await getPixels(id, 'picture');
  expect([picture.width, picture.height]).toEqual([4320, 7680]);
}, 120_000);

test('a font that does not load is said, and opening again works when it is back', async () => {
  const id = await sendShot(await plainPng(200, 100, '#DDE6DD'), 'No font');
  await browser.driver.sendDevToolsCommand('Network.enable', {});
  await browser.driver.sendDevToolsCommand('Network.setBlockedURLs', { urls: ['*/fonts/*.ttf'] });
  await app.go(`/shots/${id}`);
  await app.sees('This shot could not be opened.');
  await browser.driver.sendDevToolsCommand('Network.setBlockedURLs', { urls: [] });
  await app.click('Try again');
  await app.stage();
}, 60_000);
