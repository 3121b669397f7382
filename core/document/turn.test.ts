import { beforeAll, describe, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import fc from 'fast-check';
import sharp from 'sharp';
import { everyMark } from '@/tests/lib/marks';
import { testTools } from '@/tests/lib/painting';
import { bitmap } from '@/server/paint/flatten';
import { documentFor, type ShotDocument } from './document';
import type { Turn } from './viewSchema';
import type { Quad } from '../geometry/homography';
import { apply } from '../geometry/matrix';
import { kindOf, markSchema } from '../marks/registry';
import type { PaintTools } from '../marks/contract';
import { paintShot } from '../paint/painter';
import { randomFrom } from '../random/random';
import { maskOf, widened } from '../raster/mask';
import { cutPixels, type RgbaPixels } from '../raster/pixels';
import { untouched } from './view';
import { pictureSize, turnedPixels, turnMatrix, turnReach, upright, withoutCorners } from './turn';
import { flipped, levelled, quarterMore, turnDocument } from './turnDocument';

let tools: PaintTools;
beforeAll(async () => {
  tools = await testTools();
});

const frame = { width: 600, height: 400 };

function noise(width: number, height: number, seed = 5): RgbaPixels {
  const next = randomFrom(seed);
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < data.length; i += 4) {
    data.set([next() * 256, next() * 256, next() * 256, 255], i);
  }
  return { data, width, height };
}

const turnOf = (change: Partial<Turn>): Turn => ({ ...upright, ...change });

const corners: Quad = [
  { x: 60, y: 40 },
  { x: 520, y: 80 },
  { x: 560, y: 370 },
  { x: 40, y: 330 },
];
const square = {
  corners: [...corners] as [
    (typeof corners)[0],
    (typeof corners)[0],
    (typeof corners)[0],
    (typeof corners)[0],
  ],
  width: 500,
  height: 320,
};

describe('pixels', () => {
  const source = noise(37, 23);
  const asSharp = () => sharp(source.data, { raw: { width: 37, height: 23, channels: 4 } });

  // libvips through sharp: quarter turns and flips move whole pixels.
  test.each([
    [turnOf({ quarters: 1 }), () => asSharp().rotate(90)],
    [turnOf({ quarters: 2 }), () => asSharp().rotate(180)],
    [turnOf({ quarters: 3 }), () => asSharp().rotate(270)],
    [turnOf({ mirrored: true }), () => asSharp().flop()],
    [flipped(upright, 'down'), () => asSharp().flip()],
  ])('%j are what sharp makes', async (turn, made) => {
    const { data, info } = await made().raw().toBuffer({ resolveWithObject: true });
    const ours = turnedPixels(source, turn, true);
    expect([ours.width, ours.height]).toEqual([info.width, info.height]);
    expect(Buffer.compare(Buffer.from(ours.data), data)).toBe(0);
  });

  test('a part of them is, to the byte, that part of all of them', () => {
    const turn = turnOf({ angle: 12.5, quarters: 1 });
    const part = { x: 5, y: 9, width: 14, height: 11 };
    const all = cutPixels(turnedPixels(source, turn, true), part);
    expect(turnedPixels(source, turn, true, part).data).toEqual(all.data);
  });

  test('with and without looking at transparency they are nearly the same', () => {
    const turn = turnOf({ angle: 12.5 });
    const [a, b] = [turnedPixels(source, turn, true), turnedPixels(source, turn, false)];
    const most = a.data.reduce(
      (m, v, i) => Math.max(m, b.data[i - (i % 4) + 3] ? Math.abs(v - (b.data[i] ?? 0)) : 0),
      0,
    );
    expect(most).toBeLessThanOrEqual(2);
  });

  test('a smooth slope turned there and back is nearly itself', () => {
    const slope = noise(120, 120);
    for (let i = 0; i < slope.data.length / 4; i += 1) {
      const v = (i % 120) + Math.floor(i / 120) / 2;
      slope.data.set([v, 200 - v, 90, 255], i * 4);
    }
    const there = turnedPixels(slope, turnOf({ angle: 20 }), true);
    const back = turnedPixels(there, turnOf({ angle: -20 }), false);
    const off = Math.floor((back.width - 120) / 2);
    for (let y = 20; y < 100; y += 7) {
      for (let x = 20; x < 100; x += 7) {
        const at = ((y + off) * back.width + x + off) * 4;
        expect(Math.abs((back.data[at] ?? 0) - (slope.data[(y * 120 + x) * 4] ?? 0))).toBeLessThan(
          3,
        );
      }
    }
  });

  test('four corners land in the corners of the picture', () => {
    const m = turnMatrix(frame, turnOf({ square }));
    const ends = corners.map((p) => apply(m, p));
    [
      [0, 0],
      [500, 0],
      [500, 320],
      [0, 320],
    ].forEach(([x = 0, y = 0], i) => {
      expect(ends[i]?.x).toBeCloseTo(x, 6);
      expect(ends[i]?.y).toBeCloseTo(y, 6);
    });
  });
});

