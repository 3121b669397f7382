import { describe, expect, test } from '@jest/globals';
import { seriesSchema } from '@/core/contracts/series';
import { firstSettings } from '@/core/contracts/settings';
import { draftOf, firstDraft, inputOf, patchOf, type Draft } from './draft';

const draft = (more: Partial<Draft> = {}): Draft => ({
  ...firstDraft(firstSettings, 'desk', 'Europe/Berlin'),
  ...{ name: ' Sensors ', ...more },
});
const wrong = (more: Partial<Draft>): string => {
  try {
    inputOf(draft(more));
    return '';
  } catch (error) {
    return error instanceof Error ? error.message : '';
  }
};

describe('what the form says of a series', () => {
  test('is asked of the server as it is meant', () => {
    const between = { from: '08:00', until: '17:00' };
    const asked = inputOf(
      draft({ count: 90, unit: 60, between, days: [1, 2], ends: '2026-10-25T02:30' }),
    );
    expect(asked).toMatchObject({
      name: 'Sensors',
      what: { source: 'desk', kind: 'full', region: null },
      times: {
        ...{ zone: 'Europe/Berlin', days: [1, 2], when: { every: 5400, between } },
        // Of the two half past twos of that night the first.
        ends: '2026-10-25T00:30:00.000Z',
      },
    });
    expect(asked.times).not.toHaveProperty('begins');
  });

  test('set times are read however they are typed', () => {
    const asked = inputOf(draft({ how: 'at', at: '13.30, 9:00;09:00' }));
    expect(asked.times.when).toEqual({ at: ['09:00', '13:30'] });
  });

  test('what cannot be is said in words', () => {
    expect(wrong({ name: ' ' })).toBe('Give the series a name.');
    expect(wrong({ how: 'at', at: 'noon' })).toContain('“noon” is no time');
    expect(wrong({ how: 'at', at: '25:00' })).toContain('“25:00”');
    expect(wrong({ how: 'at', at: ' ' })).toContain('at least one time');
    expect(wrong({ days: [] })).toContain('at least one day');
    expect(wrong({ source: 'web' })).toContain('address');
    expect(wrong({ pattern: '{x}' })).toContain('{x}');
    expect(wrong({ count: 1000, unit: 3600 })).not.toBe('');
  });

  test('one that is there comes back as it was', () => {
    const asked = inputOf(
      draft({ kind: 'region', begins: '2026-07-01T09:00', count: 2, unit: 3600 }),
    );
    const stored = seriesSchema.parse({
      ...asked,
      ...{ id: '00000000-0000-4000-8000-000000000000', state: 'running', why: null, next: null },
      ...{ taken: 0, unchanged: 0, missed: 0, bytes: 0, last: null },
    });
    expect(inputOf(draftOf(stored, draft()))).toEqual(asked);
  });

  test('only what was changed is sent, and seconds that the form does not show stay', () => {
    const stored = seriesSchema.parse({
      ...inputOf(draft()),
      times: { ...inputOf(draft()).times, begins: '2026-11-29T05:35:20.000Z' },
      ...{ id: '00000000-0000-4000-8000-000000000000', state: 'running', why: null, next: null },
      ...{ taken: 0, unchanged: 0, missed: 0, bytes: 0, last: null },
    });
    const before = draftOf(stored, draft());
    expect(patchOf(stored, before, before)).toEqual({});
    expect(patchOf(stored, before, { ...before, name: 'Other' })).toEqual({ name: 'Other' });
    expect(patchOf(stored, before, { ...before, count: 20 })).toEqual({
      times: { ...stored.times, when: { every: 1200, between: null } },
    });
  });
});
