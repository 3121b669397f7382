import { expect, test } from '@jest/globals';
import type { Progress } from './longPage';
import { Turns } from './turns';

const at = (shift: number, axis: Progress['axis'] = 'down'): Progress => ({
  axis,
  shift,
  part: { x: 0, y: 0, width: 900, height: 400 },
  pieces: [],
});

test('the first turn is one click; the next as far as a click was seen to go', () => {
  const turns = new Turns();
  expect(turns.next(null)).toBe(1);
  expect(turns.saw('joined', at(50))).toBe('wait');
  // 45 % of 400 pixels, at 50 a click.
  expect(turns.saw('same', at(50))).toEqual({ clicks: 3 });
});

test('across it is the width that counts, and up as well as down', () => {
  const turns = new Turns();
  turns.next(null);
  turns.saw('joined', at(-50, 'across'));
  expect(turns.saw('same', at(-50, 'across'))).toEqual({ clicks: 8 });
});

test('what glides is waited for until it rests: all of its way is that of the turn', () => {
  const turns = new Turns();
  turns.next(null);
  for (const added of ['joined', 'unclear', 'joined'] as const)
    expect(turns.saw(added, at(30))).toBe('wait');
  expect(turns.saw('same', at(30))).toEqual({ clicks: 3 });
});

test('where nothing moves it is asked once more, and then it is the end', () => {
  const turns = new Turns();
  turns.next(null);
  const seen = Array.from({ length: 7 }, () => turns.saw('same', at(0)));
  expect(seen).toEqual(['wait', 'wait', { clicks: 1 }, 'wait', 'wait', 'wait', 'end']);
});

test('a gap, and more than fits, end it at once', () => {
  expect(new Turns().saw('apart', at(0))).toBe('end');
  expect(new Turns().saw('full', at(0))).toBe('end');
});
