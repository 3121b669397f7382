import { z } from 'zod';
import { colour, coordinate, extent, pointSchema } from '../../values/shapes';
import { baseShape } from '../base';
import { holes } from '../names';

export const closeUpSchema = z.strictObject({
  ...baseShape,
  kind: z.literal('closeUp'),
  /** What is enlarged. */
  source: z.strictObject({ x: coordinate, y: coordinate, width: extent, height: extent }),
  /** Middle of where it is shown. */
  at: pointSchema,
  zoom: z.number().min(1.5).max(8),
  hole: z.enum(holes).default('oval'),
  sharp: z.boolean().default(false),
  colour,
  /** Thickness of ring and leader line. */
  outline: z.number().min(0).max(60).default(4),
});
export type CloseUpMark = z.infer<typeof closeUpSchema>;
