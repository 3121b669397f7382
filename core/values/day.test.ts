import { expect, test } from '@jest/globals';
import { shifted, weekday, weeksOf, writtenDay } from './day';

test('a day goes on into the next month and year, over leap days', () => {
  expect(writtenDay(shifted({ year: 2028, month: 2, day: 28 }, { days: 1 }))).toBe('2028-02-29');
  expect(writtenDay(shifted({ year: 2026, month: 12, day: 31 }, { days: 1 }))).toBe('2027-01-01');
  expect(writtenDay(shifted({ year: 2026, month: 1, day: 1 }, { months: -1 }))).toBe('2025-12-01');
  // 29 November 2026 is a Sunday.
  expect(weekday({ year: 2026, month: 11, day: 29 })).toBe(0);
});

test('a month is laid out from Monday on', () => {
  const weeks = weeksOf({ year: 2026, month: 11 });
  expect(weeks).toHaveLength(6);
  // 1 November 2026 is a Sunday.
  expect(weeks[0]?.map(writtenDay)).toEqual([
    ...['2026-10-26', '2026-10-27', '2026-10-28', '2026-10-29', '2026-10-30', '2026-10-31'],
    '2026-11-01',
  ]);
  expect(weeks[5]?.at(-1)).toEqual({ year: 2026, month: 12, day: 6 });
  // Four weeks to the day.
  expect(weeksOf({ year: 2027, month: 2 })).toHaveLength(4);
});
