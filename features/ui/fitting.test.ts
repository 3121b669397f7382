import { expect, test } from '@jest/globals';
import { fitting } from './fitting';

const at = { gap: 10, more: 50 };

test.each([
  ['all where they fit to the pixel', [100, 100, 100], 320, 3],
  ['one pixel less leaves room for the button', [100, 100, 100], 319, 2],
  ['the button itself needs its place', [100, 100, 100], 269, 1],
  ['what is narrow does not jump the queue', [200, 10, 10], 180, 0],
  ['what shows nothing takes no gap', [100, 0, 100], 210, 3],
  ['nothing at all', [], 100, 0],
])('%s', (_, widths, room, count) => {
  expect(fitting(widths, room, at)).toBe(count);
});
