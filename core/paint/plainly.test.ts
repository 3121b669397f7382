import { beforeAll, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import fc from 'fast-check';
import { testTools } from '@/tests/lib/painting';
import { bitmap, flattenPixels } from '@/server/paint/flatten';
import type { ShotDocument } from '../document/document';
import { untouched } from '../document/view';
import { parts, surroundSchema, type Surround } from '../finish/surround/surround';
import type { PaintTools } from '../marks/contract';
import { markSchema } from '../marks/registry';
import { randomFrom } from '../random/random';
import type { RgbaPixels } from '../raster/pixels';
import { paintShot } from './painter';
import { isPlain, plainlySurrounded } from './plainly';
import { layoutOfShot } from './whole';

let tools: PaintTools;
beforeAll(async () => {
  tools = await testTools();
});

function picture(width: number, height: number): RgbaPixels {
  const random = randomFrom(width * 1000 + height);
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < data.length; i += 1) data[i] = i % 4 === 3 ? 255 : random() * 256;
  return { data, width, height };
}

const colour = fc
  .integer({ min: 0, max: 0xffffff })
  .map((n) => `#${n.toString(16).padStart(6, '0')}`);
const plain = fc.record(
  {
    border: fc.record({ width: fc.integer({ min: 0, max: 9 }), colour, corners: fc.constant(0) }),
    background: fc.record(
      {
        colours: fc.array(colour, { maxLength: 1 }),
        run: fc.constant('down'),
        room: fc.integer({ min: 0, max: 12 }),
        ratio: fc.record({
          width: fc.integer({ min: 1, max: 9 }),
          height: fc.integer({ min: 1, max: 9 }),
        }),
      },
      { requiredKeys: ['colours', 'run', 'room'] },
    ),
    fold: fc.constant(parts.fold.first),
  },
  { requiredKeys: [] },
);

test('what is plain around a picture is the same to the pixel as painted', () => {
  fc.assert(
    fc.property(
      plain,
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: 1, max: 90 }),
      (given, width, height) => {
        const surround = surroundSchema.parse(given);
        const document: ShotDocument = { ...untouched({ width, height }), finish: { surround } };
        const layout = layoutOfShot(document, tools.shaper);
        if (!layout) throw new Error('There is no layout.');
        const own = picture(width, height);
        const surface = createCanvas(layout.whole.width, layout.whole.height).getContext('2d');
        const drawn = bitmap(own);
        paintShot(surface, document, tools, (to) => to.drawImage(drawn, 0, 0));
        const painted = surface.getImageData(0, 0, layout.whole.width, layout.whole.height).data;
        const { data, ...size } = plainlySurrounded(own, surround, layout);
        expect(size).toEqual(layout.whole);
        expect(Buffer.from(data).equals(Buffer.from(painted))).toBe(true);
      },
    ),
    { numRuns: 200, seed: 18 },
  );
});

test.each([undefined, 'picture', 'all'] as const)(
  'around a part of a frame with marks on it, adjusted: %p, it is what the painter paints',
  (on) => {
    const own = picture(90, 60);
    const crop = { x: 7, y: 5, width: 70, height: 48 };
    const marks = markSchema.array().parse([
      { id: 'o', kind: 'oval', x: 20, y: 12, width: 30, height: 22, colour: '#D55E00', outline: 3 },
      { id: 'h', kind: 'blocks', x: 40, y: 30, width: 30, height: 18 },
    ]);
    const surround = { border: { width: 6, colour: '#1D4A3F', corners: 0 } };
    const finish = { surround, ...(on && { adjust: { on, contrast: 140, grey: 30 } }) };
    const document = { ...untouched({ width: 90, height: 60 }), view: { crop }, marks, finish };
    const { data, ...size } = flattenPixels(
      { ...own, data: own.data.slice() },
      document,
      tools.shaper,
    );
    expect(size).toEqual({ width: 82, height: 60, opaque: true });
    const surface = createCanvas(82, 60).getContext('2d');
    const drawn = bitmap(own);
    paintShot(surface, document, tools, (to) => to.drawImage(drawn, 0, 0));
    const painted = surface.getImageData(0, 0, 82, 60).data;
    expect(Buffer.from(data).equals(Buffer.from(painted))).toBe(true);
  },
);

test('what has corners, a run of colours, or more than pixels is painted', () => {
  const { border, background, shadow, caption, watermark, ragged, tilt } = parts;
  const all: [Surround, boolean][] = [
    [{}, true],
    [{ border: border.first }, true],
    [{ border: border.first, background: background.first }, true],
    [{ border: { ...border.first, corners: 1 } }, false],
    [{ background: { ...background.first, colours: ['#ffffff', '#000000'] } }, false],
    [{ shadow: shadow.first }, false],
    [{ caption: caption.first }, false],
    [{ watermark: watermark.first }, false],
    [{ ragged: ragged.first }, false],
    [{ tilt: tilt.first }, false],
    [{ tilt: undefined, border: border.first }, true],
  ];
  for (const [surround, is] of all) expect([surround, isPlain(surround)]).toEqual([surround, is]);
});
