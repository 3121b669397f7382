import { expect, test } from '@jest/globals';
import { editDistance, nearest } from './alike';

test.each([
  ['frots', 'frost', 1],
  ['frost', 'frost', 0],
  ['snsor', 'sensor', 1],
  ['sensorr', 'sensor', 1],
  ['sansor', 'sensor', 1],
  ['bed', '', 3],
  // The published example of what optimal alignment does not do: a swap is not edited again.
  ['ca', 'abc', 3],
])('%s, %s: %d', (a, b, distance) => {
  expect(editDistance(a, b)).toBe(distance);
  expect(editDistance(b, a)).toBe(distance);
});

test('the nearest word, if it is near', () => {
  expect(nearest('frots', ['from', 'front', 'frost'])).toBe('frost');
  expect(nearest('responing', ['corresponding', 'responding'])).toBe('responding');
  expect(nearest('xyzzy', ['frost', 'from'])).toBeNull();
});
