import { join } from 'node:path';
import type { Shaper } from '@/core/drawing/shaper';

const STYLE = { face: 'plain', weight: 400 } as const;

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
  const pieces = shaper.pieces(text, STYLE);
  pieces.forEach((piece, i) => {
    document.font(fontPath(piece.file));
    const more = { ...options, continued: i < pieces.length - 1 };
    if (i === 0) document.text(piece.text, x, y, more);
    else document.text(piece.text, more);
  });
}

/** About how high words are, written so wide; points. */
export function heightOfWords(
  document: PDFKit.PDFDocument,
  shaper: Shaper,
  text: string,
  width: number,
): number {
  const pieces = shaper.pieces(text, STYLE);
  const height = document.heightOfString(text, { width });
  // Other letters are wider or narrower than the missing ones of the first font.
  return pieces.length > 1 ? height * 1.3 : height;
}
