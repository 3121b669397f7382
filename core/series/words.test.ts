import { expect, test } from '@jest/globals';
import { timesInWords, unitOf } from './words';

test.each([
  [
    { every: 900, between: { from: '08:00', until: '17:00' } },
    [1, 2, 3, 4, 5],
    'Every 15 minutes, 08:00–17:00, Mon–Fri',
  ],
  [{ every: 3600, between: null }, [0, 1, 2, 3, 4, 5, 6], 'Every hour'],
  [{ every: 90, between: null }, [6, 0], 'Every 90 seconds, Sat, Sun'],
  [{ at: ['13:30', '09:00'] }, [1, 3, 0], 'At 09:00, 13:30, Mon, Wed, Sun'],
])('%j on %j is said as %s', (when, days, words) => {
  expect(timesInWords({ when, days })).toBe(words);
});

test('a length is said in its largest whole unit', () => {
  expect(unitOf(7200)).toEqual({ count: 2, seconds: 3600, word: 'hours' });
  expect(unitOf(61)).toEqual({ count: 61, seconds: 1, word: 'seconds' });
});
