import { expect, test } from '@jest/globals';
import type { Rect } from '../../geometry/rect';
import type { Phrase } from './phrases';
import { wholesOf } from './wholes';

const box = (x: number, y: number, width: number, height: number): Rect => ({
  x,
  y,
  width,
  height,
});

/** Words of ten-pixel letters that stand on a row. */
const words = (x: number, foot: number, width: number): Phrase => ({
  ink: box(x, foot - 10, width, 13),
  line: box(x, foot - 13, width, 17),
  foot,
});
const none = { phrases: [], icons: [] };

test('a field and its button that share a side are one, keys beside each other are not', () => {
  expect(wholesOf([box(10, 10, 200, 30), box(210, 10, 30, 30)], none)).toEqual([
    box(10, 10, 230, 30),
  ]);
  expect(wholesOf([box(10, 10, 50, 30), box(62, 10, 50, 30)], none)).toEqual([]);
  expect(wholesOf([box(10, 10, 200, 30), box(210, 14, 30, 22)], none)).toEqual([]);
});

test('a mark and the words after it are one, whatever else stands on the line', () => {
  const phrases = [words(40, 30, 70), words(300, 30, 70)];
  const found = wholesOf([], { phrases, icons: [box(18, 17, 16, 16)] });
  expect(found).toEqual([box(16, 17, 96, 17)]);
});

test('words far apart on a bar are its entries, with half the room between them', () => {
  const bar = box(0, 0, 600, 24);
  const phrases = [words(8, 17, 40), words(64, 17, 30), words(110, 17, 50)];
  const found = wholesOf([bar], { phrases, icons: [] });
  expect(found).toContainEqual(box(0, 0, 56, 24));
  expect(found).toContainEqual(box(56, 0, 46, 24));
  expect(found).toContainEqual(box(102, 0, 66, 24));
  // In a text the words stand closer.
  const text = [words(8, 17, 40), words(54, 17, 30), words(90, 17, 50)];
  expect(wholesOf([bar], { phrases: text, icons: [] })).toEqual([]);
});

test('icons at one distance on a bar are buttons as wide as that distance', () => {
  const icons = [12, 52, 92].map((x) => box(x, 12, 16, 16));
  const found = wholesOf([box(0, 0, 300, 40)], { phrases: [], icons });
  expect(found).toEqual([box(0, 0, 40, 40), box(40, 0, 40, 40), box(80, 0, 40, 40)]);
});

test('lines at one distance are rows from side to side, and cells below headings', () => {
  const list = box(100, 124, 300, 200);
  const heads = [box(100, 100, 120, 24), box(220, 100, 180, 24)];
  const phrases = [0, 1, 2, 3].flatMap((i) => [
    words(106, 144 + i * 24, 50),
    words(226, 144 + i * 24, 80),
  ]);
  const found = wholesOf([list, ...heads], { phrases, icons: [] });
  const rows = found.filter((r) => r.width === 300 && r.height === 24 && r.y >= 124);
  expect(rows.map((r) => [r.x, r.height])).toEqual(Array.from({ length: 4 }, () => [100, 24]));
  const [first, second] = rows;
  expect((second?.y ?? 0) - (first?.y ?? 0)).toBe(24);
  expect(found.filter((r) => r.x === 220 && r.width === 180 && r.y > 110)).toHaveLength(4);
});

test('lines at uneven distances, and a few among much else, are no rows', () => {
  const holder = box(0, 0, 400, 400);
  const uneven = [20, 44, 80, 104, 150].map((foot) => words(6, foot, 60));
  expect(wholesOf([holder], { phrases: uneven, icons: [] })).toEqual([]);
  const few = [20, 44, 68].map((foot) => words(6, foot, 60));
  const else_ = [130, 171, 219, 274, 330, 389].map((foot) => words(6, foot, 60));
  expect(wholesOf([holder], { phrases: [...few, ...else_], icons: [] })).toEqual([]);
});
