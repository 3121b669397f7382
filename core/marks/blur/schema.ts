import { z } from 'zod';
import { hideShape } from '../shared/shapes';

export const blurSchema = z.strictObject({
  ...hideShape,
  kind: z.literal('blur'),
  strength: z.number().min(2).max(60).default(10),
});
export type BlurMark = z.infer<typeof blurSchema>;
