import { describe, expect, test } from '@jest/globals';
import { nextTime, spansBetween, type Times } from './times';
import { readMoment, writtenMoment, zoneOf } from './zone';

const at = (text: string): number => Date.parse(text);
const told = (moment: number | null): string | null =>
  moment === null ? null : new Date(moment).toISOString().replace(':00.000Z', 'Z');
const everyDay = [0, 1, 2, 3, 4, 5, 6];

const times = (zone: string, when: Times['when'], more: Partial<Times> = {}): Times => ({
  ...{ zone, when, begins: '2020-01-01T00:00:00Z', ends: null, days: everyDay },
  ...more,
});

/** The next times, as many as asked for. */
function following(asked: Times, after: string, count: number): (string | null)[] {
  const found: (string | null)[] = [];
  let last: number | null = at(after);
  for (let i = 0; i < count && last !== null; i += 1) {
    last = nextTime(asked, last);
    found.push(told(last));
  }
  return found;
}

const all = (asked: Times, from: string, until: string): number =>
  spansBetween(asked, at(from), at(until)).reduce((sum, { count }) => sum + count, 0);

// The changes are those of the IANA time zone database: rule EU (last Sunday of March and October at
// 1:00 UTC), rule US (second Sunday of March, first of November at 2:00), rule LH (first Sunday of
// October and April at 2:00, by half an hour).
describe('set times where the clock is changed', () => {
  test.each([
    // 02:30 is leapt over on 29 March 2026: it comes as 03:30 summer time.
    [
      'Europe/Berlin',
      '02:30',
      '2026-03-27T12:00Z',
      ['2026-03-28T01:30Z', '2026-03-29T01:30Z', '2026-03-30T00:30Z'],
    ],
    // On 25 October 2026 it comes twice, and is taken once, at the first.
    [
      'Europe/Berlin',
      '02:30',
      '2026-10-24T12:00Z',
      ['2026-10-25T00:30Z', '2026-10-26T01:30Z', '2026-10-27T01:30Z'],
    ],
    ['America/New_York', '02:30', '2026-03-07T12:00Z', ['2026-03-08T07:30Z', '2026-03-09T06:30Z']],
    ['America/New_York', '01:30', '2026-10-31T12:00Z', ['2026-11-01T05:30Z', '2026-11-02T06:30Z']],
    [
      'Australia/Lord_Howe',
      '02:15',
      '2026-10-03T00:00Z',
      ['2026-10-03T15:45Z', '2026-10-04T15:15Z'],
    ],
    [
      'Australia/Lord_Howe',
      '01:45',
      '2026-04-04T00:00Z',
      ['2026-04-04T14:45Z', '2026-04-05T15:15Z'],
    ],
  ])('%s at %s after %s', (zone, time, after, expected) => {
    expect(following(times(zone, { at: [time] }), after, expected.length)).toEqual(expected);
  });

  test('two times that fall together on such a day are one', () => {
    const both = times('Europe/Berlin', { at: ['03:30', '02:30'] });
    expect(following(both, '2026-03-28T12:00Z', 2)).toEqual([
      '2026-03-29T01:30Z',
      '2026-03-30T00:30Z',
    ]);
  });

  test('a leap day has its times, and a day that is not chosen has none', () => {
    const noon = times('Europe/Berlin', { at: ['12:00'] });
    expect(following(noon, '2028-02-28T12:00Z', 2)).toEqual([
      '2028-02-29T11:00Z',
      '2028-03-01T11:00Z',
    ]);
    // 29 February 2028 is a Tuesday.
    const others = times('Europe/Berlin', { at: ['12:00'] }, { days: [0, 1, 3, 4, 5, 6] });
    expect(following(others, '2028-02-28T12:00Z', 1)).toEqual(['2028-03-01T11:00Z']);
  });
});

