import { expect, test } from '@jest/globals';
import { changedShare } from './changed';

const picture = (dots: readonly [x: number, y: number][] = []) => {
  const data = new Uint8ClampedArray(10 * 10 * 4).fill(200);
  for (const [x, y] of dots) data[(y * 10 + x) * 4 + 2] = 0;
  return { data, width: 10, height: 10 };
};
const all = { watch: null, ignore: [] };

test('counts the pixels that differ, of those that are watched', () => {
  expect(changedShare(picture(), picture(), all)).toBe(0);
  expect(changedShare(picture(), picture([[3, 3]]), all)).toBe(0.01);
  const watch = { x: 2, y: 2, width: 4, height: 5 };
  expect(
    changedShare(
      picture(),
      picture([
        [3, 3],
        [9, 9],
      ]),
      { watch, ignore: [] },
    ),
  ).toBe(0.05);
  const ignore = [{ x: 3, y: 0, width: 20, height: 10 }];
  expect(
    changedShare(
      picture(),
      picture([
        [3, 3],
        [2, 5],
      ]),
      { watch, ignore },
    ),
  ).toBe(1 / 5);
});

test('where nothing is watched nothing changes; another size is another picture', () => {
  const ignore = [{ x: -5, y: -5, width: 50, height: 50 }];
  expect(changedShare(picture(), picture([[1, 1]]), { watch: null, ignore })).toBe(0);
  const other = { ...picture(), width: 20, height: 5 };
  expect(changedShare(picture(), other, all)).toBe(1);
});
