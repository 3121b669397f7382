import { expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import fc from 'fast-check';
import { bitmap, flattenPart, flattenPixels, sheet } from '@/server/paint/flatten';
import { serverShaper } from '@/server/paint/shaper';
import { anyMark } from '@/tests/lib/anyMark';
import { everyMark } from '@/tests/lib/marks';
import type { ShotDocument } from '../document/document';
import { untouched } from '../document/view';
import type { PaintTools } from '../marks/contract';
import { firstStyles, hides, kindOf } from '../marks/registry';
import { randomFrom } from '../random/random';
import { blackOut, cutPixels, putPixels, type RgbaPixels } from '../raster/pixels';
import { paintShot } from './painter';
import { paintedParts } from './parts';

const SIZE = { width: 220, height: 160 };

function noise(seed: number, size = SIZE): RgbaPixels {
  const next = randomFrom(seed);
  const data = new Uint8ClampedArray(size.width * size.height * 4);
  for (let i = 0; i < data.length; i += 1) data[i] = i % 4 === 3 ? 255 : next() * 256;
  return { data, ...size };
}

const hiding = anyMark.filter((mark) => hides(mark) && !mark.halo);

function painted(frame: RgbaPixels, document: ShotDocument, tools: PaintTools): RgbaPixels {
  const { width, height } = document.view.crop;
  const surface = createCanvas(width, height).getContext('2d');
  const picture = bitmap(frame);
  paintShot(surface, document, tools, (to) => to.drawImage(picture, 0, 0));
  const { data } = surface.getImageData(0, 0, width, height);
  return { data: new Uint8ClampedArray(data), width, height };
}

/** Paints the parts of a picture. @returns null where all of it must be painted */
function joinedParts(
  frame: RgbaPixels,
  document: ShotDocument,
  shaper: PaintTools['shaper'],
): RgbaPixels | null {
  const { crop } = document.view;
  const parts = paintedParts(document, { shaper });
  if (!parts) return null;
  const joined = cutPixels(frame, crop);
  for (const one of parts) {
    const { part, needs, hidden } = one;
    const given = cutPixels(frame, needs);
    for (const { x, y, ...size } of hidden)
      blackOut(given, { x: x - needs.x, y: y - needs.y, ...size });
    const made = flattenPart(given, one, shaper);
    putPixels(joined, made, { x: part.x - crop.x, y: part.y - crop.y });
  }
  return joined;
}

test.each([
  ['of any kind', anyMark],
  // Worked out from pixels alone.
  ['that hide, and nothing else,', hiding],
])('painted in its parts, a picture with marks %s is the same to the pixel', async (_, mark) => {
  const shaper = await serverShaper();
  const tools: PaintTools = { shaper, bitmap, sheet };
  let inParts = 0;
  fc.assert(
    fc.property(
      fc.array(mark, { minLength: 1, maxLength: 5 }),
      fc.integer(),
      fc.boolean(),
      (some, seed, isCut) => {
        const frame = noise(seed);
        const crop = isCut ? { x: 20, y: 12, width: 180, height: 140 } : { x: 0, y: 0, ...SIZE };
        const marks = some.map((one, i) => ({ ...one, id: `m${i}` }));
        const document: ShotDocument = { ...untouched(SIZE), view: { crop }, marks };
        const joined = joinedParts(frame, document, shaper);
        if (!joined) return;
        inParts += 1;
        const whole = painted(frame, document, tools);
        expect(Buffer.from(joined.data).equals(Buffer.from(whole.data))).toBe(true);
      },
    ),
    { numRuns: 120 },
  );
  expect(inParts).toBeGreaterThan(60);
});

const amounts = { contrast: 140, grey: 30, sharpened: 80 };

test.each([
  ['of any kind', anyMark],
  ['that hide, and nothing else,', hiding],
])(
  'a picture with marks %s is the same to the pixel without drawing all of it',
  async (_, mark) => {
    const shaper = await serverShaper();
    const tools: PaintTools = { shaper, bitmap, sheet };
    fc.assert(
      fc.property(
        fc.array(fc.tuple(mark, fc.boolean(), fc.boolean()), { maxLength: 6 }),
        fc.constantFrom(undefined, 'picture' as const, 'all' as const),
        fc.integer(),
        fc.boolean(),
        (some, on, seed, isCut) => {
          const crop = isCut ? { x: 20, y: 12, width: 180, height: 140 } : { x: 0, y: 0, ...SIZE };
          const marks = some.map(([one, isOff, isAgreed], i) => ({
            ...{ ...one, id: `m${i}` },
            ...(isOff && { off: true as const }),
            ...(isOff && isAgreed && { uncovered: true as const }),
          }));
          const finish = on && { finish: { adjust: { on, ...amounts } } };
          const document: ShotDocument = { ...untouched(SIZE), view: { crop }, marks, ...finish };
          // Of another picture below the same marks nothing is known from the one before.
          for (const frame of [noise(seed), noise(seed + 1)]) {
            const before = Buffer.from(frame.data.slice());
            const made = flattenPixels(frame, document, shaper);
            expect(Buffer.from(frame.data).equals(before)).toBe(true);
            const whole = painted(frame, document, tools);
            expect(Buffer.from(made.data).equals(Buffer.from(whole.data))).toBe(true);
          }
        },
      ),
      { numRuns: 60, seed: 12 },
    );
  },
);

test('each mark by itself, in every shape it has, is the same to the pixel without drawing all of it', async () => {
  const shaper = await serverShaper();
  const tools: PaintTools = { shaper, bitmap, sheet };
  const size = { width: 600, height: 400 };
  const frame = noise(5, size);
  const inParts = everyMark.filter((mark) => {
    const document: ShotDocument = { ...untouched(size), marks: [mark] };
    const made = flattenPixels(frame, document, shaper);
    const whole = painted(frame, document, tools);
    expect([mark.id, Buffer.from(made.data).equals(Buffer.from(whole.data))]).toEqual([
      mark.id,
      true,
    ]);
    return paintedParts(document, { shaper }) !== null;
  });
  expect(inParts.length).toBeGreaterThan(everyMark.length / 2);
});

test('what lies everywhere, and what is done to all of it, is painted as a whole', async () => {
  const shaper = await serverShaper();
  const dim = kindOf('dim').create(
    'd',
    [
      { x: 10, y: 10 },
      { x: 40, y: 40 },
    ],
    firstStyles.dim,
  );
  const bare = untouched(SIZE);
  expect(paintedParts({ ...bare, marks: [dim] }, { shaper })).toBeNull();
  expect(
    paintedParts({ ...bare, finish: { adjust: { on: 'all', grey: 100 } } }, { shaper }),
  ).toBeNull();
  expect(paintedParts(bare, { shaper })).toEqual([]);
});
