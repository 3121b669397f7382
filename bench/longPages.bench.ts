import { afterAll, beforeAll, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { randomFrom } from '@/core/random/random';
import { LongPage } from '@/core/stitch/longPage';
import { decode, type Pixels } from '../tests/e2e/lib/app';
import { openBrowser, type Browser } from '../tests/e2e/lib/browser';
import { longPages } from './longPages';
import { report } from './measure';

/** Pages that nobody has looked at: measured as they fall. */
const COUNT = 20;
const SEED = 20_261_129;
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

/** Scrolls a page by steps of 50 to 500 pixels, and joins what is seen. */
async function joined(next: () => number): Promise<LongPage> {
  const long = new LongPage(SIZE, { waits: false });
  await browser.driver.sleep(LOADED);
  long.add(pixelsOf(await seen()));
  for (;;) {
    const by = 50 + Math.floor(next() * 450);
    const moved = await browser.driver.executeScript<boolean>(
      'const before = scrollY; scrollBy(0, arguments[0]); return scrollY > before;',
      by,
    );
    if (!moved) return long;
    await browser.driver.sleep(LOADED);
    long.add(pixelsOf(await seen()));
  }
}

test('pages kept apart, joined, against the browser’s own picture of the whole page', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'rezzik-pages-'));
  const next = randomFrom(SEED);
  let [exact, gaps, wrong] = [0, 0, 0];
  for (const [i, page] of longPages(COUNT, SEED).entries()) {
    const file = join(folder, `${i}.html`);
    writeFileSync(file, page);
    await browser.driver.get(`file://${file}`);
    const long = await joined(next);
    await browser.driver.executeScript('scrollTo(0, 0)');
    const height = await browser.driver.executeScript<number>(
      'return document.documentElement.scrollHeight',
    );
    const truth = await seen(height);
    const [picture, ...more] = long.joined();
    const isExact =
      picture?.height === truth.height && Buffer.from(picture.data).equals(truth.data);
    if (more.length > 0) gaps += 1;
    else if (isExact) exact += 1;
    else wrong += 1;
  }
  report('Pages equal to the pixel', `${exact} of ${COUNT}`, 'must be ≥ 95 %');
  report('… with a gap that is said', String(gaps));
  report('… wrong, and not said', String(wrong), 'must be none');
}, 400_000);
