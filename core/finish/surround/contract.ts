import type { z } from 'zod';

/** One thing that can be around a picture; lengths are pixels of the picture. */
export interface Part<S extends z.ZodType> {
  label: string;
  schema: S;
  /** What it begins with. */
  first: z.output<S>;
}
