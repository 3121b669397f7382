import { expect, test } from '@jest/globals';
import { autoTitle } from '../take/autoTitle';
import { describedAs, leavingDescription, leavingTitle } from './leaving';
import { untouched } from '../document/view';

const provenance = {
  source: 'display' as const,
  takenAt: '2026-11-23T14:02:11Z',
  windowTitle: 'Order 471147, Seed exchange',
};

test('names made by themselves tell apart: what was taken, its number of the day, where from', () => {
  expect(autoTitle('region', 4, 'Plant register')).toBe('Region 4, Plant register');
  expect(autoTitle('full', 1, '')).toBe('Screen 1');
  expect(autoTitle('full', 2, 'Beds', 'web')).toBe('Page 2, Beds');
  expect(autoTitle('part', 2, 'Beds', 'web')).toBe('Part 2, Beds');
  expect(autoTitle('window', 12, 'x'.repeat(400))).toHaveLength(300);
});

test('what a window is called stays here, unless a person gave or confirmed the name', () => {
  const made = autoTitle('window', 3, provenance.windowTitle);
  expect(leavingTitle({ title: made, titleOwn: false, provenance })).toBe('Window 3');
  expect(leavingTitle({ title: made, titleOwn: true, provenance })).toBe(made);
  const earlier = { title: provenance.windowTitle, titleOwn: false, provenance };
  expect(leavingTitle(earlier)).toBe('Picture');
  const long = { ...provenance, windowTitle: 'w'.repeat(400) };
  const cut = autoTitle('region', 5, long.windowTitle);
  expect(leavingTitle({ title: cut, titleOwn: false, provenance: long })).toBe('Region 5');
});

test('a name that has nothing of the window leaves as it is', () => {
  expect(leavingTitle({ title: 'Frost damage', titleOwn: false, provenance })).toBe('Frost damage');
});

test('what a program told of a part stays here too, in name and description, until it is confirmed', () => {
  const part = 'row “wren@fernhollow.example”';
  const from = { ...provenance, part };
  const title = autoTitle('part', 2, part);
  expect(leavingTitle({ title, titleOwn: false, provenance: from })).toBe('Part 2');
  const made = { ...untouched({ width: 9, height: 9 }), description: describedAs(part) };
  const shot = { titleOwn: false, provenance: from, document: made };
  expect(made.description).toBe('Row “wren@fernhollow.example”');
  expect(leavingDescription(shot)).toBeUndefined();
  expect(leavingDescription({ ...shot, titleOwn: true })).toBe(made.description);
  const written = { ...made, description: 'Who orders seeds' };
  expect(leavingDescription({ ...shot, document: written })).toBe('Who orders seeds');
});
