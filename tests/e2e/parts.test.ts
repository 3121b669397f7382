import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { z } from 'zod';
import { findParts } from '@/core/screen/parts';
import { freshLooks, freshPageOf, freshPages } from '../parts/freshPages';
import { askBoxes, looks, pageOf, pages } from '../parts/pages';
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

const known = looks.flatMap((look) =>
  pages.map(([name, body]) => ({ name: `${name}, ${look.name}`, address: pageOf(look, body) })),
);
const fresh = freshLooks.flatMap(({ name: look, css }) =>
  freshPages.map(([name, body]) => ({
    name: `${name}, ${look}`,
    address: freshPageOf(css, body),
  })),
);

async function measure(screens: readonly { name: string; address: string }[]): Promise<Score> {
  const scores: Score[] = [];
  for (const { name, address } of screens) {
    await browser.driver.get(address);
    const boxes = boxesSchema.parse(await browser.driver.executeScript(askBoxes));
    const shot = await decode(Buffer.from(await browser.driver.takeScreenshot(), 'base64'));
    const { width, height } = shot;
    const data = new Uint8ClampedArray(shot.data.length);
    data.set(shot.data);
    const found = findParts({ data, width, height });
    const got = score(found, boxes);
    scores.push(got);
    if (process.env.REZZIK_SHOW_MISSES) {
      console.log(name, JSON.stringify(got), JSON.stringify(misses(found, boxes)));
    }
  }
  return sum(scores);
}

// Boxes asked from the pages themselves, by getBoundingClientRect.
test('buttons, fields, menus, panels and windows of pages kept apart are found, and little else', async () => {
  expect(fresh.length).toBeGreaterThanOrEqual(16);
  const got = await measure(fresh);
  if (process.env.REZZIK_SHOW_SCORE) console.log(JSON.stringify(got));
  expect(got.known).toBeGreaterThan(120);
  expect(got.found / got.known).toBeGreaterThanOrEqual(0.85);
  expect(got.right / got.offered).toBeGreaterThanOrEqual(0.85);
}, 60_000);

test('so are those of the pages it was made with', async () => {
  const got = await measure(known);
  expect(got.found / got.known).toBeGreaterThanOrEqual(0.85);
  expect(got.right / got.offered).toBeGreaterThanOrEqual(0.85);
}, 60_000);
