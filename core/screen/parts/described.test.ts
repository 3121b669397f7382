import { expect, test } from '@jest/globals';
import { withDescribed } from './described';

const frame = { width: 400, height: 300 };
const box = (x: number, y: number, width: number, height: number) => ({ x, y, width, height });

test('what is described takes the place of what was found there, to the pixel', () => {
  const found = [box(10, 10, 100, 30), box(10, 60, 100, 30)];
  const parts = withDescribed(found, [{ ...box(8, 9, 104, 32), words: 'button “Save”' }], frame);
  expect(parts).toEqual([box(10, 60, 100, 30), { ...box(8, 9, 104, 32), words: 'button “Save”' }]);
});

test('of two descriptions of one place the first, outer one stays', () => {
  const parts = withDescribed(
    [],
    [
      { ...box(10, 10, 100, 30), words: 'row “Sea holly”' },
      { ...box(10, 11, 100, 28), words: 'label “Sea holly”' },
    ],
    frame,
  );
  expect(parts.map((p) => p.words)).toEqual(['row “Sea holly”']);
});

test('what has no name is called by the words that fill it', () => {
  const parts = withDescribed(
    [],
    [
      { ...box(10, 10, 100, 30), words: 'row' },
      { ...box(10, 10, 100, 30), words: 'label “Sea holly”' },
    ],
    frame,
  );
  expect(parts.map((p) => p.words)).toEqual(['row “Sea holly”']);
});

test('where only the inside of a control is described, the box found closely around it is its own', () => {
  const inner = { ...box(26, 16, 48, 24), words: 'button “Save”', inner: true as const };
  expect(withDescribed([box(10, 10, 80, 36)], [inner], frame)).toEqual([
    { ...box(10, 10, 80, 36), words: 'button “Save”' },
  ]);
  // A bar around two of them is neither of them.
  const other = { ...inner, x: 96, words: 'button “Leave it”' };
  const bar = box(12, 8, 150, 40);
  expect(withDescribed([bar], [inner, other], frame).map((p) => [p.x, p.words])).toEqual([
    [12, undefined],
    [26, 'button “Save”'],
    [96, 'button “Leave it”'],
  ]);
});

test('a part of a window that reaches over the edge ends there; what is beyond is none', () => {
  const told = [
    { ...box(-40, 250, 120, 90), words: 'list' },
    { ...box(300, 10, 100, 20), words: 'row' },
    { ...box(410, 10, 50, 20), words: 'row “Beyond”' },
  ];
  expect(withDescribed([], told, frame)).toEqual([
    { ...box(0, 250, 80, 50), words: 'list' },
    { ...box(300, 10, 100, 20), words: 'row' },
  ]);
});
