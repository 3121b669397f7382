import { expect, test } from '@jest/globals';
import { keyFromEvent, takesItself, type Focused } from './press';

const press = (
  key: string,
  held: Partial<Record<'ctrlKey' | 'altKey' | 'shiftKey', boolean>> = {},
  code = '',
) =>
  keyFromEvent({
    key,
    code,
    ctrlKey: false,
    metaKey: false,
    altKey: false,
    shiftKey: false,
    ...held,
  });

test('pressed keys are written down one way', () => {
  expect(press('A')).toBe('a');
  expect(press('T', { shiftKey: true })).toBe('shift+t');
  expect(press('?', { shiftKey: true })).toBe('?');
  expect(press('F5', { ctrlKey: true, shiftKey: true })).toBe('mod+shift+f5');
  expect(press(' ')).toBe('space');
  expect(press('+', { ctrlKey: true })).toBe('mod++');
  expect(press('Shift', { shiftKey: true })).toBeNull();
});

test('a script without a to z keeps the tools where they lie; a sign of Latin stays itself', () => {
  expect(press('ф', {}, 'KeyA')).toBe('a');
  expect(press('Ф', { shiftKey: true }, 'KeyA')).toBe('shift+a');
  expect(press('é', {}, 'Digit2')).toBe('é');
  expect(press('ü', {}, 'BracketLeft')).toBe('ü');
});

const keys = {
  letter: 'a',
  undo: 'mod+z',
  keep: 'mod+enter',
  duplicate: 'mod+d',
  copy: 'mod+c',
  enter: 'enter',
  escape: 'escape',
  arrow: 'arrowleft',
  down: 'arrowdown',
  delete: 'delete',
  question: '?',
  space: 'space',
  function: 'f5',
} as const;

/** What each control takes itself after a click; then what it takes more when reached by keyboard. */
const typed = 'letter undo copy enter escape arrow down delete question space';
const taken: Record<Focused, [string, string]> = {
  text: [typed, ''],
  line: [typed, ''],
  list: ['arrow down space', 'enter'],
  slider: ['arrow down', ''],
  radio: ['', 'arrow down space'],
  row: ['down', 'enter space'],
  control: ['', 'enter arrow down space'],
  none: ['', ''],
};

test.each(Object.entries(taken))(
  '%s: takes its own keys and leaves the others to the view',
  (kind, [clicked, more]) => {
    const takes = (moved: boolean) =>
      Object.entries(keys)
        .filter(([, key]) => takesItself(kind as Focused, key, moved))
        .map(([name]) => name)
        .sort();
    const names = (list: string) => list.split(' ').filter(Boolean);
    expect(takes(false)).toEqual(names(clicked).sort());
    expect(takes(true)).toEqual([...names(clicked), ...names(more)].sort());
  },
);
