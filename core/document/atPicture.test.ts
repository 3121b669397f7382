import { expect, test } from '@jest/globals';
import { markSchema } from '../marks/registry';
import { documentAt, isUntouched, stillAt } from './atPicture';
import { untouched } from './view';

const FRAME = { width: 40, height: 30 };
const box = (id: string, more: object = {}) =>
  markSchema.parse({
    ...{ id, kind: 'box', x: 2, y: 2, width: 9, height: 9, colour: '#D55E00', outline: 2, ...more },
  });

test('on a picture of a clip are the marks of its time, in their order', () => {
  const marks = [box('always'), box('early', { time: { from: 0, to: 4 } })];
  const late = box('late', { time: { from: 4, to: 6 } });
  const document = { ...untouched(FRAME), marks: [late, ...marks] };
  const seen = (picture: number) => documentAt(document, picture, FRAME).marks.map(({ id }) => id);
  expect([0, 3, 4, 5, 6].map(seen)).toEqual([
    ['always', 'early'],
    ['always', 'early'],
    ['late', 'always'],
    ['late', 'always'],
    ['always'],
  ]);
  const bare = { ...document, marks: [box('always')] };
  expect(documentAt(bare, 9, FRAME)).toBe(bare);
  expect(stillAt(document, 5, FRAME).marks).toEqual([box('late'), box('always')]);
});

test('what is changed in any way is not as it was recorded', () => {
  const bare = untouched(FRAME);
  expect(isUntouched(bare, FRAME)).toBe(true);
  expect(isUntouched({ ...bare, description: 'Four beds.' }, FRAME)).toBe(true);
  const crop = { x: 0, y: 0, width: 39, height: 30 };
  for (const other of [
    { ...bare, marks: [box('a', { time: { from: 900, to: 901 } })] },
    { ...bare, view: { crop } },
    { ...bare, view: { ...bare.view, shape: { kind: 'oval' as const } } },
    { ...bare, view: { ...bare.view, turn: { quarters: 1, angle: 0, flipped: false } } },
    { ...bare, finish: { adjust: { on: 'all' as const, grey: 100 } } },
  ])
    expect(isUntouched(other as typeof bare, FRAME)).toBe(false);
});
