import { join } from 'node:path';
import type { Shaper } from '@/core/drawing/shaper';

type Style = Parameters<Shaper['pieces']>[1];
const STYLE: Style = { face: 'plain', weight: 400 };

const fontPath = (file: string): string => join(process.cwd(), 'public', 'fonts', file);

/** The font with which a document begins. */
export const firstFont = (shaper: Shaper): string =>
  fontPath(shaper.pieces('a', STYLE)[0]?.file ?? '');

/** Writes words, each letter with a font that has it. */
export function writeWords(
  document: PDFKit.PDFDocument,
  shaper: Shaper,
  { text, x, y }: { text: string; x: number; y: number },
  options: PDFKit.Mixins.TextOptions,
): void {
  runWords(document, shaper, [{ text, style: STYLE }], options, { x, y });
}

/** Words of one look. */
export interface WordRun {
  text: string;
  style?: Style | undefined;
  more?: PDFKit.Mixins.TextOptions;
}

/** Writes words of several looks one after the other, each letter with a font that has it. */
export function runWords(
  document: PDFKit.PDFDocument,
  shaper: Shaper,
  runs: readonly WordRun[],
  options: PDFKit.Mixins.TextOptions,
  at?: { x: number; y: number },
): void {
  const pieces = runs.flatMap(({ text, style = STYLE, more }) =>
    shaper.pieces(text, style).map((piece) => ({ ...piece, more })),
  );
  pieces.forEach(({ file, text, more }, i) => {
    document.font(fontPath(file));
    const all = { ...options, ...more, continued: i < pieces.length - 1 };
    if (i === 0 && at) document.text(text, at.x, at.y, all);
    else document.text(text, all);
  });
}

/** About how high words are, written so wide; points. */
export function heightOfWords(
  document: PDFKit.PDFDocument,
  shaper: Shaper,
  text: string,
  width: number,
  style = STYLE,
): number {
  const pieces = shaper.pieces(text, style);
  document.font(fontPath(pieces[0]?.file ?? ''));
  const height = document.heightOfString(text, { width });
  // Other letters are wider or narrower than the missing ones of the first font.
  return pieces.length > 1 ? height * 1.3 : height;
}
