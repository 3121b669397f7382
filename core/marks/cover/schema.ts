import { z } from 'zod';
import { colour } from '../../values/shapes';
import { hideShape } from '../shared/shapes';

export const coverSchema = z.strictObject({
  ...hideShape,
  kind: z.literal('cover'),
  colour,
});
export type CoverMark = z.infer<typeof coverSchema>;
