import { expect, test } from '@jest/globals';
import { untouched } from './view';
import { markSchema } from '../marks/registry';
import type { Stretch } from '../values/stretch';
import { hiddenStretches, silentSeconds } from './silent';

const COUNT = 100;
const times = Array.from({ length: COUNT }, (_, i) => i / 10);
const area = { x: 0, y: 0, width: 10, height: 10 };

const hide = (id: string, time?: Stretch, more: object = {}) =>
  markSchema.parse({ id, kind: 'blur', ...area, ...(time && { time }), ...more });
const box = markSchema.parse({
  ...{ id: 'box', kind: 'box', ...area, colour: '#000000', outline: 1 },
  time: { from: 80, to: 90 },
});
const documentOf = (...marks: ReturnType<typeof hide>[]) => ({
  ...untouched({ width: 40, height: 40 }),
  marks,
});

test('sound is silent while something is hidden, a little more on both sides, once for several', () => {
  const document = documentOf(
    hide('b', { from: 30, to: 50 }),
    hide('a', { from: 10, to: 20 }),
    hide('c', { from: 40, to: 60 }),
    box,
  );
  expect(hiddenStretches(document, COUNT)).toEqual([
    { from: 10, to: 20 },
    { from: 30, to: 60 },
  ]);
  const [first, second] = silentSeconds(document, times);
  expect([first?.from, first?.to]).toEqual([1 - 0.05, 2 + 0.2]);
  expect([second?.from, second?.to]).toEqual([3 - 0.05, 6 + 0.2]);
});

test('a mark that is there all the time silences all; none where nothing is hidden', () => {
  expect(hiddenStretches(documentOf(hide('a')), COUNT)).toEqual([{ from: 0, to: COUNT }]);
  expect(silentSeconds(documentOf(hide('a')), times)[0]?.from).toBe(0);
  expect(silentSeconds(documentOf(box), times)).toEqual([]);
});

test('switched off it hides all the same, until a person agreed', () => {
  const time = { from: 1, to: 2 };
  expect(hiddenStretches(documentOf(hide('a', time, { off: true })), COUNT)).toEqual([time]);
  const agreed = hide('a', time, { off: true, uncovered: true });
  expect(hiddenStretches(documentOf(agreed), COUNT)).toEqual([]);
});
