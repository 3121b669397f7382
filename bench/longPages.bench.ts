import { afterAll, beforeAll, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { randomFrom } from '@/core/random/random';
import { frameOf } from '@/core/stitch/frame';
import { LongPage } from '@/core/stitch/longPage';
import { asVideo } from '@/tests/lib/video';
import { decode, type Pixels } from '../tests/e2e/lib/app';
import { openBrowser, type Browser } from '../tests/e2e/lib/browser';
import { longPages } from './longPages';
import { report } from './measure';

/** Pages that nobody has looked at: measured as they fall. */
const COUNT = 20;
const SEED = 20_261_301;
/** Others, for other ways of scrolling and looking. */
const FEW = 20;
const SMOOTH_SEED = 20_261_402;
const SHARED_SEED = 20_261_303;
/** What loads late is there before it is looked at, as a hand waits for it, ms. */
const LOADED = 250;
const SIZE = { width: 1280, height: 800 };

let browser: Browser;
beforeAll(async () => {
  browser = await openBrowser(SIZE);
}, 60_000);
afterAll(() => browser.close());

const shotSchema = z.object({ data: z.string() });

/** What is seen now; or the whole page, as the browser itself has it (DevTools Protocol, Page). */
async function seen(whole = 0): Promise<Pixels> {
  const clip = { x: 0, y: 0, width: SIZE.width, height: whole, scale: 1 };
  const wish = whole ? { captureBeyondViewport: true, clip } : {};
  const answer: unknown = await browser.driver.sendAndGetDevToolsCommand(
    'Page.captureScreenshot',
    wish,
  );
  return decode(Buffer.from(shotSchema.parse(answer).data, 'base64'));
}

const pixelsOf = ({ data, width, height }: Pixels) => ({
  ...{ width, height },
  data: new Uint8ClampedArray(data),
});

/** How a page is gone on by so many pixels, and what is seen meanwhile. @returns null at its end */
type Step = (by: number) => Promise<Pixels[] | null>;

const atOnce: Step = async (by) => {
  const moved = await browser.driver.executeScript<boolean>(
    'const before = scrollY; scrollBy(0, arguments[0]); return scrollY > before;',
    by,
  );
  if (!moved) return null;
  await browser.driver.sleep(LOADED);
  return [await seen()];
};

/** As browsers do it by themselves: it glides, and is caught half way. */
const smoothly: Step = async (by) => {
  const before = await browser.driver.executeScript<number>(
    `const before = scrollY; scrollBy({ top: arguments[0], behavior: 'smooth' }); return before;`,
    by,
  );
  const all: Pixels[] = [];
  for (;;) {
    const now = await seen();
    const isAtRest = all.at(-1)?.data.equals(now.data) ?? false;
    all.push(now);
    if (isAtRest && all.length > 3) break;
  }
  await browser.driver.sleep(LOADED);
  const isEnd = (await browser.driver.executeScript<number>('return scrollY')) === before;
  return isEnd ? null : [...all, await seen()];
};

/** As a browser hands over a shared screen. */
function shared(seen: Pixels): Pixels {
  const { words, width, height } = asVideo(frameOf(pixelsOf(seen), 'down'));
  return { data: Buffer.from(words.buffer), width, height };
}

interface Manner {
  step: Step;
  as?: (seen: Pixels) => Pixels;
  waits: boolean;
}

/** Scrolls a page by steps of 50 to 500 pixels, and joins what is seen. */
async function joined(next: () => number, { step, as = (same) => same, waits }: Manner) {
  const long = new LongPage(SIZE, { waits });
  const seams = { all: 0, sure: 0 };
  await browser.driver.sleep(LOADED);
  long.add(pixelsOf(as(await seen())));
  for (;;) {
    const frames = await step(50 + Math.floor(next() * 450));
    if (!frames) return { long, seams };
    const added = frames.map((frame) => long.add(pixelsOf(as(frame))));
    seams.all += 1;
    if (added.includes('joined')) seams.sure += 1;
  }
}

/** Of many pages: how many came out as they are, with a gap, or wrong; and how many seams were sure. */
async function measured(count: number, seed: number, manner: Manner) {
  const folder = mkdtempSync(join(tmpdir(), 'rezzik-pages-'));
  const next = randomFrom(seed);
  const came = { exact: 0, gaps: 0, wrong: 0, tooLong: 0, all: 0, sure: 0 };
  for (const [i, page] of longPages(count, seed).entries()) {
    const file = join(folder, `${i}.html`);
    writeFileSync(file, page);
    await browser.driver.get(`file://${file}`);
    const { long, seams } = await joined(next, manner);
    came.all += seams.all;
    came.sure += seams.sure;
    await browser.driver.executeScript('scrollTo({ top: 0, behavior: "instant" })');
    const height = await browser.driver.executeScript<number>(
      'return document.documentElement.scrollHeight',
    );
    const truth = await seen(height);
    const [picture, ...more] = long.joined();
    const isExact =
      picture?.height === truth.height && Buffer.from(picture.data).equals(truth.data);
    if (more.length > 0) came.gaps += 1;
    else if (isExact) came.exact += 1;
    else came.wrong += 1;
    const beyond = Math.abs((picture?.height ?? 0) - truth.height) > 1;
    if (more.length === 0 && beyond) came.tooLong += 1;
  }
  return came;
}

test('pages kept apart, joined, against the browser’s own picture of the whole page', async () => {
  const { exact, gaps, wrong } = await measured(COUNT, SEED, { step: atOnce, waits: false });
  report('Pages equal to the pixel', `${exact} of ${COUNT}`, 'must be ≥ 95 %');
  report('… with a gap that is said', String(gaps));
  report('… wrong, and not said', String(wrong), 'must be none');
}, 400_000);

test('others, scrolled smoothly and caught half way', async () => {
  const { exact, gaps, wrong } = await measured(FEW, SMOOTH_SEED, { step: smoothly, waits: true });
  report('Pages scrolled smoothly, equal to the pixel', `${exact} of ${FEW}`, 'must be ≥ 95 %');
  report('… with a gap that is said', String(gaps));
  report('… wrong, and not said', String(wrong), 'must be none');
}, 400_000);

test('others, as a shared screen shows them', async () => {
  const manner = { step: atOnce, as: shared, waits: false };
  const { all, sure, tooLong } = await measured(FEW, SHARED_SEED, manner);
  report('Seams of a shared screen called sure', `${sure} of ${all}`, 'must be ≥ 95 %');
  report('… pages wrong by more than a row, and not said', String(tooLong), 'must be none');
}, 400_000);
