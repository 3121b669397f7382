import type { Paragraph, Word } from '@/core/recognition/words';

const NUMBERS = 4;
/** Of a word whose box was lost. */
const nowhere = { x: 0, y: 0, width: 0, height: 0 };
const MOST = 65_535;

export interface PackedWords {
  /** Words parted by blanks, lines by line feeds, paragraphs by empty lines. */
  lines: string;
  /** x, y, width and height of each word, two bytes each, the lower one first. */
  boxes: Buffer;
}

const bounded = (n: number): number => Math.max(0, Math.min(MOST, Math.round(n)));

/** Words of a picture as they are stored. A word holds no white space. */
export function packWords(paragraphs: readonly Paragraph[]): PackedWords {
  const cleaned = paragraphs
    .map((lines) =>
      lines
        .map((line) =>
          line
            .map(({ text, box }) => ({ box, text: text.replace(/[\s\0]+/g, '').toWellFormed() }))
            .filter(({ text }) => text !== ''),
        )
        .filter((line) => line.length > 0),
    )
    .filter((lines) => lines.length > 0);
  const words = cleaned.flat(2);
  const boxes = Buffer.alloc(words.length * NUMBERS * 2);
  words.forEach(({ box }, i) => {
    [box.x, box.y, box.width, box.height].forEach((n, j) =>
      boxes.writeUInt16LE(bounded(n), (i * NUMBERS + j) * 2),
    );
  });
  const lines = cleaned
    .map((paragraph) => paragraph.map((line) => line.map((w) => w.text).join(' ')).join('\n'))
    .join('\n\n');
  return { lines, boxes };
}

/** Stored words as they stand in the picture, in paragraphs of lines. */
export function unpackParagraphs(lines: string | null, boxes: Buffer | null): Paragraph[] {
  if (!lines || !boxes) return [];
  let at = 0;
  const word = (text: string): Word => {
    const offset = at * NUMBERS * 2;
    at += 1;
    if (offset + NUMBERS * 2 > boxes.length) return { text, box: nowhere };
    const box = {
      x: boxes.readUInt16LE(offset),
      y: boxes.readUInt16LE(offset + 2),
      width: boxes.readUInt16LE(offset + 4),
      height: boxes.readUInt16LE(offset + 6),
    };
    return { text, box };
  };
  return lines
    .split('\n\n')
    .map((paragraph) => paragraph.split('\n').map((line) => line.split(' ').map(word)));
}

export const unpackWords = (lines: string | null, boxes: Buffer | null): Word[] =>
  unpackParagraphs(lines, boxes).flat(2);
