import { expect, test } from '@jest/globals';
import { settledPictures } from './settled';

test('what stood until the next change, and in the end, but not the first picture', () => {
  expect(settledPictures([10, 25], 40, 20)).toEqual([9, 24, 39]);
  expect(settledPictures([], 40, 20)).toEqual([39]);
  expect(settledPictures([1, 2], 3, 20)).toEqual([1, 2]);
  expect(settledPictures([], 1, 20)).toEqual([]);
});

test('of many, some from all over the film and the last', () => {
  const changes = Array.from({ length: 99 }, (_, i) => 10 * (i + 1));
  const some = settledPictures(changes, 1_000, 20);
  expect(some).toHaveLength(20);
  expect(some.at(-1)).toBe(999);
  expect(new Set(some.map((at) => Math.floor(at / 50))).size).toBe(20);
});
