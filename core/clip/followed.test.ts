import { expect, test } from '@jest/globals';
import { followSteps } from './followed';

const times = [0, 0.1, 0.2, 0.3, 0.4];

test('each picture shows the window where it was noted last', () => {
  const followed = [
    { at: 0.05, x: 10, y: 0 },
    { at: 0.18, x: 20, y: 4 },
    { at: 0.19, x: 30, y: 5 },
    { at: 0.3, x: 30, y: 5 },
    { at: 0.4, x: 0, y: 0 },
    { at: 9, x: 99, y: 0 },
  ];
  expect(followSteps(followed, times)).toEqual([
    { from: 1, x: 10, y: 0 },
    { from: 2, x: 30, y: 5 },
    { from: 4, x: 0, y: 0 },
  ]);
});

test('one that lay elsewhere before the first picture is followed from there on', () => {
  expect(followSteps([{ at: 0, x: -7, y: 3 }], times)).toEqual([{ from: 0, x: -7, y: 3 }]);
  expect(followSteps([], times)).toEqual([]);
  expect(followSteps([{ at: 0, x: 0, y: 0 }], times)).toEqual([]);
});

test('in the pixels of the film', () => {
  const scale = { x: 0.5, y: 2 };
  expect(followSteps([{ at: 0.1, x: 9, y: 3 }], times, scale)).toEqual([{ from: 1, x: 5, y: 6 }]);
});
