import { expect, test } from '@jest/globals';
import { daysFromWords } from './when';

// A Friday.
const today = { year: 2026, month: 11, day: 27 };
const said = (words: string) => {
  const days = daysFromWords(words, today);
  const text = ({ year, month, day }: typeof today) => [year, month, day].join('-');
  return days && `${text(days.from)} ${text(days.end)}`;
};

test.each([
  ['today', '2026-11-27 2026-11-28'],
  ['Yesterday', '2026-11-26 2026-11-27'],
  ['this week', '2026-11-23 2026-11-30'],
  ['last week', '2026-11-16 2026-11-23'],
  ['last-week', '2026-11-16 2026-11-23'],
  ['this month', '2026-11-1 2026-12-1'],
  ['last month', '2026-10-1 2026-11-1'],
  ['last year', '2025-1-1 2026-1-1'],
  ['monday', '2026-11-23 2026-11-24'],
  ['friday', '2026-11-27 2026-11-28'],
  ['saturday', '2026-11-21 2026-11-22'],
  ['March', '2026-3-1 2026-4-1'],
  ['december', '2025-12-1 2026-1-1'],
  ['mar 2024', '2024-3-1 2024-4-1'],
  ['3 March', '2026-3-3 2026-3-4'],
  ['3. march 2024', '2024-3-3 2024-3-4'],
  ['March 3, 2024', '2024-3-3 2024-3-4'],
  ['28 november', '2025-11-28 2025-11-29'],
  ['2026-03-03', '2026-3-3 2026-3-4'],
  ['2026-12', '2026-12-1 2027-1-1'],
  ['2024', '2024-1-1 2025-1-1'],
  ['31.12.2025', '2025-12-31 2026-1-1'],
  ['29 february 2024', '2024-2-29 2024-3-1'],
  ['4 days ago', '2026-11-23 2026-11-24'],
  ['last 7 days', '2026-11-21 2026-11-28'],
  ['0001-01-01', '1-1-1 1-1-2'],
])('%s', (words, days) => {
  expect(said(words)).toBe(days);
});

test.each([
  '',
  '31 february',
  '2026-13',
  '2026-02-30',
  'frost',
  '32 march',
  'marchy',
  '99999-01-01',
])('“%s” is no date', (words) => {
  expect(said(words)).toBeNull();
});
