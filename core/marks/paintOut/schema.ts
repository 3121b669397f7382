import { z } from 'zod';
import { colour } from '../../values/shapes';
import { hideShape } from '../shared/shapes';

export const paintOutSchema = z.strictObject({
  ...hideShape,
  kind: z.literal('paintOut'),
  paintOut: z.enum(['across', 'colour']).default('across'),
  colour,
});
export type PaintOutMark = z.infer<typeof paintOutSchema>;
