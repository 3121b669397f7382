import { z } from 'zod';
import { colour, coordinate, extent, pointSchema } from '../../values/shapes';
import { seenShape } from '../base';
import { wordsShape } from '../shared/shapes';

export const calloutSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('callout'),
  x: coordinate,
  y: coordinate,
  width: extent,
  height: extent,
  /** Where the tail points; inside the body there is none. */
  tip: pointSchema,
  colour,
  outline: z.number().min(0).max(60),
  plate: colour.nullable().default('#FFFFFF'),
  corner: z.number().min(0).max(500).default(10),
  ...wordsShape,
});
export type CalloutMark = z.infer<typeof calloutSchema>;
