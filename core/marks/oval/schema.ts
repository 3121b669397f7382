import { z } from 'zod';
import { seenShape } from '../base';
import { rectShape, turnedShape, wordsShape } from '../shared/shapes';

export const ovalSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('oval'),
  ...rectShape,
  ...wordsShape,
  ...turnedShape,
});
export type OvalMark = z.infer<typeof ovalSchema>;
