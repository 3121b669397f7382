import { expect, test } from '@jest/globals';
import { partWords } from './partWords';

test('a part is called by a plain word and its name', () => {
  expect(partWords('push button', 'Save')).toBe('button “Save”');
  expect(partWords('page tab', 'Beds')).toBe('tab “Beds”');
  expect(partWords('slider', '')).toBe('slider');
  expect(partWords('', 'Save')).toBe('part “Save”');
  expect(partWords('x'.repeat(8_000), 'Save')).toBe('part “Save”');
  expect(partWords('row\n', '')).toBe('part');
});

test('what only holds others, and names made up of code, are not told', () => {
  expect(partWords('filler', 'Row')).toBeNull();
  expect(partWords('panel', '')).toBeNull();
  expect(partWords('panel', 'Watering')).toBe('panel “Watering”');
  expect(partWords('button', 'GtkToggleButton')).toBe('button');
  expect(partWords('list', 'GtkListView')).toBe('list');
});

test('a name is one line without control characters, and short', () => {
  expect(partWords('label', 'North\n bank\u0007')).toBe('label “North bank”');
  const long = partWords('label', '🌿'.repeat(200)) ?? '';
  expect([...long]).toHaveLength('label “”'.length + 60);
  expect(long.endsWith('…”')).toBe(true);
});
