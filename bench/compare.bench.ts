import { test } from '@jest/globals';
import pixelmatch from 'pixelmatch';
import sharp from 'sharp';
import { randomFrom } from '@/core/random/random';
import { run } from '@/server/pool/pool';
import { median, ms, report, time } from './measure';

const SIZE = { width: 1920, height: 1080 };

/** A picture of the README, so large; cut a little elsewhere. */
async function screen(x: number, y: number) {
  const data = await sharp('docs/screenshots/shelf.png')
    .resize({ width: 2300, height: 1500, fit: 'cover', kernel: 'nearest' })
    .ensureAlpha()
    .extract({ left: x, top: y, ...SIZE })
    .raw()
    .toBuffer();
  return { ...SIZE, data: new Uint8ClampedArray(data) };
}

function noise(seed: number) {
  const next = randomFrom(seed);
  const words = new Uint32Array(SIZE.width * SIZE.height);
  for (let i = 0; i < words.length; i += 1) words[i] = 0xff000000 | (next() * 0xffffff);
  return { ...SIZE, data: new Uint8ClampedArray(words.buffer) };
}

test('two pictures of 1920 × 1080 compared in a thread', async () => {
  const first = await screen(0, 0);
  for (const [name, one, other] of [
    ['shifted by 33, 71', first, await screen(33, 71)],
    ['noise, which is like nothing', noise(1), noise(2)],
  ] as const) {
    const [ours, theirs]: [number[], number[]] = [[], []];
    for (let i = 0; i < 7; i += 1) {
      ours.push(await time(() => run('differences', { first: one, second: other }, { pixels: 1 })));
      theirs.push(
        await time(() =>
          Promise.resolve(
            pixelmatch(one.data, other.data, undefined, SIZE.width, SIZE.height, {
              includeAA: true,
            }),
          ),
        ),
      );
    }
    report(`Compared, ${name}`, ms(median(ours)), 'must be ≤ 150 ms');
    report('… against pixelmatch’s count', `${(median(ours) / median(theirs)).toFixed(1)}×`);
  }
}, 60_000);
