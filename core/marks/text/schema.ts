import { z } from 'zod';
import { limits } from '../../values/limits';
import { colour, coordinate } from '../../values/shapes';
import { seenShape } from '../base';
import { turnedShape, wordsShape } from '../shared/shapes';

export const textSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('text'),
  /** Top left corner of the words; the plate reaches beyond it by the padding. */
  x: coordinate,
  y: coordinate,
  /** Lines wrap at this width. */
  width: z.number().min(8).max(limits.coordinate),
  ...wordsShape,
  colour,
  plate: colour.nullable().default(null),
  /** Between words and the edge of the plate, in ems. */
  padding: z.number().min(0).max(3).default(0.4),
  ...turnedShape,
});
export type TextMark = z.infer<typeof textSchema>;
