import { beforeAll, describe, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import { differenceCiede2000 } from 'culori';
import fc from 'fast-check';
import { testTools } from '@/tests/lib/painting';
import { bitmap } from '@/server/paint/flatten';
import { paintShot } from '../../paint/painter';
import { PaintScene } from '../../paint/scene';
import { fillText, layoutText } from '../../drawing/textLayout';
import { maskOf } from '../../raster/mask';
import { randomFrom } from '../../random/random';
import { untouched } from '../../document/view';
import type { PaintTools } from '../contract';
import { markSchema, type Mark, type MarkInput } from '../registry';

let tools: PaintTools;
beforeAll(async () => {
  tools = await testTools();
});

const SIZE = { width: 220, height: 140 };
/** Where only agreement matters, a small picture shows it as well as a large one. */
const SMALL = { width: 110, height: 70 };
type Size = typeof SIZE;
type Bytes = Uint8ClampedArray<ArrayBuffer>;

/** A frame of noise; the same seed gives the same pixels. */
function noise(seed: number, size: Size = SIZE): Bytes {
  const next = randomFrom(seed);
  const data = new Uint8ClampedArray(size.width * size.height * 4);
  for (let i = 0; i < data.length; i += 1) data[i] = i % 4 === 3 ? 255 : next() * 256;
  return data;
}

/** `inside` where a mark hides, `outside` elsewhere. */
function composed(inside: Bytes, outside: Bytes, hides: readonly Mark[], size: Size = SIZE): Bytes {
  const data = new Uint8ClampedArray(outside);
  for (const hide of hides) {
    if (!('area' in hide)) continue;
    const { x, y, width, height } = hide;
    const outline =
      hide.area === 'free'
        ? { area: 'free' as const, points: hide.points ?? [] }
        : { area: hide.area, x, y, width, height };
    const mask = maskOf(outline, { x: 0, y: 0, ...size });
    if (!mask) continue;
    mask.data.forEach((covered, i) => {
      if (!covered) return;
      const at =
        ((mask.y + Math.floor(i / mask.width)) * size.width + mask.x + (i % mask.width)) * 4;
      data.set(inside.subarray(at, at + 4), at);
    });
  }
  return data;
}

function paint(
  frame: Bytes,
  marks: readonly Mark[],
  size: Size = SIZE,
  crop = { x: 0, y: 0, ...size },
): Buffer {
  const surface = createCanvas(crop.width, crop.height).getContext('2d');
  const document = { ...untouched(size), view: { crop }, marks: [...marks] };
  const picture = bitmap({ data: frame, ...size });
  paintShot(surface, document, tools, (to) => to.drawImage(picture, 0, 0));
  return Buffer.from(surface.getImageData(0, 0, crop.width, crop.height).data);
}

const mark = (input: MarkInput): Mark => markSchema.parse(input);
const colour = '#D55E00';

const place = fc.record({
  x: fc.double({ min: -10, max: 100, noNaN: true }),
  y: fc.double({ min: -10, max: 60, noNaN: true }),
  width: fc.double({ min: 3, max: 60, noNaN: true }),
  height: fc.double({ min: 3, max: 45, noNaN: true }),
});
const hide = fc
  .tuple(
    place,
    fc.constantFrom('box' as const, 'oval' as const, 'free' as const),
    fc.constantFrom('blur' as const, 'blocks' as const, 'cover' as const, 'paintOut' as const),
    fc.integer({ min: 2, max: 30 }),
    fc.integer({ min: 0, max: 1_000_000 }),
  )
  .map(([at, area, kind, strength, seed]): Mark => {
    const points: [number, number][] = [
      [at.x, at.y],
      [at.x + at.width, at.y + at.height * 0.2],
      [at.x + at.width * 0.7, at.y + at.height],
    ];
    const base = {
      id: `h${seed}`,
      ...at,
      area,
      ...(area === 'free' && { points }),
    };
    if (kind === 'blur' || kind === 'blocks') return mark({ ...base, kind, strength });
    return kind === 'cover'
      ? mark({ ...base, kind, colour })
      : mark({ ...base, kind, paintOut: 'across', colour });
  });

/** Marks that read or tint the picture, over and beside what is hidden, below and above it. */
const readers: Mark[] = [
  mark({
    id: 'close',
    kind: 'closeUp',
    source: { x: 10, y: 8, width: 60, height: 40 },
    at: { x: 75, y: 45 },
    zoom: 1.5,
    colour,
  }),
  mark({
    id: 'tint',
    kind: 'highlighter',
    points: [
      [0, 20, 0.5],
      [100, 25, 0.5],
    ],
    colour: '#F0E442',
    thickness: 15,
  }),
  mark({
    id: 'dim',
    kind: 'dim',
    bright: [{ x: 15, y: 15, width: 30, height: 20, hole: 'oval' }],
    dimming: 0.5,
    softness: 4,
  }),
];

describe('what is hidden', () => {
  test('never shows: frames that differ only under Hide marks give the same bytes', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(hide, { minLength: 1, maxLength: 3, selector: (m) => m.id }),
        fc.integer(),
        fc.integer(),
        fc.integer(),
        fc.boolean(),
        (hides, outside, a, b, below) => {
          const around = noise(outside, SMALL);
          const marks = below ? [...readers, ...hides] : [...hides, ...readers];
          const [one, other] = [a, b].map((seed) =>
            paint(composed(noise(seed, SMALL), around, hides, SMALL), marks, SMALL),
          );
          if (!one || !other) throw new Error('two pictures');
          expect(one.equals(other)).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('is not told by what lies outside the view either', () => {
    const crop = { x: 40, y: 30, width: 120, height: 80 };
    const hides = [mark({ id: 'h', kind: 'blur', x: 20, y: 20, width: 80, height: 60 })];
    const inView = noise(1);
    const frame = (seed: number) => {
      const data = noise(seed);
      for (let y = crop.y; y < crop.y + crop.height; y += 1) {
        const from = (y * SIZE.width + crop.x) * 4;
        data.set(inView.subarray(from, from + crop.width * 4), from);
      }
      return data;
    };
    expect(paint(frame(2), hides, SIZE, crop).equals(paint(frame(3), hides, SIZE, crop))).toBe(
      true,
    );
  });

  test('without the mark the frames do differ, so the test can fail', () => {
    const hides = [mark({ id: 'h', kind: 'blur', x: 20, y: 20, width: 80, height: 60 })];
    const around = noise(1);
    const [one, other] = [noise(2), noise(3)].map((inside) => composed(inside, around, hides));
    if (!one || !other) throw new Error('two frames');
    expect(paint(one, []).equals(paint(other, []))).toBe(false);
  });

  test('looks as if something were there: neighbouring spots differ', () => {
    const hides = [
      mark({ id: 'h', kind: 'blocks', x: 40, y: 40, width: 96, height: 48, strength: 12 }),
    ];
    const data = paint(noise(5), hides);
    const at = (x: number, y: number) => data.readUInt32LE((y * SIZE.width + x) * 4);
    const colours = new Set<number>();
    for (let x = 46; x < 136; x += 12) for (let y = 46; y < 88; y += 12) colours.add(at(x, y));
    expect(colours.size).toBeGreaterThan(20);
  });
});

/** Words on a ground that is even or changes evenly, as a page has it. */
function wordsOn(ground: (x: number, y: number) => [number, number, number]): Bytes {
  const surface = createCanvas(SIZE.width, SIZE.height).getContext('2d');
  const data = new Uint8ClampedArray(SIZE.width * SIZE.height * 4);
  for (let i = 0; i < SIZE.width * SIZE.height; i += 1) {
    data.set([...ground(i % SIZE.width, Math.floor(i / SIZE.width)), 255], i * 4);
  }
  surface.drawImage(bitmap({ data, ...SIZE }), 0, 0);
  const font = { face: 'plain', weight: 400, size: 20 } as const;
  const block = layoutText(tools.shaper, 'Marsh marigold FH-2031\nPond edge, north', font);
  fillText(surface, block, 8, 44, '#1C2B2A');
  return new Uint8ClampedArray(surface.getImageData(0, 0, SIZE.width, SIZE.height).data);
}

describe('many over each other', () => {
  const whole = (i: number): MarkInput => ({
    ...{ id: `h${i}`, kind: 'blur', strength: 6 },
    ...{ x: -1 - i, y: -1, width: SIZE.width + 2 + i, height: SIZE.height + 2 },
  });
  const patches = (marks: readonly Mark[], moving?: ReadonlySet<string>) => {
    const picture = bitmap({ data: noise(3), ...SIZE });
    const scene = new PaintScene({
      ...{ marks, tools, view: { crop: { x: 0, y: 0, ...SIZE } }, pictures: undefined },
      drawFrame: (to) => to.drawImage(picture, 0, 0),
      ...(moving && { moving }),
    });
    return marks.filter(({ id }) => scene.patch(id)).map(({ id }) => id);
  };
  const many = Array.from({ length: 200 }, (_, i) => mark(whole(i)));

  test('cost what the uppermost costs: nothing below it is filled, and it looks the same', () => {
    const top = many.slice(-1);
    expect(patches(many)).toEqual(['h199']);
    expect(paint(noise(3), many).equals(paint(noise(3), top))).toBe(true);
  });

  test('but what shows beside it is filled, and what lies under a moving one, too', () => {
    const small = mark({ id: 'top', kind: 'blocks', x: 20, y: 20, width: 60, height: 40 });
    const under = mark({ id: 'under', kind: 'cover', x: 30, y: 30, width: 20, height: 20, colour });
    const beside = mark({
      id: 'beside',
      kind: 'cover',
      x: 70,
      y: 30,
      width: 20,
      height: 9,
      colour,
    });
    expect(patches([under, beside, small])).toEqual(['beside', 'top']);
    expect(patches([under, beside, small], new Set(['top']))).toEqual(['under', 'beside', 'top']);
    // Gone again, as another repaint would have it, nothing of the frame shows where it was.
    expect(patches([under, { ...small, off: true }])).toEqual(['under']);
  });
});

// CIEDE2000 as culori computes it (Sharma, Wu and Dalal 2005): within 2 nobody sees a difference.
describe('painting out words', () => {
  const difference = differenceCiede2000();
  const grounds: [string, (x: number, y: number) => [number, number, number]][] = [
    ['white', () => [255, 255, 255]],
    ['bone', () => [239, 236, 227]],
    ['dark', () => [28, 43, 42]],
    ['a gradient across', (x) => [200 - x / 2, 210 - x / 3, 240 - x / 4]],
    ['a gradient down', (_, y) => [90 + y, 120 + y / 2, 140]],
  ];

  test.each(grounds)('on %s leaves its background', (_, ground) => {
    const hides = [
      // The right end cuts through the words, as hands do.
      mark({ id: 'h', kind: 'paintOut', x: 4, y: 42, width: 150, height: 52, colour }),
    ];
    const data = paint(wordsOn(ground), hides);
    let worst = 0;
    for (let y = 43; y < 94; y += 3) {
      for (let x = 5; x < 153; x += 3) {
        const i = (y * SIZE.width + x) * 4;
        const [r, g, b] = ground(x, y);
        const got = {
          mode: 'rgb' as const,
          r: (data[i] ?? 0) / 255,
          g: (data[i + 1] ?? 0) / 255,
          b: (data[i + 2] ?? 0) / 255,
        };
        worst = Math.max(
          worst,
          difference(got, { mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 }),
        );
      }
    }
    expect(worst).toBeLessThanOrEqual(2);
  });
});
