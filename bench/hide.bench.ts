import { createCanvas } from '@napi-rs/canvas';
import { test } from '@jest/globals';
import sharp from 'sharp';
import { markSchema, type MarkInput } from '@/core/marks/registry';
import { paintShot } from '@/core/paint/painter';
import { randomFrom } from '@/core/random/random';
import { untouched } from '@/core/shot/document';
import { bitmap } from '@/server/paint/flatten';
import { testTools } from '@/tests/lib/painting';
import { median, ms, report, time } from './measure';

const SIZE = { width: 3840, height: 2160 };
const ROUNDS = 5;

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
    const tools = await testTools();
    const data = frame();
    const picture = bitmap({ data, ...SIZE });
    const paint = (marks: MarkInput[]) => () => {
      const surface = createCanvas(SIZE.width, SIZE.height).getContext('2d');
      const document = { ...untouched(SIZE), marks: marks.map((mark) => markSchema.parse(mark)) };
      paintShot(surface, document, tools, (to) => to.drawImage(picture, 0, 0));
      return Promise.resolve();
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
