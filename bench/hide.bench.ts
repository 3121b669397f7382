import { test } from '@jest/globals';
import sharp from 'sharp';
import { markSchema, type MarkInput } from '@/core/marks/registry';
import { randomFrom } from '@/core/random/random';
import { untouched } from '@/core/document/view';
import { run } from '@/server/pool/pool';
import { median, ms, report, time } from './measure';

const SIZE = { width: 3840, height: 2160 };
const ROUNDS = 15;

function frame(): Uint8ClampedArray<ArrayBuffer> {
  const next = randomFrom(1);
  const data = new Uint8ClampedArray(SIZE.width * SIZE.height * 4);
  const words = new Uint32Array(data.buffer);
  for (let i = 0; i < words.length; i += 1) words[i] = 0xff000000 | (next() * 0xffffff);
  return data;
}

const areas: [string, { x: number; y: number; width: number; height: number }][] = [
  ['600 × 80', { x: 900, y: 700, width: 600, height: 80 }],
  ['half of it', { x: 0, y: 0, width: 3840, height: 1080 }],
];

test.each(areas)(
  'Blur on 3840 × 2160 over %s, beside sharp’s own blur',
  async (name, at) => {
    const data = frame();
    const png = await sharp(Buffer.from(data.buffer), { raw: { ...SIZE, channels: 4 } })
      .removeAlpha()
      .png({ compressionLevel: 1 })
      .toBuffer();
    // In a thread, as the app paints; the test runner slows such loops down.
    const paint = (marks: MarkInput[]) => () => {
      const document = { ...untouched(SIZE), marks: marks.map((mark) => markSchema.parse(mark)) };
      return run('flatten', { frame: png, opaque: true, document }, { pixels: 1 });
    };
    const reference = () =>
      sharp(Buffer.from(data.buffer), { raw: { ...SIZE, channels: 4 } })
        .extract({ left: at.x, top: at.y, width: at.width, height: at.height })
        .blur(10)
        .raw()
        .toBuffer();
    const [hidden, bare, blurred]: [number[], number[], number[]] = [[], [], []];
    for (let i = 0; i < ROUNDS; i += 1) {
      bare.push(await time(paint([])));
      hidden.push(await time(paint([{ id: `h${i}`, kind: 'blur', ...at, strength: 10 }])));
      blurred.push(await time(reference));
    }
    const cost = median(hidden) - median(bare);
    report(`Blur over ${name} of 3840 × 2160, beside painting without it`, ms(cost));
    report(
      '… against sharp’s own blur of the same area',
      `${(cost / median(blurred)).toFixed(1)}×`,
    );
  },
  120_000,
);
