import { expect, test } from '@jest/globals';
import { allActions, conflicts, keyFromEvent, keyOf } from './actions';

const press = (
  key: string,
  held: Partial<Record<'ctrlKey' | 'altKey' | 'shiftKey', boolean>> = {},
) => keyFromEvent({ key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held });

test('pressed keys are written down one way', () => {
  expect(press('A')).toBe('a');
  expect(press('T', { shiftKey: true })).toBe('shift+t');
  expect(press('?', { shiftKey: true })).toBe('?');
  expect(press('F5', { ctrlKey: true, shiftKey: true })).toBe('mod+shift+f5');
  expect(press(' ')).toBe('space');
  expect(press('Shift', { shiftKey: true })).toBeNull();
});

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
