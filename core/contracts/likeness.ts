import { z } from 'zod';

/** One point of the size/likeness chart. */
export const likenessSchema = z.object({
  quality: z.number(),
  bytes: z.int(),
  /** Structural similarity at full resolution, 1 for the very same. */
  likeness: z.number(),
  /** What all but the worst fiftieth of places with something to see reach. */
  low: z.number(),
  /** Where it is least like the original; null where nothing differs. */
  worst: z
    .object({
      at: z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() }),
      likeness: z.number(),
    })
    .nullable(),
});
export type Likeness = z.infer<typeof likenessSchema>;

/** The smallest words of a picture at its own size. */
export const readableSchema = z.object({
  smallest: z
    .object({
      box: z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() }),
      /** Height of a small x, pixels. */
      xHeight: z.number(),
    })
    .nullable(),
});
export type SmallestWords = z.infer<typeof readableSchema>['smallest'];
