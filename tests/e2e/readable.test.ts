import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import { z } from 'zod';
import { fillText, layoutText } from '@/core/drawing/textLayout';
import type { Face } from '@/core/drawing/names';
import type { RgbaPixels } from '@/core/raster/pixels';
import { smallestText } from '@/core/screen/textHeights';
import { testShaper } from '@/tests/lib/shaper';
import { decode } from './lib/app';
import { openBrowser, type Browser } from './lib/browser';

let browser: Browser;
beforeAll(async () => {
  browser = await openBrowser();
}, 60_000);
afterAll(() => browser.close());

const looks = [
  ['sans-serif', '#222222', '#FFFFFF'],
  ['serif', '#E8E6DC', '#1B2423'],
  ['monospace', '#16324A', '#EEF3F8'],
] as const;
const sizes = [11, 14, 17, 22];
const words = 'The marsh marigolds on the north bank were moved near the summer house';

const page = (font: string, ink: string, ground: string, size: number): string =>
  `data:text/html;charset=utf-8,${encodeURIComponent(`<!doctype html><body style="margin:0;background:${ground};color:${ink};font-family:${font}"><h1 style="margin:20px;font-size:34px">Beds and labels of the garden</h1><p style="margin:20px;font-size:${size}px">${words}<br>${words}</p><button style="margin:20px;font:22px ${font}">Print the labels</button>`)}`;

/** Run in the page: how high a small x is, as the font itself says. */
const askXHeight = `const style = getComputedStyle(document.querySelector('p'));
  const surface = document.createElement('canvas').getContext('2d');
  surface.font = style.fontSize + ' ' + style.fontFamily;
  return surface.measureText('x').actualBoundingBoxAscent;`;

const rgba = async (png: Buffer): Promise<RgbaPixels> => {
  const { data, width, height } = await decode(png);
  return { data: new Uint8ClampedArray(data), width, height };
};

test.each(looks.flatMap((look) => sizes.map((size) => [...look, size] as const)))(
  'the smallest words of a page in %s, %s on %s, %i px, within a pixel',
  async (font, ink, ground, size) => {
    await browser.driver.get(page(font, ink, ground, size));
    const known = z.number().parse(await browser.driver.executeScript(askXHeight));
    const png = Buffer.from(await browser.driver.takeScreenshot(), 'base64');
    const found = smallestText(await rgba(png));
    expect(found && Math.abs(found.xHeight - known)).toBeLessThanOrEqual(1);
  },
  30_000,
);

const drawn: [Face, number][] = [
  ['plain', 12],
  ['plain', 16],
  ['plain', 24],
  ['fixed', 13],
  ['fixed', 19],
  ['display', 15],
  ['display', 21],
];

test.each(drawn)('the words of our own painter, %s %i px, within a pixel', async (face, size) => {
  const shaper = await testShaper();
  const canvas = createCanvas(900, 200);
  const surface = canvas.getContext('2d');
  surface.fillStyle = '#FAF6EC';
  surface.fillRect(0, 0, 900, 200);
  const write = (text: string, y: number, px: number) =>
    fillText(surface, layoutText(shaper, text, { face, weight: 400, size: px }), 20, y, '#1C2B2A');
  write(words, 30, size);
  write('Beds and labels of the garden', 110, 36);
  // How high the x of this face is, from its own outline.
  const probe = createCanvas(400, 400).getContext('2d');
  fillText(probe, layoutText(shaper, 'x', { face, weight: 400, size: 300 }), 20, 20, '#000000');
  const { data } = probe.getImageData(0, 0, 400, 400);
  const rows = new Set<number>();
  for (let i = 3; i < data.length; i += 4)
    if ((data[i] ?? 0) > 127) rows.add(Math.floor(i / 4 / 400));
  const known = (rows.size / 300) * size;
  const found = smallestText(await rgba(await canvas.encode('png')));
  expect(found && Math.abs(found.xHeight - known)).toBeLessThanOrEqual(1);
});
