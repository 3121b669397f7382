import { z } from 'zod';

const rect = z.object({ x: z.int(), y: z.int(), width: z.int(), height: z.int() });

/** What of two shots is compared: with their marks, or untouched. */
export const compared = ['marked', 'untouched'] as const;
export type Compared = (typeof compared)[number];

export const comparisonSchema = z.object({
  /** Where the upper left corner of the second lies on the first, pixels. */
  shift: z.object({ x: z.int(), y: z.int() }),
  /** Where both are, in pixels of the first. */
  both: rect,
  /** How many pixels differ there, however little. */
  pixels: z.int(),
  /** Places that differ so that it can be seen, the largest first. */
  places: z.array(rect),
  first: z.object({ width: z.int(), height: z.int() }),
  second: z.object({ width: z.int(), height: z.int() }),
});
export type Comparison = z.infer<typeof comparisonSchema>;
