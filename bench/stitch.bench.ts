import { test } from '@jest/globals';
import sharp from 'sharp';
import { LongPage } from '@/core/stitch/longPage';
import { median, ms, report, time } from './measure';

const SIZE = { width: 1920, height: 1080 };
const STEP = 200;

/** A long page of the README's pictures, one below the other, as large as a screen is wide. */
async function longPage(): Promise<Buffer> {
  const names = ['shelf', 'mark', 'guide', 'take', 'keep', 'shelf-search'];
  const parts = await Promise.all(
    names.map((name) =>
      sharp(`docs/screenshots/${name}.png`)
        .resize({ width: SIZE.width, kernel: 'nearest' })
        .toBuffer({ resolveWithObject: true }),
    ),
  );
  const height = parts.reduce((sum, { info }) => sum + info.height, 0);
  let top = 0;
  const laid = parts.map(({ data, info }) => {
    const at = { input: data, left: 0, top };
    top += info.height;
    return at;
  });
  const page = sharp({ create: { width: SIZE.width, height, channels: 4, background: '#FFFFFF' } });
  return page.composite(laid).png({ compressionLevel: 1 }).toBuffer();
}

test('pictures of 1920 × 1080 joined while something is scrolled', async () => {
  const page = await longPage();
  const frames = await Promise.all(
    Array.from({ length: 24 }, async (_, i) => ({
      ...SIZE,
      data: new Uint8ClampedArray(
        await sharp(page)
          .extract({ left: 0, top: i * STEP, ...SIZE })
          .ensureAlpha()
          .raw()
          .toBuffer(),
      ),
    })),
  );
  const long = new LongPage(SIZE, { waits: true });
  const took: number[] = [];
  for (const frame of frames) took.push(await time(() => Promise.resolve(long.add(frame))));
  report('A picture of 1920 × 1080 joined, median', ms(median(took.slice(2))), 'must be ≤ 100 ms');
  report('… the slowest, after the second', ms(Math.max(...took.slice(2))));
  const { pieces } = long.progress;
  report('… pieces (1: all of it joined)', String(pieces.length));
  report('All of it as one picture', ms(await time(() => Promise.resolve(long.joined()))));
}, 120_000);
