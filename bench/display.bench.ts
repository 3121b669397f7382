import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { ask, closeScreen, screen, type Screen } from '@/server/display/connection';
import { readPixmap } from '@/server/display/pixmap';
import { screenPng } from '@/server/take/takeDisplay';
import { stillScreen } from '@/server/display/still';
import { findParts } from '@/core/screen/parts';
import { XDisplay } from '@/tests/lib/xDisplay';
import { median, ms, report, time } from './measure';

const ROUNDS = 9;
const [WIDTH, HEIGHT] = [3840, 2160];
let display: XDisplay;
let open: Screen;

beforeAll(async () => {
  display = await XDisplay.open(WIDTH, HEIGHT);
  for (let i = 0; i < 8; i += 1) {
    const place = `80x30+${60 + i * 420}+${80 + (i % 3) * 500}`;
    display.start('xterm', '-title', `Bed ${i}`, '-geometry', place, '-e', 'sleep 600');
    await display.windowId(`Bed ${i}`);
  }
  open = await screen(display.name);
}, 60_000);
afterAll(async () => {
  closeScreen();
  await display.close();
});

test('a 3840 × 2160 display to RGBA in memory, against bare GetImage', async () => {
  const ratios: number[] = [];
  const still: number[] = [];
  for (let i = 0; i < ROUNDS; i += 1) {
    const bare = await time(() =>
      ask((done) => open.X.GetImage(2, open.root, 0, 0, WIDTH, HEIGHT, 0xffffffff, done)),
    );
    const started = performance.now();
    const taken = await stillScreen(open);
    still.push(performance.now() - started);
    await taken.pixels();
    ratios.push((performance.now() - started) / bare);
    taken.letGo();
  }
  report(
    'Take a 3840 × 2160 display to RGBA / bare GetImage',
    `${median(ratios).toFixed(2)}×`,
    '≤ 2×',
  );
  const read: number[] = [];
  for (let i = 0; i < ROUNDS; i += 1) {
    const bare = await time(() =>
      ask((done) => open.X.GetImage(2, open.root, 0, 0, WIDTH, HEIGHT, 0xffffffff, done)),
    );
    const size = { width: WIDTH, height: HEIGHT };
    read.push((await time(() => readPixmap(open, open.root, open.layout, size, () => 0))) / bare);
  }
  report('Read 3840 × 2160 pixels / bare GetImage', `${median(read).toFixed(2)}×`, '≤ 0.3×');
  report('… stilled, with windows and pointer, before any pixel is sent', ms(median(still)));
  const taken = await stillScreen(open);
  const pixels = await taken.pixels();
  report('… packed as PNG to be stored', ms(await time(() => screenPng(pixels))));
  taken.letGo();
  expect(pixels.data.length).toBe(WIDTH * HEIGHT * 4);
}, 120_000);

test('parts of a 1920 × 1080 picture', async () => {
  const taken = await stillScreen(open);
  const { data } = await taken.pixels();
  taken.letGo();
  const [width, height] = [1920, 1080];
  const part = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y += 1) {
    part.set(data.subarray(y * WIDTH * 4, (y * WIDTH + width) * 4), y * width * 4);
  }
  const took: number[] = [];
  for (let i = 0; i < ROUNDS; i += 1) {
    took.push(await time(() => Promise.resolve(findParts({ data: part, width, height }))));
  }
  report('Find the parts of a 1920 × 1080 screen', ms(median(took)), '≤ 400 ms');
  expect(findParts({ data: part, width, height }).length).toBeGreaterThan(2);
}, 120_000);
