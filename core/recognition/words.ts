import { contains, centre, union, type Rect } from '../geometry/rect';

/** A word as it was recognised, where it stands in the picture. */
export interface Word {
  text: string;
  box: Rect;
}

/** Words that stand beside each other, from the first to the last. */
export type Line = readonly Word[];

/** Lines that belong together, from the top. */
export type Paragraph = readonly Line[];

/** The text of a line, and of every character of it the word it comes from. */
export interface LineText {
  text: string;
  /** By character: index of the word and of the character in it; spaces between belong to none. */
  from: readonly ({ word: number; at: number } | null)[];
}

/** Narrower gaps than this share of the height lie within one word, whatever was recognised. */
const WITHIN_WORD = 0.12;

/** Within long keys recognition leaves wider gaps than that, though narrower than between words. */
export const WITHIN_KEY = 0.36;

/** @param within gaps up to this share of the height are none */
export function lineText(line: Line, within = WITHIN_WORD): LineText {
  let text = '';
  const from: ({ word: number; at: number } | null)[] = [];
  line.forEach((word, i) => {
    const before = line[i - 1];
    if (before && gap(before.box, word.box) > within * word.box.height) {
      text += ' ';
      from.push(null);
    }
    for (let at = 0; at < word.text.length; at += 1) from.push({ word: i, at });
    text += word.text;
  });
  return { text, from };
}

const gap = (a: Rect, b: Rect): number => b.x - (a.x + a.width);

/**
 * Where some characters of a line stand: the boxes of their words, of a word that is only partly
 * meant the share of its width.
 * @param start first character
 * @param end after the last one
 */
export function boxOf(line: Line, { from }: LineText, start: number, end: number): Rect {
  const spans = new Map<number, { first: number; last: number }>();
  for (const place of from.slice(start, end)) {
    if (!place) continue;
    const span = spans.get(place.word);
    if (span) span.last = place.at;
    else spans.set(place.word, { first: place.at, last: place.at });
  }
  return union(
    [...spans].flatMap(([index, { first, last }]) => {
      const word = line[index];
      return word ? [partOf(word, first, last + 1)] : [];
    }),
  );
}

function partOf({ text, box }: Word, first: number, end: number): Rect {
  if (first === 0 && end === text.length) return box;
  const each = box.width / text.length;
  // A little more at a cut, since letters differ in width.
  const x = Math.max(box.x, box.x + first * each - (first > 0 ? each / 2 : 0));
  const far = Math.min(box.x + box.width, box.x + end * each + (end < text.length ? each / 2 : 0));
  return { x, y: box.y, width: far - x, height: box.height };
}

/** The words within a region in reading order: a line each, an empty line between paragraphs. */
export function wordsWithin(paragraphs: readonly Paragraph[], region: Rect): string {
  const inside = (line: Line): string =>
    line
      .filter((word) => contains(region, centre(word.box)))
      .map((word) => word.text)
      .join(' ');
  return paragraphs
    .map((lines) =>
      lines
        .map(inside)
        .filter((text) => text !== '')
        .join('\n'),
    )
    .filter((text) => text !== '')
    .join('\n\n');
}
