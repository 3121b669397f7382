import { z } from 'zod';
import { seenShape } from '../base';
import { rectShape, turnedShape, wordsShape } from '../shared/shapes';

export const boxSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('box'),
  ...rectShape,
  ...wordsShape,
  ...turnedShape,
  corner: z.number().min(0).max(500).default(0),
});
export type BoxMark = z.infer<typeof boxSchema>;
