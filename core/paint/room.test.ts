import { beforeAll, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import { testTools } from '@/tests/lib/painting';
import { bitmap } from '@/server/paint/flatten';
import type { ShotDocument } from '../document/document';
import { dropRest } from '../document/dropRest';
import { untouched } from '../document/view';
import type { PaintTools } from '../marks/contract';
import { markSchema } from '../marks/registry';
import { randomFrom } from '../random/random';
import { paintShot } from './painter';
import { leavesOpaque, wholeSize } from './whole';

let tools: PaintTools;
beforeAll(async () => {
  tools = await testTools();
});

const SIZE = { width: 80, height: 60 };
const crop = { x: 20, y: 10, width: 40, height: 30 };
const room = { top: 12, right: 4, bottom: 6, left: 8, colour: '#00FF00' };

/** Noise; where the view does not show it, of another seed. */
function frame(seed = 1) {
  const [one, two] = [randomFrom(9), randomFrom(seed)];
  const data = new Uint8ClampedArray(SIZE.width * SIZE.height * 4);
  for (let i = 0; i < data.length; i += 1) {
    const [x, y] = [(i >> 2) % SIZE.width, Math.floor((i >> 2) / SIZE.width)];
    const shown = x >= 20 && x < 60 && y >= 10 && y < 40;
    const [a, b] = [one() * 256, two() * 256];
    data[i] = i % 4 === 3 ? 255 : shown ? a : b;
  }
  return { data, ...SIZE };
}

function paint(document: ShotDocument, picture = frame()) {
  const { width, height } = wholeSize(document, tools.shaper);
  const surface = createCanvas(width, height).getContext('2d');
  const image = bitmap(picture);
  paintShot(surface, document, tools, (to) => to.drawImage(image, 0, 0));
  const data = Buffer.from(surface.getImageData(0, 0, width, height).data);
  const at = (x: number, y: number) => {
    const from = (y * width + x) * 4;
    return [...data.subarray(from, from + 4)];
  };
  return { width, height, data, at };
}

const mark = (input: object) => markSchema.parse(input);
const box = mark({
  ...{ id: 'b', kind: 'box', x: 14, y: 0, width: 12, height: 14, colour: '#0000FF' },
  ...{ outline: 0, fill: '#0000FF', fillOpacity: 1 },
});
const shot = (more: Partial<ShotDocument['view']>, marks = [box]): ShotDocument => ({
  ...untouched(SIZE),
  view: { crop, ...more },
  marks,
});

test('room lies beside the crop, holds nothing of the frame, and can be marked', () => {
  const { width, height, at } = paint(shot({ room }));
  expect([width, height]).toEqual([52, 48]);
  expect(at(0, 0)).toEqual([0, 255, 0, 255]);
  expect(at(51, 47)).toEqual([0, 255, 0, 255]);
  // A box from 14, 0 lies half on the room.
  expect(at(14 - 12, 0 + 2)).toEqual([0, 0, 255, 255]);
  expect(at(25 - 12, 13 + 2)).toEqual([0, 0, 255, 255]);
  const bare = paint(shot({}));
  expect(at(8 + 30, 12 + 20)).toEqual(bare.at(30, 20));
  expect(leavesOpaque(shot({ room }), true, tools.shaper)).toBe(true);
});

test('transparent room is transparent', () => {
  const clear = shot({ room: { ...room, colour: null } });
  expect(paint(clear).at(0, 40)[3]).toBe(0);
  expect(leavesOpaque(clear, true, tools.shaper)).toBe(false);
});

test.each([
  ['a close-up of the room', { kind: 'closeUp', source: { x: 12, y: 0, width: 20, height: 14 } }],
  ['a blur across the edge', { kind: 'blur', x: 14, y: 4, width: 20, height: 16, strength: 6 }],
])('with %s nothing beyond the crop is seen', (_, odd) => {
  const more = odd.kind === 'closeUp' ? { at: { x: 30, y: 15 }, zoom: 2, colour: '#000000' } : {};
  const document = shot({ room }, [mark({ id: 'm', ...odd, ...more })]);
  const sharpened = { adjust: { on: 'picture' as const, sharpened: 100 } };
  for (const given of [document, { ...document, finish: sharpened }]) {
    const one = paint(given);
    expect(paint(given, frame(77)).data.equals(one.data)).toBe(true);
  }
});

test('a free shape has no room', () => {
  const { width, height } = paint(shot({ room, shape: { kind: 'oval' } }));
  expect([width, height]).toEqual([40, 30]);
});

test('when the rest is dropped for good, the room becomes part of the frame', () => {
  const { frame: first, document } = dropRest(shot({ room }), tools);
  expect(document.view).toEqual({ crop: { x: 0, y: 0, width: 52, height: 48 } });
  expect(document.marks).toMatchObject([{ x: 14 - 12, y: 2 }]);
  expect(wholeSize(first, tools.shaper)).toEqual({ width: 52, height: 48 });
});
