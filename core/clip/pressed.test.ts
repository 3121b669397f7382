import { describe, expect, test } from '@jest/globals';
import { clicksSeen, keysSeen, keyWords, type Pressed } from './pressed';

const none = { ctrl: false, alt: false, shift: false, meta: false };
const RATE = 10;
/** Ten pictures a second for ten seconds. */
const times = Array.from({ length: 100 }, (_, i) => i / RATE);

describe('a key in words', () => {
  test.each([
    [{ ...none, key: 'a' }, 'a'],
    [{ ...none, shift: true, key: 'Ä' }, 'Ä'],
    [{ ...none, ctrl: true, key: 's' }, 'Ctrl+S'],
    [{ ...none, ctrl: true, shift: true, key: 'S' }, 'Ctrl+Shift+S'],
    [{ ...none, shift: true, key: 'Tab' }, 'Shift+Tab'],
    [{ ...none, alt: true, key: ' ' }, 'Alt+Space'],
    [{ ...none, key: ' ' }, ' '],
    [{ ...none, meta: true, key: 'ArrowLeft' }, 'Super+←'],
    [{ ...none, key: 'F12' }, 'F12'],
    [{ ...none, shift: true, key: 'Shift' }, null],
    [{ ...none, key: 'AudioVolumeUp' }, null],
    [{ ...none, key: '🌱' }, '🌱'],
  ])('%j is %p', (name, words) => expect(keyWords(name)).toBe(words));
});

const keys = (text: string, from: number, apart: number): Pressed[] =>
  [...text].map((key, i) => ({ at: from + i * apart, key }));

describe('what is seen', () => {
  test('a click for a while from the picture on which it was made', () => {
    const clicks = [
      { at: 1.04, x: 3, y: 4 },
      { at: 9.85, x: 5, y: 6 },
    ];
    expect(clicksSeen([...clicks, { at: 2, key: 'a' }], times)).toEqual([
      { ...clicks[0], time: { from: 10, to: 17 } },
      // The film ends before.
      { ...clicks[1], time: { from: 98, to: 100 } },
    ]);
  });

  test('a word once it is typed, and with it the next ones', () => {
    const pressed = [...keys('beans', 1, 0.1), { at: 1.5, key: ' ' }, ...keys('12', 1.6, 0.1)];
    expect(keysSeen(pressed, times)).toEqual([
      { text: 'beans', time: { from: 14, to: 17 } },
      { text: 'beans 12', time: { from: 17, to: 33 } },
    ]);
  });

  test('a pause begins anew; a named key stands for itself, and how often', () => {
    const pressed = [
      ...keys('ab', 0, 0.1),
      ...keys('c', 2, 0),
      { at: 2.2, key: 'Backspace' },
      { at: 2.4, key: 'Backspace' },
      { at: 2.6, key: 'Backspace' },
      { at: 2.8, key: 'd' },
    ];
    expect(keysSeen(pressed, times)).toEqual([
      { text: 'ab', time: { from: 1, to: 17 } },
      { text: 'c', time: { from: 20, to: 26 } },
      { text: 'c Backspace × 3', time: { from: 26, to: 28 } },
      { text: 'c Backspace × 3 d', time: { from: 28, to: 44 } },
    ]);
  });

  test('of two on one picture the later one is seen, and clicks between letters part nothing', () => {
    const both = [
      { at: 1.01, key: 'Ctrl+C' },
      { at: 1.06, key: 'Ctrl+V' },
    ];
    expect(keysSeen(both, times)).toEqual([{ text: 'Ctrl+C Ctrl+V', time: { from: 10, to: 26 } }]);
    const clicked = [
      { at: 1, key: 'a' },
      { at: 1.1, x: 0, y: 0 },
      { at: 1.2, key: 'b' },
    ];
    expect(keysSeen(clicked, times).map(({ text }) => text)).toEqual(['ab']);
  });

  test('a word of eight thousand letters is shown in parts; no picture, or a press behind the last', () => {
    const long = keysSeen(keys('x'.repeat(8_000), 0, 0.001), times);
    expect(Math.max(...long.map(({ text }) => text.length))).toBe(40);
    expect(long.every(({ time }) => time.from < time.to)).toBe(true);
    expect(clicksSeen([{ at: 5, x: 1, y: 1 }], [0])).toMatchObject([{ time: { from: 0, to: 1 } }]);
    expect(keysSeen([{ at: 500, key: 'a' }], times)).toEqual([
      { text: 'a', time: { from: 99, to: 100 } },
    ]);
  });
});
