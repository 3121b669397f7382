import { afterAll, beforeAll, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import sharp from 'sharp';
import { randomFrom } from '@/core/random/random';
import { untouched } from '@/core/document/view';
import { upright } from '@/core/document/turn';
import { run } from '@/server/pool/pool';
import { everyMark } from '@/tests/lib/marks';
import { App, plainPng, sendShot } from '../tests/e2e/lib/app';
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

/** Dim around is one mark however many places it leaves bright, and Close-ups are few. */
const usual = everyMark.filter((mark) => mark.kind !== 'dim' && mark.kind !== 'closeUp');

async function openWith(count: number): Promise<void> {
  const marks = Array.from({ length: count }, (_, i) => {
    const mark = structuredClone(usual[i % usual.length] ?? usual[0]);
    return { ...mark, id: `m${i}` };
  });
  const id = await sendShot(await plainPng(FRAME.width, FRAME.height, '#DDE6DD'), 'Many marks', {
    document: JSON.stringify({ version: 4, view: { crop: { x: 0, y: 0, ...FRAME } }, marks }),
  });
  await app.go(`/shots/${id}`);
  await app.stage();
  await browser.driver.sleep(3000);
}

const measured = (what: string, script: string, mark = '') =>
  measuredIn(browser.driver, what, script, mark);

test.each([200, 2000])(
  'over %i marks on 3840 × 2160',
  async (count) => {
    await openWith(count);
    for (const [key, name] of [
      ['p', 'Pen'],
      ['b', 'Box'],
      ['h', 'Highlighter'],
    ] as const) {
      await app.keys(key);
      await browser.driver.sleep(800);
      await measured(
        `${name} over ${count} marks`,
        timed(
          "send('pointerdown', 100, 100);",
          "send('pointermove', 100 + i * 4, 150 + 60 * Math.sin(i / 9));",
          "send('pointerup', 100 + i * 4, 200);",
          120,
        ),
        `must be ≤ ${count === 200 ? '16.7' : '33'} ms, no task over 50 ms`,
      );
      await app.chord(Key.CONTROL, 'z');
    }
    await measured(
      `Panning over ${count} marks`,
      timed('', 'wheel({ deltaX: i < 20 ? 12 : -12, deltaY: 6 });', '', 40),
    );
    await measured(
      `Zooming over ${count} marks`,
      timed('', 'wheel({ ctrlKey: true, deltaY: i < 20 ? -20 : 20 });', '', 40),
    );
  },
  240_000,
);

test('500 marks on 3840 × 2160 nudged, one renamed and locked, a large box pulled', async () => {
  await openWith(500);
  const mark = 'must be ≤ 50 ms';
  const key = (name: string) =>
    `document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key: '${name}', bubbles: true, cancelable: true }));`;
  await app.chord(Key.CONTROL, 'a');
  await browser.driver.sleep(800);
  await measured('Nudge 500 marks', timed('stage.focus();', key('ArrowRight'), '', 30), mark);
  await app.keys(Key.ESCAPE);
  await browser.driver.findElement({ css: '[data-row]' }).click();
  await browser.driver.sleep(800);
  const press = (label: string) => `document.querySelector('li [aria-label="${label}"]').click();`;
  const typed = `${press('Rename')}
    requestAnimationFrame(() => undefined);
    const field = document.querySelector('[aria-label="Name of the mark"]');
    if (field) { field.value = 'Name ' + i; field.blur(); }`;
  await measured('Rename one of 500 marks', timed('', typed, '', 20), mark);
  await measured(
    'Lock and unlock one of 500 marks',
    timed(
      '',
      `(document.querySelector('li [aria-label="Lock"]') ?? document.querySelector('li [aria-label="Unlock"]')).click();`,
      '',
      20,
    ),
    mark,
  );
  await app.keys('b');
  await browser.driver.sleep(800);
  await measured(
    'A box over the whole of 3840 × 2160',
    timed(
      "send('pointerdown', 30, 30);",
      "send('pointermove', 60 + i * 8, 60 + i * 5);",
      "send('pointerup', 60 + i * 8, 60 + i * 5);",
      80,
    ),
    'no task over 50 ms',
  );
}, 240_000);

test('straightening 3840 × 2160 by an angle, beside sharp’s affine', async () => {
  const next = randomFrom(1);
  const data = new Uint8ClampedArray(FRAME.width * FRAME.height * 4);
  const words = new Uint32Array(data.buffer);
  for (let i = 0; i < words.length; i += 1) words[i] = 0xff000000 | (next() * 0xffffff);
  const raw = () => sharp(Buffer.from(data.buffer), { raw: { ...FRAME, channels: 4 } });
  const frame = await raw().removeAlpha().png({ compressionLevel: 1 }).toBuffer();
  // In a thread, as the app does it; the test runner slows such loops down.
  const painted = (angle: number) => {
    const { view } = untouched(FRAME);
    const turned = { ...untouched(FRAME), view: { ...view, turn: { ...upright, angle } } };
    const document = angle === 0 ? untouched(FRAME) : turned;
    return time(() => run('flatten', { frame, opaque: true, document }, { pixels: 1 }));
  };
  const [c, s] = [Math.cos(0.1), Math.sin(0.1)];
  const [ours, bare, theirs]: [number[], number[], number[]] = [[], [], []];
  for (let i = 0; i < 7; i += 1) {
    bare.push(await painted(0));
    ours.push(await painted(5.73));
    theirs.push(
      await time(() => raw().affine([c, -s, s, c], { interpolator: 'bicubic' }).raw().toBuffer()),
    );
  }
  const cost = median(ours) - median(bare);
  report('Straighten 3840 × 2160 by 5.73°, beside painting it as it is', ms(cost));
  report(
    '… against sharp’s bicubic affine',
    `${(cost / median(theirs)).toFixed(1)}×`,
    'must be ≤ 1.3×',
  );
}, 120_000);
