import { describe, expect, test } from '@jest/globals';
import { lateness, settle } from './settle';
import type { Times } from './times';

const DAY = 86_400_000;
const at = (text: string): number => Date.parse(`2026-11-27T${text}Z`);
const times = (when: Times['when']): Times => ({
  ...{ zone: 'Europe/Berlin', begins: '2026-11-27T00:00:00Z', ends: null },
  ...{ days: [0, 1, 2, 3, 4, 5, 6], when },
});
const tenMinutes = times({ every: 600, between: null });
const nine = times({ at: ['09:00', '13:00'] });

const stand = { due: at('10:10'), last: at('10:00') };

describe('what a series has to do', () => {
  test('nothing before its time, and that time once it has come', () => {
    expect(settle(tenMinutes, stand, at('10:09:59'))).toEqual({
      ...{ setBack: false, missed: [], take: null, due: at('10:10') },
    });
    expect(settle(tenMinutes, stand, at('10:10:01'))).toEqual({
      ...{ setBack: false, missed: [], take: at('10:10'), due: at('10:20') },
    });
  });

  test('after a leap forward one is taken at most, and all others are told', () => {
    const soon = settle(tenMinutes, stand, at('12:01'));
    expect(soon).toMatchObject({ take: at('12:00'), due: at('12:10') });
    expect(soon.missed).toEqual([
      { day: '2026-11-27', from: at('10:10'), until: at('11:50'), count: 11 },
    ]);
    const late = settle(tenMinutes, stand, at('12:06'));
    expect(late).toMatchObject({ take: null, due: at('12:10') });
    expect(late.missed).toMatchObject([{ count: 12, until: at('12:00') }]);
  });

  test('what is missed over days is told by days', () => {
    const later = Date.parse('2026-11-28T10:00Z');
    const { missed, take, due } = settle(nine, { due: at('08:00'), last: null }, later);
    expect(missed.map(({ day, count }) => [day, count])).toEqual([
      ['2026-11-27', 2],
      ['2026-11-28', 1],
    ]);
    expect([take, due]).toEqual([null, Date.parse('2026-11-28T12:00Z')]);
  });

  test('a clock set back is told, and it goes on by the new clock, however far that is', () => {
    const after = { due: at('12:00'), last: at('08:00') };
    expect(settle(nine, after, at('07:30'))).toEqual({
      ...{ setBack: true, missed: [], take: null, due: at('08:00') },
    });
    const aYear = { due: at('12:00') + 365 * DAY, last: at('08:00') + 365 * DAY };
    expect(settle(nine, aYear, at('07:30'))).toMatchObject({ setBack: true, due: at('08:00') });
    expect(settle(tenMinutes, { due: at('12:10'), last: at('12:00') }, at('10:04'))).toEqual({
      ...{ setBack: true, missed: [], take: null, due: at('10:10') },
    });
  });

  test('a clock that is put right by a few seconds was not set back', () => {
    expect(settle(tenMinutes, stand, at('09:59:57')).setBack).toBe(false);
  });

  test('how late something may be taken follows how often it is', () => {
    expect(lateness(times({ every: 1, between: null }))).toBe(3_000);
    expect(lateness(tenMinutes)).toBe(300_000);
    expect(lateness(times({ every: 60, between: null }))).toBe(30_000);
    expect(lateness(times({ at: ['23:59', '00:01'] }))).toBe(60_000);
  });
});
