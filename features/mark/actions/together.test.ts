import { beforeAll, expect, test } from '@jest/globals';
import { kindOf } from '@/core/marks/registry';
import { everyMark } from '@/tests/lib/marks';
import { testShaper } from '@/tests/lib/shaper';
import type { MarkTools } from '@/core/marks/contract';
import { changedAmong, movedAlike } from './together';

let tools: MarkTools;
beforeAll(async () => {
  tools = { shaper: await testShaper() };
});
/** Dim around fills the view wherever it is. */
const marks = everyMark.filter((mark) => mark.kind !== 'dim');
const moved = (x: number, y: number) => marks.map((mark) => kindOf(mark).move(mark, { x, y }));

test.each([
  [1, 0],
  [-13, 240],
])('marks of every kind moved by %i, %i are seen to be', (x, y) => {
  const by = movedAlike(marks, moved(x, y), tools);
  expect(by?.x).toBeCloseTo(x, 1);
  expect(by?.y).toBeCloseTo(y, 1);
});

test('one that moved otherwise, was sized, or is another: not alike', () => {
  const others = moved(5, 5);
  const [first] = others;
  if (!first) throw new Error('no marks');
  expect(
    movedAlike(marks, [kindOf(first).move(first, { x: 1, y: 0 }), ...others.slice(1)], tools),
  ).toBeNull();
  expect(movedAlike(marks, [...others].reverse(), tools)).toBeNull();
  expect(movedAlike(marks, others.slice(1), tools)).toBeNull();
  const box = marks.find((mark) => mark.kind === 'box');
  if (!box) throw new Error('no box');
  expect(movedAlike([box], [kindOf(box).withNumber(box, 'width', 500)], tools)).toBeNull();
});

test('what changed is told; a mark more, less or elsewhere in the order is another thing', () => {
  const [a, b, c] = marks;
  if (!a || !b || !c) throw new Error('no marks');
  const next = { ...b, name: 'New' };
  expect(changedAmong([a, b, c], [a, next, c])).toEqual([next]);
  expect(changedAmong([a, b], [a, b])).toEqual([]);
  expect(changedAmong([a, b], [b, a])).toBeNull();
  expect(changedAmong([a, b], [a, b, c])).toBeNull();
});
