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

test('more than fits ends it at once', () => {
  expect(new Turns().saw('full', at(0))).toBe('end');
});

const pieces = (count: number, shift = 100): Progress => ({
  ...at(shift),
  pieces: Array.from({ length: count }, () => ({ frames: 1, size: { width: 900, height: 400 } })),
});

test('over a gap it goes back until it is closed, and then on', () => {
  const turns = new Turns();
  turns.next(null);
  turns.saw('joined', at(45));
  expect(turns.saw('same', at(45))).toEqual({ clicks: 4 });
  expect(turns.saw('apart', pieces(2))).toEqual({ clicks: -2 });
  turns.saw('joined', pieces(2));
  expect(turns.saw('same', pieces(2))).toEqual({ clicks: -1 });
  turns.saw('joined', pieces(1));
  expect(turns.saw('same', pieces(1))).toEqual({ clicks: 1 });
});

test('a gap that cannot be closed is the end', () => {
  const turns = new Turns();
  turns.next(null);
  const back = Array.from({ length: 5 }, (_, i) => turns.saw('apart', pieces(2 + i)));
  expect(back).toEqual([...Array.from({ length: 4 }, () => ({ clicks: -1 })), 'end']);
});

/** Scrolls something of that length in a window of 400, which after two turns sleeps for `late` looks and then does all that was asked of it. */
function scrolledLate(late: number, pixelsOfClick: number, length = 3000) {
  const turns = new Turns();
  let asked = turns.next(null);
  let [top, seen, farthest, asleep, done] = [0, 0, 0, 0, 0];
  for (let look = 0; look < 2_000; look += 1) {
    if (asked !== 0 && asleep === 0) {
      top = Math.max(0, Math.min(length - 400, top + asked * pixelsOfClick));
      done += 1;
      [asked, asleep] = [0, done < 2 ? 0 : late];
    } else if (asked !== 0) asleep -= 1;
    const shift = top - seen;
    seen = top;
    farthest = Math.max(farthest, Math.abs(shift));
    const next = turns.saw(shift === 0 ? 'same' : 'joined', at(shift));
    if (next === 'end') break;
    if (next !== 'wait') asked += next.clicks;
  }
  return { top, farthest };
}

test.each([0, 1, 2, 3, 4, 5])(
  'a program that sleeps for %i looks comes to its end, and never farther at once than holds together',
  (late) => {
    for (const pixelsOfClick of [15, 50, 89, 120]) {
      const { top, farthest } = scrolledLate(late, pixelsOfClick);
      expect(top).toBe(2600);
      expect(farthest).toBeLessThanOrEqual(0.7 * 400);
    }
  },
);