describe('the view', () => {
  const angles = fc.integer({ min: -450, max: 450 }).map((v) => v / 10);
  test('without empty corners really has none', () => {
    fc.assert(
      fc.property(angles, fc.integer({ min: 0, max: 3 }), (angle, quarters) => {
        const turn = turnOf({ angle, quarters });
        const { width, height } = pictureSize({ width: 60, height: 40 }, turn);
        const whole = turnedPixels(noise(60, 40), turn, true);
        const r = withoutCorners({ width: 60, height: 40 }, turn);
        expect(r.x >= 0 && r.y >= 0 && r.x + r.width <= width && r.y + r.height <= height).toBe(
          true,
        );
        let least = 255;
        for (let y = r.y; y < r.y + r.height; y += 1)
          for (let x = r.x; x < r.x + r.width; x += 1)
            least = Math.min(least, whole.data[(y * width + x) * 4 + 3] ?? 0);
        expect(least).toBeGreaterThan(200);
      }),
      { numRuns: 40 },
    );
  });

  const marked = (): ShotDocument => ({
    ...untouched(frame),
    marks: structuredClone([...everyMark]),
  });

  test.each([
    ['four quarters', (t: Turn) => quarterMore(t, 1), 4],
    ['two flips across', (t: Turn) => flipped(t, 'across'), 2],
    ['two flips down', (t: Turn) => flipped(t, 'down'), 2],
  ])('%s lead back to the same view and marks', (_, more, times) => {
    let document = marked();
    for (let i = 0; i < times; i += 1) {
      document = turnDocument(document, frame, more(document.view.turn ?? upright), tools);
      expect(documentFor(frame).safeParse(document).success).toBe(true);
    }
    expect(document.view).toEqual(untouched(frame).view);
    everyMark.forEach((mark, i) => {
      const after = document.marks[i];
      if (!after) throw new Error('a mark is gone');
      const [a, b] = [kindOf(mark).bounds(mark, tools), kindOf(after).bounds(after, tools)];
      expect(b.x + b.width / 2).toBeCloseTo(a.x + a.width / 2, 0);
      expect(b.y + b.height / 2).toBeCloseTo(a.y + a.height / 2, 0);
    });
  });

  test.each([
    ['an angle', turnOf({ angle: 17 })],
    ['four corners', turnOf({ square })],
    ['everything at once', turnOf({ square, mirrored: true, quarters: 3, angle: -8 })],
  ])('%s is a document that can be stored, with the marks where they belong', (_, turn) => {
    const after = turnDocument(marked(), frame, turn, tools);
    expect(documentFor(frame).safeParse(JSON.parse(JSON.stringify(after))).success).toBe(true);
    const m = turnMatrix(frame, turn);
    everyMark.forEach((mark, i) => {
      const turned = after.marks[i];
      if (mark.kind !== 'arrow' || turned?.kind !== 'arrow') return;
      const to = apply(m, mark.to);
      expect(turned.to.x).toBeCloseTo(to.x, 6);
      expect(turned.to.y).toBeCloseTo(to.y, 6);
    });
  });

  test('a crop goes with what it shows', () => {
    const crop = { x: 100, y: 50, width: 200, height: 80 };
    const document = { ...untouched(frame), view: { crop } };
    const turned = turnDocument(document, frame, turnOf({ quarters: 1 }), tools);
    expect(turned.view.crop).toEqual({ x: 270, y: 100, width: 80, height: 200 });
  });

  test('a line that should be level says the angle', () => {
    expect(levelled(upright, { x: 0, y: 0 }, { x: 100, y: 10 })).toBeCloseTo(-5.71);
    expect(levelled(upright, { x: 10, y: 0 }, { x: 0, y: 100 })).toBeCloseTo(-5.71);
    expect(levelled(turnOf({ angle: 3 }), { x: 0, y: 0 }, { x: -100, y: 0 })).toBe(3);
  });
});

