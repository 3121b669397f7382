import { z } from 'zod';
import { aligns, faces } from '../../drawing/names';
import { layoutText, type TextBlock } from '../../drawing/textLayout';
import type { Shaper } from '../../drawing/shaper';
import { limits } from '../../values/limits';
import { colour } from '../../values/shapes';
import { text } from '../../values/text';
import type { Part } from './contract';

const schema = z.strictObject({
  /** Words and fields in braces. */
  text: text(limits.captionLength),
  /** What {n} writes. */
  number: z.int().min(0).max(999_999).optional(),
  at: z.enum(['below', 'above']),
  face: z.enum(faces),
  bold: z.boolean(),
  align: z.enum(aligns),
  size: z.int().min(8).max(400),
  colour,
  /** What it stands on; null lets the background through. */
  plate: colour.nullable(),
});
export type Caption = z.infer<typeof schema>;

export const caption: Part<typeof schema> = {
  label: 'Caption',
  schema,
  first: {
    ...{ text: '{title}', at: 'below', face: 'plain', bold: false, align: 'start', size: 24 },
    ...{ colour: '#15302A', plate: '#FFFFFF' },
  },
};

/** Around the words, in ems. */
const PADDING = 0.6;
/** A caption under a narrow picture is at least so wide, in ems. */
const LEAST_WIDTH = 12;

export interface CaptionBlock {
  words: TextBlock;
  padding: number;
  width: number;
  height: number;
}

/** A caption set into lines, as wide as what it belongs to; null where it says nothing. */
export function captionBlock(
  { text: words, face, bold, align, size }: Caption,
  over: number,
  shaper: Shaper,
): CaptionBlock | null {
  if (words.trim() === '') return null;
  const width = Math.ceil(Math.max(over, LEAST_WIDTH * size));
  const padding = Math.round(PADDING * size);
  const within = width - 2 * padding;
  const style = { face, weight: bold ? 700 : 400, size } as const;
  const block = layoutText(shaper, words, style, within, { align, within });
  return { words: block, padding, width, height: Math.ceil(block.height) + 2 * padding };
}
