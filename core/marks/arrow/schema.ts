import { z } from 'zod';
import { seenShape } from '../base';
import { bentShape } from '../shared/shapes';

export const arrowSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('arrow'),
  ...bentShape,
});
export type ArrowMark = z.infer<typeof arrowSchema>;