describe('hidden on a turned picture', () => {
  const small = { width: 160, height: 120 };
  const turns = [
    turnOf({ quarters: 1 }),
    turnOf({ mirrored: true, quarters: 2 }),
    turnOf({ angle: 11 }),
    turnOf({ angle: -33, quarters: 3 }),
    turnOf({
      square: {
        corners: [
          { x: 20, y: 10 },
          { x: 140, y: 25 },
          { x: 150, y: 110 },
          { x: 8, y: 100 },
        ],
        width: 200,
        height: 130,
      },
    }),
  ];

  test.each(turns)('%j gives nothing away', (turn) => {
    fc.assert(
      fc.property(
        fc.constantFrom('blur', 'blocks', 'cover', 'paintOut'),
        fc.constantFrom('box', 'oval'),
        fc.integer({ min: 0, max: 100 }),
        (kind, area, seed) => {
          const place = { x: 30 + (seed % 40), y: 20 + (seed % 30), width: 50.5, height: 30 };
          const colour = kind === 'cover' || kind === 'paintOut' ? { colour: '#D55E00' } : {};
          const hide = markSchema.parse({ id: 'h', kind, area, ...place, ...colour });
          const near = markSchema.parse({
            id: 'c',
            kind: 'closeUp',
            source: place,
            at: { x: 120, y: 90 },
            zoom: 1.5,
            colour: '#D55E00',
          });
          const start = { ...untouched(small), marks: [hide, near] };
          const document = turnDocument(start, small, turn, tools);
          const outside = noise(small.width, small.height, seed);
          const other = { ...outside, data: outside.data.slice() };
          const inside = noise(small.width, small.height, seed + 1);
          const mask = maskOf({ area: area as 'box', ...place }, { x: 0, y: 0, ...small });
          mask?.data.forEach((covered, i) => {
            if (!covered) return;
            const at =
              ((mask.y + Math.floor(i / mask.width)) * small.width + mask.x + (i % mask.width)) * 4;
            other.data.set(inside.data.subarray(at, at + 4), at);
          });
          expect(painted(outside, document).equals(painted(other, document))).toBe(true);
        },
      ),
      { numRuns: 12 },
    );
  });

  function painted(pixels: RgbaPixels, document: ShotDocument): Buffer {
    const { turn, crop } = document.view;
    const picture = bitmap(turn ? turnedPixels(pixels, turn, true) : pixels);
    const surface = createCanvas(crop.width, crop.height).getContext('2d');
    paintShot(surface, document, tools, (to) => to.drawImage(picture, 0, 0));
    return Buffer.from(surface.getImageData(0, 0, crop.width, crop.height).data);
  }

  test('only computed pixels need a wider mask', () => {
    expect(turnReach(turnOf({ quarters: 3, mirrored: true }))).toBe(0);
    expect(turnReach(turnOf({ angle: 1 }))).toBe(3);
    expect(turnReach(turnOf({ square }))).toBeGreaterThan(3);
  });

  test('a widened mask holds all within reach, and no more', () => {
    const within = { x: 0, y: 0, width: 30, height: 20 };
    const mask = maskOf({ area: 'box', x: 5, y: 5, width: 2, height: 1 }, within);
    const wide = widened(mask, 3, within);
    expect(wide).toMatchObject({ x: 2, y: 2, width: 8, height: 7 });
    expect(wide?.data.every((v) => v === 1)).toBe(true);
    expect(widened(mask, 2, { x: 20, y: 10, width: 5, height: 5 })).toBeNull();
  });
});