describe('again and again', () => {
  test('between two times of the day, what is counted are hours that pass', () => {
    const hourly = (zone: string) =>
      times(zone, { every: 3600, between: { from: '00:00', until: '06:00' } });
    // Six hours are seven times; the day that loses an hour has six, the one that gains one eight.
    expect(all(hourly('Europe/Berlin'), '2026-03-27T23:00Z', '2026-03-28T22:59Z')).toBe(7);
    expect(all(hourly('Europe/Berlin'), '2026-03-28T23:00Z', '2026-03-29T21:59Z')).toBe(6);
    expect(all(hourly('Europe/Berlin'), '2026-10-24T22:00Z', '2026-10-25T22:59Z')).toBe(8);
    expect(all(hourly('America/New_York'), '2026-03-08T05:00Z', '2026-03-09T03:59Z')).toBe(6);
    expect(all(hourly('America/New_York'), '2026-11-01T04:00Z', '2026-11-02T04:59Z')).toBe(8);
  });

  test('every 90 minutes until 17:00 begins anew each day', () => {
    const office = times(
      'Europe/Berlin',
      { every: 5400, between: { from: '08:00', until: '17:00' } },
      { days: [1, 2, 3, 4, 5] },
    );
    // 27 November 2026 is a Friday; the next is Monday.
    expect(following(office, '2026-11-27T14:00Z', 3)).toEqual([
      '2026-11-27T14:30Z',
      '2026-11-27T16:00Z',
      '2026-11-30T07:00Z',
    ]);
  });

  test('a whole day from eight to eight has each time once', () => {
    const day = times('Europe/Berlin', {
      every: 21_600,
      between: { from: '08:00', until: '08:00' },
    });
    expect(all(day, '2026-11-26T07:00Z', '2026-11-28T06:59Z')).toBe(8);
    expect(following(day, '2026-11-27T00:00Z', 3)).toEqual([
      '2026-11-27T01:00Z',
      '2026-11-27T07:00Z',
      '2026-11-27T13:00Z',
    ]);
  });

  test('a night belongs to its evening', () => {
    const night = times(
      'Europe/Berlin',
      { every: 7200, between: { from: '22:00', until: '02:00' } },
      { days: [5] },
    );
    expect(following(night, '2026-11-27T00:00Z', 4)).toEqual([
      '2026-11-27T21:00Z',
      '2026-11-27T23:00Z',
      '2026-11-28T01:00Z',
      '2026-12-04T21:00Z',
    ]);
    const [span] = spansBetween(night, at('2026-11-27T23:00Z'), at('2026-11-28T12:00Z'));
    expect(span).toMatchObject({ day: '2026-11-27', count: 2 });
  });

  test('without times of the day it runs on from its beginning, whatever the clock does', () => {
    const seven = times(
      'Europe/Berlin',
      { every: 25_200, between: null },
      { begins: '2026-10-24T20:00:00Z', ends: '2026-10-26T00:00:00Z' },
    );
    expect(following(seven, '2026-10-01T00:00Z', 9)).toEqual([
      '2026-10-24T20:00Z',
      '2026-10-25T03:00Z',
      '2026-10-25T10:00Z',
      '2026-10-25T17:00Z',
      '2026-10-26T00:00Z',
      null,
    ]);
  });

  test('a week of one a second is counted, by days', () => {
    const spans = spansBetween(
      times('Europe/Berlin', { every: 1, between: null }),
      at('2026-11-01T23:00Z'),
      at('2026-11-08T22:59:59Z'),
    );
    expect(spans.map(({ count }) => count)).toEqual(Array(7).fill(86_400));
  });
});

test('a field of a form says a day and a time, and is read back', () => {
  const zone = 'America/New_York';
  const moment = readMoment('2026-07-04T09:30', zoneOf(zone));
  expect(told(moment)).toBe('2026-07-04T13:30Z');
  expect(writtenMoment(moment ?? 0, zone)).toBe('2026-07-04T09:30');
  expect(readMoment('', zoneOf(zone))).toBeNull();
});
