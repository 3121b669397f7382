import { z } from 'zod';
import { limits } from '../../values/limits';
import { colour, pointSchema } from '../../values/shapes';
import { line } from '../../values/text';
import { seenShape } from '../base';
import { countings } from '../names';

export const numberSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('number'),
  at: pointSchema,
  /** What it points to by a line; null for none. */
  target: pointSchema.nullable().default(null),
  /** Its place in the count; kept in order by `countedOn`. */
  value: z.int().min(0).max(99_999),
  /** Where the count of this shot begins, the same on all of its numbers. */
  first: z.int().min(0).max(9_999).default(1),
  counting: z.enum(countings).default('numbers'),
  colour,
  rim: colour.nullable().default('#FFFFFF'),
  /** Diameter of the disc, pixels. */
  size: z.number().min(10).max(400).default(36),
  caption: line(limits.nameLength).default(''),
});
export type NumberMark = z.infer<typeof numberSchema>;
