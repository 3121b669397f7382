import { describe, expect, test } from '@jest/globals';
import { LONGEST_QUERY, MOST_PARTS, readQuery, withoutPart } from './grammar';
import { asking } from './query';
import { sayPart } from './say';

const today = { year: 2026, month: 11, day: 27 };
const read = (text: string) => readQuery(text, today).parts;
const asks = (text: string) => read(text).map((part) => part.asks);
const said = (text: string) => read(text).map(sayPart);

describe('words', () => {
  test('all of them; the last one may go on while it is typed', () => {
    expect(asks('frost cover')).toMatchObject([
      { kind: 'words', tokens: ['frost'], open: false },
      { kind: 'words', tokens: ['cover'], open: true },
    ]);
    expect(asks('frost ')).toMatchObject([{ tokens: ['frost'], open: false }]);
  });
  test('phrases, in any quotes, also while the last one is missing', () => {
    expect(asks('"not responding" x ')).toMatchObject([
      { tokens: ['not', 'responding'], phrase: true, open: false },
      { tokens: ['x'] },
    ]);
    expect(asks('„frost cover“')).toMatchObject([{ tokens: ['frost', 'cover'], phrase: true }]);
    expect(asks('"not resp')).toMatchObject([{ tokens: ['not', 'resp'], phrase: true }]);
  });
  test('without, by any dash; a dash alone is being typed', () => {
    expect(read('-spring −"two words" frost').map((part) => part.without)).toEqual([
      true,
      true,
      false,
    ]);
    expect(read('frost -')).toHaveLength(1);
    expect(said('-spring')).toEqual(['without spring']);
  });
  test('codes, addresses, paths and times are no fields', () => {
    const noFields = ['note:x', 'constructor:x', 'hasownproperty:x', '__proto__:x'];
    for (const text of ['12:40', 'http://bed.example/x', '/srv/beds', 'C:\\beds', ...noFields]) {
      expect(asks(text)).toMatchObject([{ kind: 'words', field: null }]);
    }
    expect(asks('SX-48-7713-KA ')).toMatchObject([{ tokens: ['sx', '48', '7713', 'ka'] }]);
  });
});

describe('fields', () => {
  test('where words stand', () => {
    expect(asks('title:"seed order"')).toMatchObject([
      { kind: 'words', field: 'title', tokens: ['seed', 'order'], phrase: true },
    ]);
    expect(asks('WINDOW:sensors')).toMatchObject([{ field: 'window', tokens: ['sensors'] }]);
  });
  test('tags, sources, folders, marks', () => {
    expect(asks('tag:"north bank" from:camera kept:Guides with:arrow')).toEqual([
      { kind: 'tag', name: 'north bank' },
      { kind: 'from', name: 'camera' },
      { kind: 'kept', folder: 'Guides' },
      { kind: 'with', mark: 'arrow' },
    ]);
    expect(said('kept:none tag:none with:hidden hidden:no')).toEqual([
      'not kept',
      'without a tag',
      'something hidden',
      'nothing hidden',
    ]);
    expect(said('-kept:none')).toEqual(['kept']);
  });
  test('dates of several words, as far as they are one', () => {
    expect(said('since:3 March frost')).toEqual(['since 3 March 2026', 'word: frost']);
    expect(said('on:last week')).toEqual(['16 November 2026 to 22 November 2026']);
    expect(said('before:october')).toEqual(['before 1 October 2026']);
    expect(said('after:2026-03-03')).toEqual(['since 4 March 2026']);
    expect(said('on:monday tag:x')).toEqual(['on 23 November 2026', 'tag: x']);
    expect(said('between:2026-03-09..2026-03-01')).toEqual(['1 March 2026 to 9 March 2026']);
  });
  test('sizes', () => {
    expect(said('size:800x600 size:>800X600 size:<200×100')).toEqual([
      'size 800 × 600',
      'at least 800 × 600',
      'at most 200 × 100',
    ]);
  });
  test('what cannot be understood says why and narrows nothing', () => {
    for (const text of ['tag:', 'title:', 'on:never', 'between:today', 'size:big', 'title:"…"']) {
      const query = readQuery(text, today);
      expect(query.parts).toMatchObject([{ asks: { kind: 'unclear' } }]);
      expect(asking(query)).toEqual([]);
    }
  });
});

describe('anything', () => {
  test.each([
    '((',
    ')"(',
    '"',
    '""',
    '-',
    '--',
    ':',
    'tag:"',
    '\u202eabc',
    "'; drop table shots; --",
    '& | ! <->',
    '%_\\',
    '🌱',
    '-"',
    '\ud800',
  ])('%j is read', (text) => {
    for (const part of read(text)) {
      expect(part.end).toBeGreaterThan(part.start);
      expect(sayPart(part)).not.toBe('');
    }
  });
  test('as long as anybody likes', () => {
    expect(read('x'.repeat(10_000))).toHaveLength(1);
    expect(read('a '.repeat(5_000))).toHaveLength(MOST_PARTS);
    expect(read('word '.repeat(1_000)).at(-1)?.end).toBeLessThanOrEqual(LONGEST_QUERY);
  });
  test('every part can be taken out of the text again', () => {
    const text = '  "not responding"  sensor -spring since:3 March ';
    const parts = read(text);
    expect(parts).toHaveLength(4);
    for (const part of parts) {
      const rest = withoutPart(text, part);
      expect(said(rest)).toEqual(parts.filter((one) => one !== part).map(sayPart));
    }
  });
});
