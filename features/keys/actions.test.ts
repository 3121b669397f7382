import { expect, test } from '@jest/globals';
import { allActions, conflicts, keyOf } from './actions';

test('the first keys do not stand in each other’s way', () => {
  for (const { name, first } of allActions) expect(conflicts(name, first, {})).toEqual([]);
});

test('a key taken in the same place conflicts; in another view it does not', () => {
  expect(conflicts('take.part', '2', {}).map((a) => a.name)).toEqual(['take.window']);
  expect(conflicts('take.part', 'a', {})).toEqual([]);
  expect(conflicts('tool.arrow', '?', {}).map((a) => a.name)).toEqual(['keys.show']);
  expect(conflicts('take.part', '2', { 'take.window': '9' })).toEqual([]);
  expect(keyOf('take.window', { 'take.window': '9' })).toBe('9');
});
