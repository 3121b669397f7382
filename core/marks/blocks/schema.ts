import { z } from 'zod';
import { hideShape } from '../shared/shapes';

export const blocksSchema = z.strictObject({
  ...hideShape,
  kind: z.literal('blocks'),
  strength: z.number().min(2).max(60).default(12),
});
export type BlocksMark = z.infer<typeof blocksSchema>;
