import { beforeAll, describe, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import { testTools } from '@/tests/lib/painting';
import { testShaper } from '@/tests/lib/shaper';
import type { PaintTools } from '../marks/contract';
import { markSchema, type Mark } from '../marks/registry';
import { untouched } from '../document/view';
import { paintShot } from './painter';
import { PaintScene } from './scene';
import type { Shaper } from '../drawing/shaper';
import type { Surface } from '../drawing/surface';
import { layoutText } from '../drawing/textLayout';

let shaper: Shaper;
let tools: PaintTools;
beforeAll(async () => {
  shaper = await testShaper();
  tools = await testTools();
});

const font = { face: 'plain', weight: 400, size: 20 } as const;

function paint(marks: Mark[], ground: string, crop = { x: 0, y: 0, width: 40, height: 40 }) {
  const surface = createCanvas(crop.width, crop.height).getContext('2d');
  const document = { ...untouched({ width: 40, height: 40 }), view: { crop }, marks };
  paintShot(surface, document, tools, (to) => {
    to.fillStyle = ground;
    to.fillRect(0, 0, 40, 40);
  });
  const { data } = surface.getImageData(0, 0, crop.width, crop.height);
  return (x: number, y: number) => [
    ...data.subarray((y * crop.width + x) * 4, (y * crop.width + x) * 4 + 3),
  ];
}

const highlighter = (colour: string): Mark =>
  markSchema.parse({
    id: 'h',
    kind: 'highlighter',
    points: [
      [-20, 20, 0.5],
      [60, 20, 0.5],
    ],
    colour,
    thickness: 30,
  });

// Source: W3C, Compositing and Blending Level 1, §10.1: B(cb, cs) = cb × cs, per channel.
describe('the highlighter multiplies', () => {
  test('black stays black, white takes the colour', () => {
    expect(paint([highlighter('#F0E442')], '#000000')(20, 20)).toEqual([0, 0, 0]);
    expect(paint([highlighter('#F0E442')], '#FFFFFF')(20, 20)).toEqual([0xf0, 0xe4, 0x42]);
  });

  test.each(['#808080', '#0C6470', '#D55E00', '#FDFDFA'])('on %s', (ground) => {
    const below = [1, 3, 5].map((i) => parseInt(ground.slice(i, i + 2), 16));
    const expected = below.map((b, i) => (b * ([0xf0, 0xe4, 0x42][i] ?? 0)) / 255);
    paint([highlighter('#F0E442')], ground)(20, 20).forEach((value, i) => {
      expect(Math.abs(value - (expected[i] ?? 0))).toBeLessThanOrEqual(1);
    });
  });
});

test('only the view leaves, at its own corner', () => {
  const box = markSchema.parse({
    id: 'b',
    kind: 'box',
    x: 10,
    y: 10,
    width: 4,
    height: 4,
    colour: '#000000',
    outline: 0,
    fill: '#0072B2',
    fillOpacity: 1,
    dashed: false,
    corner: 0,
  });
  const at = paint([box], '#FFFFFF', { x: 10, y: 10, width: 8, height: 8 });
  expect(at(0, 0)).toEqual([0, 0x72, 0xb2]);
  expect(at(3, 3)).toEqual([0, 0x72, 0xb2]);
  expect(at(4, 4)).toEqual([255, 255, 255]);
});

describe('text', () => {
  test('wraps at spaces and hyphens, and no line is too wide', () => {
    const block = layoutText(shaper, 'Cover the north bank before six-thirty tonight', font, 120);
    expect(block.lines.length).toBeGreaterThan(2);
    for (const line of block.lines) expect(line.run.advance).toBeLessThanOrEqual(120);
    expect(
      block.lines
        .map((l) => l.text)
        .join(' ')
        .replace('six- ', 'six-'),
    ).toBe('Cover the north bank before six-thirty tonight'.replace('six- ', 'six-'));
  });

  test('a word that is too wide is broken, and line ends are kept', () => {
    const block = layoutText(shaper, 'Aquilegiaaaaaaaaaaaaaaaaaaaa\n\nx', font, 80);
    expect(block.lines.map((l) => l.text).join('')).toBe('Aquilegiaaaaaaaaaaaaaaaaaaaax');
    expect(block.lines.at(-2)?.text).toBe('');
    for (const line of block.lines) expect(line.run.advance).toBeLessThanOrEqual(80);
  });

  test('a place too narrow for one character still ends', () => {
    expect(layoutText(shaper, 'abc', font, 1).lines).toHaveLength(3);
  });

  test('every shipped face and weight gives outlines; an unknown character is a box, not a fault', () => {
    for (const face of ['plain', 'fixed'] as const) {
      for (const weight of [400, 700] as const) {
        const run = shaper.shape('Łódź 🌱 שלום', { face, weight, size: 20 });
        expect(run.advance).toBeGreaterThan(50);
        expect(run.glyphs.some((g) => g.outline.length > 0)).toBe(true);
      }
    }
  });

  // Source: the advance widths in the font itself: in a fixed face all are 600 of 1000 units.
  test('a fixed face is fixed', () => {
    const fixed = { face: 'fixed', weight: 400, size: 10 } as const;
    expect(shaper.shape('iiii', fixed).advance).toBeCloseTo(24);
    expect(shaper.shape('MWMW', fixed).advance).toBeCloseTo(24);
  });
});

describe('opacity', () => {
  const box = (more: object): Mark =>
    markSchema.parse({
      ...{ id: 'b', kind: 'box', x: 5, y: 5, width: 30, height: 30, colour: '#0000FF' },
      ...{ outline: 6, fill: '#FF0000', ...more },
    });

  // Source: W3C, Compositing and Blending Level 1, §9.1.4: source-over, of the mark as a group.
  test('thins out the mark as a whole: outline and filling do not shine through each other', () => {
    const at = paint([box({ opacity: 0.4 })], '#FFFFFF');
    const near = (got: number[], wanted: number[]) =>
      got.forEach((v, i) => expect(Math.abs(v - (wanted[i] ?? 0))).toBeLessThanOrEqual(1));
    near(at(20, 20), [255, 153, 153]);
    // The outline lies half over the filling; both halves look the same.
    near(at(3, 20), [153, 153, 255]);
    expect(at(7, 20)).toEqual(at(3, 20));
    expect(at(0, 0)).toEqual([255, 255, 255]);
  });

  test('a faded highlighter multiplies as much less', () => {
    const half = paint([{ ...highlighter('#F0E442'), opacity: 0.5 } as Mark], '#808080')(20, 20);
    const below = 0x80;
    [0xf0, 0xe4, 0x42].forEach((own, i) => {
      const whole = (below * own) / 255;
      expect(Math.abs((half[i] ?? 0) - (whole + below) / 2)).toBeLessThanOrEqual(1);
    });
  });

  test('is seen whole by what reads pixels, however the whole is looked at', () => {
    const below = { ...box({ opacity: 0.5 }), id: 'below' };
    const view = { crop: { x: 0, y: 0, width: 40, height: 40 } };
    const white = (to: Surface) => {
      to.fillStyle = '#FFFFFF';
      to.fillRect(0, 0, 40, 40);
    };
    const seen = (more: object) =>
      new PaintScene({
        ...{ marks: [below], view, drawFrame: white, pictures: undefined },
        tools: { ...tools, ...more },
      })
        .below('', view.crop)
        .data.join();
    const far = { sight: { scale: 0.1, seen: { x: 30, y: 30, width: 5, height: 5 } } };
    expect(seen(far)).toBe(seen({}));
  });

  test('is the same wherever the view begins', () => {
    const marks = [box({ opacity: 0.3, halo: '#000000' })];
    const whole = paint(marks, '#C0FFEE');
    const part = paint(marks, '#C0FFEE', { x: 3, y: 4, width: 30, height: 30 });
    for (let y = 0; y < 30; y += 1) {
      for (let x = 0; x < 30; x += 1) expect(part(x, y)).toEqual(whole(x + 3, y + 4));
    }
  });

  test.each(['blur', 'blocks', 'cover', 'paintOut'])(
    '%s has none: what is hidden stays so',
    (kind) => {
      const area = { id: 'h', kind, x: 5, y: 5, width: 30, height: 30 };
      const mark = kind === 'cover' || kind === 'paintOut' ? { ...area, colour: '#000000' } : area;
      expect(markSchema.safeParse(mark).success).toBe(true);
      expect(markSchema.safeParse({ ...mark, opacity: 0.5 }).success).toBe(false);
    },
  );

  test.each([0, -1, 1.5, 0.01, Number.NaN, '0.5'])('%p is refused', (opacity) => {
    const read = markSchema.safeParse({ ...box({}), opacity });
    expect(read.success).toBe(false);
  });
});
