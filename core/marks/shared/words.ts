import type { Rect } from '../../geometry/rect';
import type { FontStyle } from '../../drawing/shaper';
import type { Surface } from '../../drawing/surface';
import { fillText, layoutText, type TextBlock } from '../../drawing/textLayout';
import type { MarkTools } from '../contract';
import type { Words } from './wordsField';

export const wordSettings = ['textSize', 'bold', 'face', 'align', 'lineSpacing'] as const;

export const fontOf = ({ face, bold, textSize }: Omit<Words, 'text'>): FontStyle => ({
  face,
  weight: bold ? 700 : 400,
  size: textSize,
});

export const layoutWords = (
  words: Words,
  { shaper }: MarkTools,
  width: number,
  within?: number,
): TextBlock =>
  layoutText(shaper, words.text, fontOf(words), width, {
    align: words.align,
    lineSpacing: words.lineSpacing,
    ...(within !== undefined && { within }),
  });

/** Paints words into a rectangle, in the middle of its height. */
export function paintWordsIn(
  surface: Surface,
  words: Words,
  r: Rect,
  colour: string,
  tools: MarkTools,
): void {
  if (words.text === '' || r.width <= 0) return;
  const block = layoutWords(words, tools, r.width, r.width);
  fillText(surface, block, r.x, r.y + (r.height - block.height) / 2, colour);
}

/** The size of letters that grow with their mark. */
export const sizedWords = (size: number, by: number): number =>
  Math.min(400, Math.max(6, Math.round(size * by * 10) / 10));

export const shortened = (text: string): string => text.replace(/\s+/g, ' ').trim().slice(0, 40);
