import { expect, test } from '@jest/globals';
import { clockOf } from './clock';
import { Changes, changedShare } from './changes';
import { writtenSize } from './size';

const grey = (value: number, dot = value): Uint8Array => {
  const picture = new Uint8Array(1000).fill(value);
  picture.fill(dot, 0, 5);
  return picture;
};

test('how much of a picture is another', () => {
  expect(changedShare(grey(10), grey(10))).toBe(0);
  expect(changedShare(grey(10), grey(200))).toBe(1);
  expect(changedShare(grey(10), grey(10, 90))).toBe(0.005);
  // A codec's noise is no change.
  expect(changedShare(grey(10), grey(14))).toBe(0);
});

test('a change is told where it begins, once, and again after a rest', () => {
  const changes = new Changes(3);
  const seen = [10, 10, 90, 10, 90, 90, 90, 90, 90, 10];
  for (const value of seen) changes.saw(grey(10, value));
  expect(changes.found).toEqual([2, 9]);
});

test('a clock under a film', () => {
  expect([0, 7.44, 59.96, 61.5, 600].map(clockOf)).toEqual([
    ...['0:00.0', '0:07.4', '0:59.9', '1:01.5', '10:00.0'],
  ]);
});

test('films have even sides, moving pictures need not', () => {
  expect(writtenSize({ width: 1441, height: 901 }, 100, true)).toEqual({
    width: 1440,
    height: 900,
  });
  expect(writtenSize({ width: 1441, height: 901 }, 100, false)).toEqual({
    ...{ width: 1441, height: 901 },
  });
  expect(writtenSize({ width: 1440, height: 900 }, 33, true)).toEqual({ width: 474, height: 296 });
  expect(writtenSize({ width: 3, height: 3 }, 5, true)).toEqual({ width: 2, height: 2 });
});
