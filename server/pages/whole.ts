import { setTimeout as pause } from 'node:timers/promises';
import sharp from 'sharp';
import { z } from 'zod';
import type { Page } from '@/core/contracts/page';
import type { Size } from '@/core/geometry/size';
import { limits } from '@/core/values/limits';
import type { Tab } from './tab';

/** One after the other: a picture of all would hold its pixels several times. CSS pixels at scale 1. */
const TILE = 4_000;
/** Pages that load more for ever are followed for so long, ms. */
const SCROLLING = 20_000;

const metrics = z.object({
  cssContentSize: z.object({ width: z.number(), height: z.number() }),
  cssVisualViewport: z.object({ clientHeight: z.number() }),
});
const screenshot = z.object({ data: z.base64() });

export interface Pictured {
  png: Buffer;
  width: number;
  height: number;
  said: string[];
}

/** Pixels that the picture of a page may be high. */
const mostHigh = ({ width, scale }: Page): number =>
  Math.floor(Math.min(limits.side, limits.pixels / (width * scale)) / scale);

/**
 * Scrolls down a page by screens, so that what is only loaded when it is seen is loaded, and up again.
 * What moves by itself is at rest by then, or it is not waited for.
 */
const walk = (most: number): string => `(async () => {
  const pause = (ms) => new Promise((done) => setTimeout(done, ms));
  const all = () => Math.max(document.documentElement.scrollHeight, document.body?.scrollHeight ?? 0);
  const ends = performance.now() + ${SCROLLING};
  for (let y = 0; y < Math.min(all(), ${most}) && performance.now() < ends; y += innerHeight) {
    scrollTo({ top: y, behavior: 'instant' });
    await pause(60);
  }
  scrollTo({ top: 0, behavior: 'instant' });
  const soon = (what) => Promise.race([what, pause(3000)]);
  await soon(Promise.all([...document.images].map((image) =>
    image.complete || new Promise((done) => { image.onload = image.onerror = done; }))));
  await soon(document.fonts.ready);
  await pause(100);
  return true;
})()`;

/** The picture of a page, whole or of its first screen, in tiles that are joined. */
export async function picture(
  tab: Tab,
  page: Page,
  tell: (words: string) => void,
  signal: AbortSignal,
): Promise<Pictured> {
  const most = mostHigh(page);
  if (page.whole) {
    tell('Looks through its whole length …');
    await tab.value(walk(most), z.literal(true));
  }
  const { cssContentSize, cssVisualViewport } = metrics.parse(
    await tab.ask('Page.getLayoutMetrics'),
  );
  const length = Math.ceil(page.whole ? cssContentSize.height : cssVisualViewport.clientHeight);
  const height = Math.max(1, Math.min(most, length));
  const said =
    length > most
      ? [`The page is longer: ${length} pixels. Its first ${most} are here, which is the most.`]
      : [];
  const tiles: Buffer[] = [];
  const tile = Math.floor(TILE / page.scale);
  for (let y = 0; y < height; y += tile) {
    if (height > tile) tell(`Takes it: ${Math.round((100 * y) / height)} % …`);
    signal.throwIfAborted();
    const part = Math.min(tile, height - y);
    const { data } = screenshot.parse(
      await tab.ask('Page.captureScreenshot', {
        ...{ format: 'png', captureBeyondViewport: true, optimizeForSpeed: true },
        clip: { x: 0, y, width: page.width, height: part, scale: 1 },
      }),
    );
    tiles.push(Buffer.from(data, 'base64'));
    await pause(0);
  }
  const [only] = tiles;
  const size = { width: page.width * page.scale, height: height * page.scale };
  const png = tiles.length === 1 && only ? only : await joined(tiles, size);
  return { png, ...size, said };
}

/** Tiles one below the other; sharp does that in threads of its own. */
const joined = (tiles: Buffer[], size: Size): Promise<Buffer> =>
  sharp(tiles, { join: { across: 1 }, limitInputPixels: false })
    // It gives the last, lower one as much room as the others.
    .extract({ left: 0, top: 0, ...size })
    .png({ compressionLevel: 3 })
    .toBuffer();
