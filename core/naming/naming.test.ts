import { describe, expect, test } from '@jest/globals';
import sanitize from 'sanitize-filename';
import { civilTime, formatCivil } from './civilTime';
import { hasNumber, nameFrom, patternProblem, type NameFacts } from './pattern';
import { cutToBytes, MOST_NAME_BYTES, numbered, safeName, utf8Length } from './safeName';

const facts: NameFacts = {
  title: 'Seed order slip',
  window: 'Seed exchange – order',
  takenAt: '2026-11-23T14:02:11Z',
  timeZone: 'UTC',
  width: 1456,
  height: 810,
  number: 7,
};

// Source: RFC 3339; the zone rules are those of the IANA database that Node carries.
describe('dates', () => {
  test.each([
    ['2026-11-23T14:02:11Z', 'UTC', '2026-11-23 14:02:11'],
    ['2026-11-23T14:02:11+05:30', 'UTC', '2026-11-23 08:32:11'],
    ['2026-11-23T23:30:00-01:00', 'UTC', '2026-11-24 00:30:00'],
    // The hour that is skipped and the hour that comes twice in central Europe.
    ['2026-03-29T00:59:59Z', 'Europe/Berlin', '2026-03-29 01:59:59'],
    ['2026-03-29T01:00:00Z', 'Europe/Berlin', '2026-03-29 03:00:00'],
    ['2026-10-25T00:30:00Z', 'Europe/Berlin', '2026-10-25 02:30:00'],
    ['2026-10-25T01:30:00Z', 'Europe/Berlin', '2026-10-25 02:30:00'],
    ['2026-01-01T00:00:00Z', 'UTC', '2026-01-01 00:00:00'],
  ])('%s in %s is %s', (moment, zone, shown) => {
    expect(formatCivil(civilTime(moment, zone), 'yyyy-MM-dd HH:mm:ss')).toBe(shown);
  });

  test('what is no moment is refused', () => {
    expect(() => civilTime('yesterday', 'UTC')).toThrow(RangeError);
  });
});

describe('patterns', () => {
  test.each([
    ['{title} {date} {time}', 'Seed order slip 2026-11-23 14-02-11'],
    ['{title}-{n:3}', 'Seed order slip-007'],
    ['{date:dd.MM.yy} {time:HHmm} {size}', '23.11.26 1402 1456x810'],
    ['{width}by{height}', '1456by810'],
    ['{window}', 'Seed exchange – order'],
  ])('%s gives %s', (pattern, name) => {
    expect(nameFrom(pattern, facts)).toBe(name);
  });

  test('an empty field closes up', () => {
    expect(nameFrom('{window} {date}', { ...facts, window: '' })).toBe('2026-11-23');
  });

  test('a title cannot bring in fields or separators', () => {
    expect(nameFrom('{title}', { ...facts, title: '{n}/../../etc/passwd' })).toBe(
      '{n}-..-..-etc-passwd',
    );
  });

  test('faults are said', () => {
    expect(patternProblem('{titel}')).toContain('{titel}');
    expect(patternProblem('{title')).toContain('brace');
    expect(patternProblem('{n:12}')).toContain('digits');
    expect(patternProblem('  ')).toContain('empty');
    expect(patternProblem('{title} {n:3}')).toBeNull();
    expect(hasNumber('{title} {n:3}')).toBe(true);
    expect(hasNumber('{title}')).toBe(false);
  });
});

// Source: Microsoft, Naming Files, Paths, and Namespaces; POSIX NAME_MAX.
describe('names', () => {
  const devices = [
    'CON',
    'prn',
    'AUX',
    'nul',
    'COM1',
    'com9',
    'LPT1',
    'COM¹',
    'con.txt',
    'Aux.tar.gz',
  ];
  test.each(devices)('the device name %s is made safe', (name) => {
    const safe = safeName(name);
    expect(/^(con|prn|aux|nul|com[0-9¹²³]|lpt[0-9¹²³])(\.|$)/i.test(safe)).toBe(false);
    expect(safe.toLowerCase()).toContain(name.toLowerCase());
  });

  const bad = [
    'a/b',
    'a\\b',
    'a:b',
    'a*b?',
    '<>|"',
    '..',
    '.',
    '...',
    'trailing. ',
    ' .hidden',
    'new\nline',
    'nul\u0000',
    '\u202Egnp.exe',
    '',
    '   ',
    '🌱'.repeat(300),
    'x'.repeat(300),
    'שלום עולם',
    'a\ud800b',
  ];
  test.each(bad)('%j becomes a possible name', (name) => {
    const safe = safeName(name);
    expect(safe.length).toBeGreaterThan(0);
    // Source: sanitize-filename, an independent list of what no file system takes.
    expect(sanitize(safe)).toBe(safe);
    expect(utf8Length(`${safe}-99999.jpeg`)).toBeLessThanOrEqual(MOST_NAME_BYTES);
    expect(Buffer.byteLength(safe)).toBe(utf8Length(safe));
    expect(safe).not.toMatch(/[\u202a-\u202e\ud800-\udbff](?![\udc00-\udfff])/);
  });

  test('good names stay as they are', () => {
    for (const name of ['Seed order – slip', 'Łódź 12', 'שלום', 'v1.2 notes', '日本'])
      expect(safeName(name)).toBe(name);
  });

  test('are cut between characters', () => {
    expect(cutToBytes('aé🌱', 3)).toBe('aé');
    expect(cutToBytes('aé🌱', 6)).toBe('aé');
    expect(cutToBytes('aé🌱', 7)).toBe('aé🌱');
  });

  test('count on', () => {
    expect([1, 2, 3].map((n) => numbered('slip', n))).toEqual(['slip', 'slip-2', 'slip-3']);
  });
});
