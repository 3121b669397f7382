import { z } from 'zod';
import { seenShape } from '@/core/marks/base';
import { rectShape } from '@/core/marks/shared/shapes';
import { colour } from '@/core/values/shapes';

const { x, y, width, height } = rectShape;

export const wedgeSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('wedge'),
  ...{ x, y, width, height },
  colour,
});
export type WedgeMark = z.infer<typeof wedgeSchema>;
