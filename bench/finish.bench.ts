import { afterAll, beforeAll, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import sharp, { type Sharp } from 'sharp';
import type { Adjust } from '@/core/finish/adjust/adjust';
import { parts, type Surround } from '@/core/finish/surround/surround';
import { untouched } from '@/core/document/view';
import { randomFrom } from '@/core/random/random';
import { run } from '@/server/pool/pool';
import { App, sendShot } from '../tests/e2e/lib/app';
import { openBrowser, type Browser } from '../tests/e2e/lib/browser';
import { measuredIn, timed } from './inPage';
import { median, ms, report, time } from './measure';

let browser: Browser;
let app: App;
const FRAME = { width: 3840, height: 2160 };

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
}, 120_000);
afterAll(() => browser.close());

/** Every pixel differs: nothing is found again. */
function noise(): Buffer {
  const next = randomFrom(1);
  const words = new Uint32Array(FRAME.width * FRAME.height);
  for (let i = 0; i < words.length; i += 1) words[i] = 0xff000000 | (next() * 0xffffff);
  return Buffer.from(words.buffer);
}
const raw = (pixels: Buffer) => sharp(pixels, { raw: { ...FRAME, channels: 4 } }).removeAlpha();

test('a slider of Finish pulled on 3840 × 2160', async () => {
  const picture = await raw(noise()).png({ compressionLevel: 1 }).toBuffer();
  const id = await sendShot(picture, 'Adjusted');
  await app.openShot(id);
  await browser.driver.sleep(3000);
  await app.keys(',');
  await browser.driver.sleep(800);
  const pull = `const thumb = document.querySelector('[role="slider"][aria-label="Contrast"]');
    thumb.focus();
    thumb.dispatchEvent(new KeyboardEvent('keydown', { key: i % 40 < 20 ? 'ArrowRight' : 'ArrowLeft', bubbles: true, cancelable: true }));`;
  await measuredIn(browser.driver, 'Contrast by 1 %', timed('', pull, '', 60), 'must be ≤ 33 ms');
}, 120_000);

test('a slider of Surround pulled on 3840 × 2160, seen as it leaves', async () => {
  const picture = await raw(noise()).png({ compressionLevel: 1 }).toBuffer();
  const surround = {
    border: { ...parts.border.first, corners: 40 },
    shadow: parts.shadow.first,
    background: { colours: ['#DCE9E2', '#5E8C79'], run: 'slant', room: 120 },
    caption: { ...parts.caption.first, text: 'Reed bed', plate: null },
  };
  const document = { ...untouched(FRAME), finish: { surround } };
  const id = await sendShot(picture, 'Surrounded', { document: JSON.stringify(document) });
  await app.openShot(id);
  await browser.driver.sleep(3000);
  await app.keys(',', Key.ARROW_RIGHT);
  await app.choose(await browser.driver.findElement(By.css('label select')), 'Shadow');
  await app.until('seen', () => app.has('[data-testid="whole"][data-painted="true"]'));
  await browser.driver.sleep(1500);
  const pull = `const thumb = document.querySelector('[role="slider"][aria-label="Blur"]');
    thumb.focus();
    thumb.dispatchEvent(new KeyboardEvent('keydown', { key: i % 40 < 20 ? 'ArrowRight' : 'ArrowLeft', bubbles: true, cancelable: true }));`;
  await measuredIn(browser.driver, 'Shadow by 1 px', timed('', pull, '', 60), 'must be ≤ 33 ms');
}, 120_000);

/** What is around the picture, and what sharp takes for the like. */
const around: [string, Surround, ((image: Sharp) => Sharp) | null][] = [
  [
    'border',
    { border: parts.border.first },
    (s) => s.extend({ top: 8, bottom: 8, left: 8, right: 8, background: '#1D4A3F' }),
  ],
  ['shadow', { shadow: parts.shadow.first }, (s) => s.ensureAlpha().extractChannel(3).blur(12)],
  ['tilt', { tilt: parts.tilt.first }, null],
  [
    'everything',
    {
      ragged: parts.ragged.first,
      border: parts.border.first,
      tilt: parts.tilt.first,
      shadow: parts.shadow.first,
      background: { colours: ['#DCE9E2', '#5E8C79'], run: 'slant', room: 120 },
      caption: { ...parts.caption.first, text: 'Reed bed' },
      watermark: parts.watermark.first,
    },
    null,
  ],
];

test('surrounding 3840 × 2160', async () => {
  const pixels = noise();
  const frame = await raw(pixels).png({ compressionLevel: 1 }).toBuffer();
  const painted = (surround?: Surround) => {
    const document = { ...untouched(FRAME), ...(surround && { finish: { surround } }) };
    return time(() => run('flatten', { frame, opaque: true, document }, { pixels: 1 }));
  };
  for (const [name, surround, like] of around) {
    const [ours, bare, theirs]: [number[], number[], number[]] = [[], [], []];
    for (let i = 0; i < 5; i += 1) {
      bare.push(await painted());
      ours.push(await painted(surround));
      if (like) theirs.push(await time(() => like(raw(pixels)).raw().toBuffer()));
    }
    const cost = median(ours) - median(bare);
    report(`Surround: ${name}, beside painting as it is`, ms(cost), like ? '' : 'must be ≤ 400 ms');
    if (!like) continue;
    report('… against sharp', `${(cost / median(theirs)).toFixed(1)}×`, 'must be ≤ 1.3×');
  }
}, 240_000);

/** What each setting costs beside painting without it, and what sharp takes for the like. */
const cases: [string, Omit<Adjust, 'on'>, ((image: Sharp) => Sharp) | null][] = [
  ['brightness and contrast', { brightness: 110, contrast: 130 }, (s) => s.linear(1.43, -38)],
  ['greyscale', { grey: 100 }, (s) => s.greyscale().toColourspace('srgb')],
  ['inverted', { inverted: 100 }, (s) => s.negate()],
  [
    'everything',
    { brightness: 110, contrast: 130, saturation: 70, grey: 20, inverted: 100, sharpened: 80 },
    null,
  ],
];

test('adjusting 3840 × 2160, beside sharp doing the like', async () => {
  const pixels = noise();
  const frame = await raw(pixels).png({ compressionLevel: 1 }).toBuffer();
  const painted = (adjust?: Adjust) => {
    const document = { ...untouched(FRAME), ...(adjust && { finish: { adjust } }) };
    return time(() => run('flatten', { frame, opaque: true, document }, { pixels: 1 }));
  };
  for (const [name, adjust, like] of cases) {
    const [ours, bare, theirs]: [number[], number[], number[]] = [[], [], []];
    for (let i = 0; i < 5; i += 1) {
      bare.push(await painted());
      ours.push(await painted({ on: 'picture', ...adjust }));
      if (like) theirs.push(await time(() => like(raw(pixels)).raw().toBuffer()));
    }
    const cost = median(ours) - median(bare);
    report(`Adjust ${name}, beside painting as it is`, ms(cost), like ? '' : 'must be ≤ 400 ms');
    if (!like) continue;
    report('… against sharp', `${(cost / median(theirs)).toFixed(1)}×`, 'must be ≤ 1.3×');
  }
}, 240_000);
