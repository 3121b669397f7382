import { describe, expect, test } from '@jest/globals';
import { randomFrom } from '../random/random';
import { numbersOf } from './written';

describe.each([
  ['en-US', '1,200', 1200],
  ['en-US', '1.200', 1.2],
  ['en-US', '1,5', 1.5],
  ['en-US', '12,345,678.5', 12_345_678.5],
  ['de-DE', '1.200', 1200],
  ['de-DE', '1,200', 1.2],
  ['de-DE', '0.500', 0.5],
  ['de-DE', '1.5', 1.5],
  ['de-DE', '-1.234.567,25', -1_234_567.25],
  ['de-DE', '−12,5', -12.5],
  ['de-CH', '1’200.5', 1200.5],
  ['fr-FR', '1\u202f200,5', 1200.5],
  ['fr-FR', '1 200', 1200],
  ['ar-EG', '١٬٢٠٠٫٥', 1200.5],
  ['ar-EG', '\u061c-٣٫٥', -3.5],
  ['he-IL', '\u200e-1,200', -1200],
  ['fa-IR', '۱۲', 12],
])('in %s', (locale, text, value) => {
  test(`${text} is ${value}`, () => expect(numbersOf(locale).read(text)).toBe(value));
});

test.each([
  '',
  ' ',
  'abc',
  '1,2,3',
  '1.2.3',
  '1.200,',
  '..',
  '1,20,0.5',
  '12 34',
  '1e5',
  '--1',
  '0x10',
  'NaN',
  'Infinity',
])('%p is no number in German', (text) => {
  // A decimal sign without decimals is only unfinished.
  expect(numbersOf('de-DE').read(text)).toBe(text === '1.200,' ? 1200 : null);
});

// Source: Unicode CLDR as Intl has it: what a locale writes is what it reads.
test.each([
  'en-US',
  'de-DE',
  'fr-FR',
  'de-CH',
  'ar-EG',
  'he-IL',
  'fa-IR',
  'hi-IN',
  'en-IN',
  'sv-SE',
  'pl-PL',
])('what %s writes is read as the same, with groups and without', (locale) => {
  const next = randomFrom(7);
  const numbers = numbersOf(locale);
  const grouped = new Intl.NumberFormat(locale, { maximumFractionDigits: 2 });
  for (let i = 0; i < 300; i += 1) {
    const value = Math.round((next() - 0.5) * 10 ** (1 + (i % 6)) * 100) / 100;
    expect([value, numbers.read(numbers.write(value))]).toEqual([value, value]);
    expect([value, numbers.read(grouped.format(value))]).toEqual([value, value]);
  }
});
