import { expect, test } from '@jest/globals';
import { daysLeft, sayReason } from './sayFound';

test('why a shot was found, in words', () => {
  expect(sayReason({ places: ['title', 'picture'], hits: [] })).toBe('in the title, picture');
  expect(sayReason({ places: [], hits: [] })).toBe('');
  expect(sayReason({ places: ['picture'], hits: [], moment: 3.2 })).toBe(
    'in the picture at 0:03.2',
  );
});

test('how long a shot stays in the bin', () => {
  const at = '2026-11-20T12:00:00.000Z';
  const now = new Date('2026-11-26T11:00:00.000Z').getTime();
  expect(daysLeft(at, 7, now)).toBe('2 days left');
  expect(daysLeft(at, 7, now + 2 * 3_600_000)).toBe('1 day left');
  expect(daysLeft(at, 7, now + 48 * 3_600_000)).toBe('deleted within the hour');
  expect(daysLeft(at, null, now)).toBeNull();
  expect(daysLeft(null, 7, now)).toBeNull();
});
