import { beforeAll, describe, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import fc from 'fast-check';
import { testTools } from '@/tests/lib/painting';
import { bitmap } from '@/server/paint/flatten';
import type { ShotDocument } from '../document/document';
import { untouched } from '../document/view';
import { order, type Adjust } from '../finish/adjust/adjust';
import { adjustPixels } from '../finish/adjust/pixels';
import type { PaintTools } from '../marks/contract';
import { markSchema, type MarkInput } from '../marks/registry';
import { randomFrom } from '../random/random';
import { paintShot } from './painter';

let tools: PaintTools;
beforeAll(async () => {
  tools = await testTools();
});

const SIZE = { width: 90, height: 60 };
type Bytes = Uint8ClampedArray<ArrayBuffer>;
type Place = (x: number, y: number) => boolean;

/** Noise of one seed, and of another where `where` says so. */
function noise(seed: number, other = seed, where: Place = () => false): Bytes {
  const [one, two] = [randomFrom(seed), randomFrom(other)];
  const data = new Uint8ClampedArray(SIZE.width * SIZE.height * 4);
  for (let i = 0; i < data.length; i += 1) {
    const at = Math.floor(i / 4);
    const [a, b] = [one() * 256, two() * 256];
    const elsewhere = where(at % SIZE.width, Math.floor(at / SIZE.width));
    data[i] = i % 4 === 3 ? 255 : elsewhere ? b : a;
  }
  return data;
}

function paint(frame: Bytes, change: Partial<ShotDocument>): Buffer {
  const document = { ...untouched(SIZE), ...change };
  const { width, height } = document.view.crop;
  const surface = createCanvas(width, height).getContext('2d');
  const picture = bitmap({ data: frame, ...SIZE });
  paintShot(surface, document, tools, (to) => to.drawImage(picture, 0, 0));
  return Buffer.from(surface.getImageData(0, 0, width, height).data);
}

const amounts = fc.record(
  Object.fromEntries(order.map((name) => [name, fc.integer({ min: 0, max: 100 })])),
  { requiredKeys: [] },
);
const adjust = fc
  .tuple(
    fc.constantFrom('picture' as const, 'all' as const),
    amounts,
    fc.integer({ min: 1, max: 200 }),
  )
  .map(([on, some, sharpened]): Adjust => ({ ...some, on, sharpened }));

const mark = (input: MarkInput) => markSchema.parse(input);
const hides = (['blur', 'blocks', 'paintOut'] as const).map((kind, i) =>
  mark({
    ...{ id: kind, kind, x: 8 + 26 * i, y: 14, width: 20, height: 26 },
    ...(kind === 'paintOut' && { paintOut: 'across', colour: '#D55E00' }),
  } as MarkInput),
);
const isHidden: Place = (x, y) =>
  hides.some(
    (one) =>
      'area' in one && x >= one.x && x < one.x + one.width && y >= one.y && y < one.y + one.height,
  );
const closeUp = mark({
  ...{ id: 'close', kind: 'closeUp', source: { x: 4, y: 10, width: 30, height: 20 } },
  ...{ at: { x: 50, y: 36 }, zoom: 1.5, colour: '#D55E00' },
});

describe('an adjusted picture tells nothing', () => {
  test('of what is hidden', () => {
    fc.assert(
      fc.property(adjust, fc.integer(), fc.integer(), fc.integer(), (how, around, a, b) => {
        const marks = [...hides, closeUp];
        const [one, other] = [a, b].map((inside) =>
          paint(noise(around, inside, isHidden), { marks, finish: { adjust: how } }),
        );
        expect(one?.equals(other ?? Buffer.alloc(0))).toBe(true);
      }),
      { numRuns: 12 },
    );
  });

  test('of what lies beside the view, or beside its free shape', () => {
    const crop = { x: 20, y: 10, width: 40, height: 30 };
    const points = [
      { x: 20, y: 10 },
      { x: 60, y: 10 },
      { x: 20, y: 40 },
    ];
    const views: [ShotDocument['view'], Place][] = [
      [{ crop }, (x, y) => x < 20 || y < 10 || x >= 60 || y >= 40],
      // Whose upper left corner, the nearest to the slanting edge, lies beyond it.
      [
        { crop, shape: { kind: 'polygon', points } },
        (x, y) => (x - 20) / 40 + (y - 10) / 30 >= 1.001,
      ],
    ];
    for (const [view, beside] of views) {
      fc.assert(
        fc.property(adjust, fc.integer(), fc.integer(), (how, a, b) => {
          const [one, other] = [a, b].map((seed) =>
            paint(noise(1, seed, beside), { view, finish: { adjust: how } }),
          );
          expect(one?.equals(other ?? Buffer.alloc(0))).toBe(true);
        }),
        { numRuns: 12 },
      );
    }
  });

  test('and yet shows what is neither, so that the tests can fail', () => {
    const finish = { adjust: { on: 'picture', sharpened: 100 } } as const;
    const [one, other] = [2, 3].map((seed) => paint(noise(1, seed, isHidden), { finish }));
    expect(one?.equals(other ?? Buffer.alloc(0))).toBe(false);
  });
});

const box = mark({
  ...{ id: 'box', kind: 'box', x: 10, y: 10, width: 30, height: 20, colour: '#D55E00' },
  ...{ outline: 0, fill: '#0072B2', fillOpacity: 1 },
});
const middle = (bytes: Buffer): number[] => [
  ...bytes.subarray((20 * SIZE.width + 25) * 4).subarray(0, 4),
];

test('on the picture alone, marks keep their colours; on all, they do not', () => {
  const on = (where: 'picture' | 'all') =>
    middle(paint(noise(4), { marks: [box], finish: { adjust: { on: where, grey: 100 } } }));
  expect(on('picture')).toEqual([0x00, 0x72, 0xb2, 255]);
  // 0.7152 × 0x72 + 0.0722 × 0xB2
  expect(on('all')).toEqual([94, 94, 94, 255]);
});

test('without marks it is the pixels adjusted, whatever it is on', () => {
  const adjusted = noise(5);
  const how = { contrast: 140, saturation: 60, sharpened: 80 };
  adjustPixels({ data: adjusted, ...SIZE }, { on: 'picture', ...how });
  for (const on of ['picture', 'all'] as const) {
    expect(
      paint(noise(5), { finish: { adjust: { on, ...how } } }).equals(Buffer.from(adjusted)),
    ).toBe(true);
  }
});
