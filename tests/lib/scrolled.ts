import type { Frame } from '@/core/stitch/frame';
import { randomFrom } from '@/core/random/random';

export const WHITE = -1;
export const ink = (colour: number): number => 0xff000000 | colour;

export function blank(width: number, height: number, word = WHITE): Frame {
  return { words: new Int32Array(width * height).fill(word), width, height };
}

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

export function fill(frame: Frame, { x, y, width, height }: Box, word: number): void {
  for (let v = Math.max(0, y); v < Math.min(y + height, frame.height); v += 1)
    frame.words.fill(word, v * frame.width + x, v * frame.width + x + width);
}

/** Something like a line of words, another one for each seed. */
export function writing(frame: Frame, { x, y, width, height }: Box, seed: number): void {
  const next = randomFrom(seed);
  for (let at = x; at < x + width - 4; at += 4 + Math.floor(next() * 9))
    fill(
      frame,
      { x: at, y: y + 2, width: 3, height: 3 + Math.floor(next() * (height - 8)) },
      ink(next() * 0x7f7f7f),
    );
}

export const LINE = 20;

/** A long page of lines of words. */
export function longPage(width: number, height: number, seed = 5): Frame {
  const page = blank(width, height);
  for (let y = 0; y + LINE <= height; y += LINE)
    writing(page, { x: 24, y, width: width - 60, height: LINE }, seed + y);
  return page;
}

/** Which of the seven strokes each digit has: three lying from the top, four standing by pairs. */
const STROKES = ['1011111', '0000101', '1110110', '1110101', '0101101', '1111001', '1111011'];
STROKES.push('1000101', '1111111', '1111101');
const PLACES: readonly Box[] = [
  ...[0, 5, 10].map((y) => ({ x: 0, y, width: 6, height: 1 })),
  ...[0, 5].flatMap((y) => [
    { x: 0, y, width: 1, height: 6 },
    { x: 5, y, width: 1, height: 6 },
  ]),
];

/** A number as a display of seven strokes shows it: others share many of its strokes. */
function number(frame: Frame, at: { x: number; y: number }, value: number): void {
  [...String(value)].forEach((digit, i) => {
    const strokes = STROKES[Number(digit)] ?? '';
    // The strokes are listed lying, then standing: top left, top right, bottom left, bottom right.
    PLACES.forEach(({ x, y, width, height }, stroke) => {
      if (strokes[stroke] !== '1') return;
      fill(frame, { x: at.x + 9 * i + x, y: at.y + y, width, height }, ink(0x202020));
    });
  });
}

/** A list of lines that are alike but for their numbers. */
export function numberedList(width: number, lines: number): Frame {
  const page = blank(width, lines * LINE);
  for (let i = 0; i < lines; i += 1) {
    const y = i * LINE;
    writing(page, { x: 4, y, width: 30, height: LINE }, 3);
    number(page, { x: 40, y: y + 4 }, 2000 + i * 7);
    writing(page, { x: 90, y, width: 40, height: LINE }, 9);
    number(page, { x: 136, y: y + 4 }, (i * i) % 97);
  }
  return page;
}

export function put(into: Frame, from: Frame, at: { x: number; y: number }, part: Box): void {
  for (let v = 0; v < part.height; v += 1) {
    const row = (part.y + v) * from.width + part.x;
    into.words.set(from.words.subarray(row, row + part.width), (at.y + v) * into.width + at.x);
  }
}

export const WIDTH = 480;
export const HEIGHT = 400;

/** What is seen of a page at a place of it. */
export function seen(page: Frame, y: number, height = HEIGHT): Frame {
  const frame = blank(page.width, height);
  put(frame, page, { x: 0, y: 0 }, { x: 0, y, width: page.width, height });
  return frame;
}

/** How many pixels differ; pictures of other sizes differ in all. */
export function different(a: Frame, b: Frame): number {
  if (a.width !== b.width || a.height !== b.height) return -1;
  return a.words.reduce((count, word, at) => count + (word === b.words[at] ? 0 : 1), 0);
}

export const steps = (to: number, by: number): number[] =>
  Array.from({ length: Math.floor(to / by) + 1 }, (_, i) => i * by);
