import { expect, test } from '@jest/globals';
import { pathOf, strokeOf } from './shapes';

test.each([
  ['none at all', []],
  ['too many', Array(4).fill([1, 2, 0.5])],
  ['one number too few', [[1, 2]]],
  ['one too many', [[1, 2, 0.5, 3]]],
  ['words', [['1', 2, 0.5]]],
  ['no number', [[Number.NaN, 2, 0.5]]],
  ['too far away', [[100_001, 2, 0.5]]],
  ['too much pressure', [[1, 2, 1.1]]],
  ['a number for a point', [7]],
  ['a word for all', 'points'],
])('a stroke of %s is refused, in words', (_, points) => {
  const { error } = strokeOf(1, 3).safeParse(points);
  expect(error?.issues[0]?.message).toBe(
    'must be 1 to 3 points, each x, y within 100000 and pressure from 0 to 1',
  );
});

test('points come through as they are, up to their bounds', () => {
  const stroke = [
    [-100_000, 100_000, 0],
    [0.25, 7, 1],
  ];
  expect(strokeOf(1, 3).parse(stroke)).toEqual(stroke);
  expect(pathOf(0, 3).parse([])).toEqual([]);
  expect(pathOf(2, 3).safeParse([[1, 2]]).error?.issues[0]?.message).toBe(
    'must be 2 to 3 points, each x, y within 100000',
  );
});
