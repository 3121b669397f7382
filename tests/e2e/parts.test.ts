import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { z } from 'zod';
import { findParts } from '@/core/screen/parts';
import { apart, askBoxes, looks, pageOf, tuning } from '../parts/pages';
import { misses, score, sum, type Score } from '../parts/score';
import { decode } from './lib/app';
import { openBrowser, type Browser } from './lib/browser';

let browser: Browser;
beforeAll(async () => {
  browser = await openBrowser();
}, 60_000);
afterAll(() => browser.close());

const boxesSchema = z.array(
  z.object({
    kind: z.string().nullable(),
    x: z.number(),
    y: z.number(),
    width: z.number(),
    height: z.number(),
  }),
);

async function measure(pages: readonly [string, string][]): Promise<Score> {
  const scores: Score[] = [];
  for (const look of looks) {
    for (const [name, body] of pages) {
      await browser.driver.get(pageOf(look, body));
      const boxes = boxesSchema.parse(await browser.driver.executeScript(askBoxes));
      const shot = await decode(Buffer.from(await browser.driver.takeScreenshot(), 'base64'));
      const { width, height } = shot;
      const data = new Uint8ClampedArray(shot.data.length);
      data.set(shot.data);
      const found = findParts({ data, width, height });
      const got = score(found, boxes);
      scores.push(got);
      const wrong = misses(found, boxes);
      if (process.env.REZZIK_SHOW_MISSES) {
        console.log(name, look.name, JSON.stringify(got), JSON.stringify(wrong));
      }
    }
  }
  return sum(scores);
}

// Boxes asked from the pages themselves, by getBoundingClientRect.
test('buttons, fields, menus, panels and windows of the measured pages are found, and little else', async () => {
  const { known, found, offered, right } = await measure(apart);
  expect(known).toBeGreaterThan(80);
  expect(found / known).toBeGreaterThanOrEqual(0.85);
  expect(right / offered).toBeGreaterThanOrEqual(0.85);
}, 60_000);

test('so are those of the pages it was made with', async () => {
  const { known, found, offered, right } = await measure(tuning);
  expect(found / known).toBeGreaterThanOrEqual(0.85);
  expect(right / offered).toBeGreaterThanOrEqual(0.85);
}, 60_000);
