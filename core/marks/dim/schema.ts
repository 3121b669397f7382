import { z } from 'zod';
import { coordinate, extent } from '../../values/shapes';
import { baseShape } from '../base';
import { holes } from '../names';

const holeSchema = z.strictObject({
  x: coordinate,
  y: coordinate,
  width: extent,
  height: extent,
  hole: z.enum(holes),
});
export type HoleRect = z.infer<typeof holeSchema>;

export const dimSchema = z.strictObject({
  ...baseShape,
  kind: z.literal('dim'),
  /** What stays bright. */
  bright: z.array(holeSchema).min(1).max(50),
  /** 0–1: how dark the rest becomes. */
  dimming: z.number().min(0.1).max(0.95),
  softness: z.number().min(0).max(60).default(0),
});
export type DimMark = z.infer<typeof dimSchema>;
