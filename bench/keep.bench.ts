import { afterAll, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import { mkdtempSync, rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp, { type Sharp } from 'sharp';
import type { FormatName } from '@/core/contracts/format';
import type { Facts } from '@/core/keep/facts';
import { untouched } from '@/core/document/view';
import { formats } from '@/server/formats';
import { compare } from '@/server/keep/compare';
import { ssim } from 'ssim.js';
import { testShaper } from '@/tests/lib/shaper';
import type { Pixels } from '@/server/paint/flatten';
import { paintDesk } from '@/core/desk/build';
import { createDesk, deskDisplays } from '@/core/desk/model';
import { paintMark } from '@/core/paint/paintMark';
import { randomFrom } from '@/core/random/random';
import { sha256 } from '@/server/frames/intake';
import { plainPng } from '@/server/formats/png';
import { partIn, placePart, writePart } from '@/server/keep/write';
import { everyMark } from '@/tests/lib/marks';
import { onChequer, testTools } from '@/tests/lib/painting';
import { median, ms, report, time } from './measure';

const ROUNDS = 11;
const folder = mkdtempSync(join(tmpdir(), 'rezzik-bench-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A marked practice desk, enlarged to the size asked for. */
async function painted(width: number, height: number) {
  const tools = await testTools();
  const { scene } = onChequer(everyMark, { width, height }, tools);
  const { bounds } = deskDisplays[0];
  const surface = createCanvas(width, height).getContext('2d');
  surface.scale(width / bounds.width, height / bounds.height);
  paintDesk(surface, createDesk(1, 0), tools.shaper, bounds);
  for (const mark of everyMark) paintMark(surface, mark, tools, scene);
  return { data: surface.getImageData(0, 0, width, height).data, width, height, opaque: true };
}

test.each([
  [1440, 900],
  [3840, 2160],
])(
  'keep %d × %d as PNG: encode, hash and write against bare sharp',
  async (width, height) => {
    const pixels = await painted(width, height);
    const raw = Buffer.from(pixels.data.buffer);
    const ratios: number[] = [];
    for (let i = 0; i < ROUNDS; i += 1) {
      const bare = async () => {
        const path = join(folder, `bare-${width}-${i}.png`);
        const took = await time(() =>
          sharp(raw, { raw: { width, height, channels: 4 } })
            .removeAlpha()
            .png({ compressionLevel: 6 })
            .toFile(path),
        );
        // Not timed: what the reference leaves unsynced would be flushed by the next sync, ours.
        const file = await open(path, 'r+');
        await file.sync();
        await file.close();
        return took;
      };
      const ours = () =>
        time(async () => {
          const bytes = await plainPng(pixels);
          sha256(bytes);
          const part = partIn(folder);
          await writePart(part, bytes);
          await placePart(part, join(folder, `ours-${width}-${i}.png`));
        });
      // Turn and turn about, so that neither always runs on the warmer machine.
      const [a, b] = i % 2 ? [await bare(), await ours()] : [await ours(), await bare()].reverse();
      ratios.push((b ?? NaN) / (a ?? NaN));
    }
    report(
      `Keep ${width}×${height} PNG: encode + hash + write / bare sharp`,
      `${median(ratios).toFixed(2)}×`,
      'must be ≤ 1.25×',
    );
    expect(ratios).toHaveLength(ROUNDS);
  },
  60_000,
);

const facts: Facts = {
  title: 'Bench',
  description: 'A picture to measure with.',
  origin: '',
  takenAt: '2026-11-23T14:02:11Z',
  software: 'Rezzik',
  density: 96,
};

/** The same encoding by sharp alone. */
const bare: Partial<Record<FormatName, (image: Sharp, quality: number) => Sharp>> = {
  jpeg: (image, quality) => image.jpeg({ quality, chromaSubsampling: '4:4:4' }),
  webp: (image, quality) => image.webp({ quality, smartSubsample: true }),
  avif: (image, quality) => image.avif({ quality, chromaSubsampling: '4:4:4', effort: 2 }),
  gif: (image) => image.gif({ colours: 256, dither: 0.5, effort: 7 }),
  tiff: (image) => image.tiff({ compression: 'deflate', predictor: 'horizontal' }),
};

const HD = { width: 1920, height: 1080 };

async function screen(): Promise<Pixels> {
  const surface = createCanvas(HD.width, HD.height).getContext('2d');
  paintDesk(surface, createDesk(2026, 0), await testShaper(), { x: 0, y: 0, ...HD });
  const { data } = surface.getImageData(0, 0, HD.width, HD.height);
  return { data: new Uint8ClampedArray(data), ...HD, opaque: true };
}

test.each(Object.keys(bare) as FormatName[])(
  'encoding 1920×1080 as %s, beside sharp alone',
  async (name) => {
    const pixels = await screen();
    const document = untouched(HD);
    const shot = { frame: new Uint8Array(), opaque: true, document };
    const wish = { quality: 85, options: {}, background: '#FFFFFF', facts };
    const rounds = name === 'avif' ? 3 : 7;
    const ratios: number[] = [];
    for (let i = 0; i < rounds; i += 1) {
      const alone = () =>
        time(async () => {
          const image = sharp(Buffer.from(pixels.data.buffer), { raw: { ...HD, channels: 4 } });
          await bare[name]?.(image.removeAlpha(), 85).toBuffer();
        });
      const ours = () =>
        time(async () => sha256(await formats[name].encode({ pixels, shot }, wish)));
      const [a, b] =
        i % 2 ? [await alone(), await ours()] : [await ours(), await alone()].reverse();
      ratios.push((b ?? NaN) / (a ?? NaN));
    }
    report(
      `Encode and hash 1920×1080 ${name} / bare sharp`,
      `${median(ratios).toFixed(2)}×`,
      'must be ≤ 1.25×',
    );
    expect(ratios).toHaveLength(rounds);
  },
  120_000,
);

/** Turn and turn about, so that neither always runs on the warmer machine. */
async function ratioOf(
  rounds: number,
  ours: () => Promise<unknown>,
  reference: () => Promise<unknown>,
): Promise<number> {
  const ratios: number[] = [];
  for (let i = 0; i < rounds; i += 1) {
    const [first, second] = i % 2 ? [ours, reference] : [reference, ours];
    const [a, b] = [await time(first), await time(second)];
    ratios.push(i % 2 ? a / b : b / a);
  }
  return median(ratios);
}

/** The points of the chart in the order they are asked for: the one in hand, then coarse to fine. */
const POINTS = [85, 60, 30, 95, 75, 45, 90, 20, 10, 68];

test.each([
  ['jpeg', 'bare encodings', POINTS, 5, 'must be ≤ 12×, goal 5×'],
  ['webp', 'bare encodings and SSIMs', POINTS.slice(0, 1), 5, 'must be ≤ 1.15×'],
  ['avif', 'bare encodings and SSIMs', POINTS.slice(0, 1), 3, 'must be ≤ 1.15×'],
] as const)(
  'the chart for %s against as many %s',
  async (name, against, points, rounds, mark) => {
    const pixels = await screen();
    const shot = { frame: new Uint8Array(), opaque: true, document: untouched(HD) };
    const read = async (bytes: Uint8Array) => ({
      data: new Uint8ClampedArray(await sharp(bytes).ensureAlpha().raw().toBuffer()),
      ...HD,
    });
    const others = await Promise.all(
      points.map(async (quality) => {
        const wish = { quality, options: {}, background: '#FFFFFF', facts };
        return { quality, picture: await read(await formats[name].encode({ pixels, shot }, wish)) };
      }),
    );
    const ratio = await ratioOf(
      rounds,
      async () => {
        for (const quality of points) {
          const wish = { quality, options: {}, background: '#FFFFFF', facts };
          await compare(pixels, await formats[name].encode({ pixels, shot }, wish), '#FFFFFF');
        }
      },
      async () => {
        for (const { quality, picture } of others) {
          const image = sharp(Buffer.from(pixels.data.buffer), { raw: { ...HD, channels: 4 } });
          await bare[name]?.(image.removeAlpha(), quality).toBuffer();
          if (against === 'bare encodings') continue;
          ssim(pixels, picture, { ssim: 'fast', downsample: false });
        }
      },
    );
    report(
      `Chart 1920×1080 ${name}, ${points.length} points / ${against}`,
      `${ratio.toFixed(2)}×`,
      mark,
    );
    expect(ratio).toBeGreaterThan(0);
  },
  400_000,
);

/** Every pixel is another one than its neighbours. */
function grain() {
  const next = randomFrom(1);
  const data = Uint8ClampedArray.from({ length: HD.width * HD.height * 4 }, (_, i) =>
    i % 4 === 3 ? 255 : next() * 256,
  );
  return { data, ...HD, opaque: true };
}

test.each([
  ['a screen', screen],
  ['grain, which JPEG changes everywhere', () => Promise.resolve(grain())],
])(
  'one comparison of 1920×1080, beside ssim.js on the same definition: %s',
  async (name, make) => {
    const pixels = await make();
    const jpeg = await sharp(Buffer.from(pixels.data.buffer), { raw: { ...HD, channels: 4 } })
      .jpeg({ quality: 85 })
      .toBuffer();
    const data = new Uint8ClampedArray(await sharp(jpeg).ensureAlpha().raw().toBuffer());
    const took: number[] = [];
    const ratio = await ratioOf(
      7,
      async () => took.push(await time(() => compare(pixels, jpeg, '#FFFFFF'))),
      () => Promise.resolve(ssim(pixels, { data, ...HD }, { ssim: 'fast', downsample: false })),
    );
    report(
      `One comparison of 1920×1080, ${name}`,
      ms(median(took)),
      'must be ≤ 250 ms, goal 100 ms',
    );
    report('The same / ssim.js', `${ratio.toFixed(2)}×`);
    expect(took).toHaveLength(7);
  },
  120_000,
);

test('a hundred shots kept as PNG, one after another, against a bare loop of sharp', async () => {
  const pixels = await painted(1440, 900);
  const raw = Buffer.from(pixels.data.buffer);
  const HUNDRED = 100;
  let round = 0;
  const ratio = await ratioOf(
    3,
    async () => {
      round += 1;
      for (let i = 0; i < HUNDRED; i += 1) {
        const bytes = await plainPng(pixels);
        sha256(bytes);
        const part = partIn(folder);
        await writePart(part, bytes);
        await placePart(part, join(folder, `hundred-${round}-${i}.png`));
      }
    },
    async () => {
      for (let i = 0; i < HUNDRED; i += 1) {
        await sharp(raw, { raw: { width: 1440, height: 900, channels: 4 } })
          .removeAlpha()
          .png({ compressionLevel: 6 })
          .toFile(join(folder, `bare-hundred-${i}.png`));
      }
    },
  );
  report('100 shots of 1440×900 kept as PNG / bare loop of sharp', `${ratio.toFixed(2)}×`);
  expect(ratio).toBeGreaterThan(0);
}, 400_000);
