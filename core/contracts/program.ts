import { z } from 'zod';

export const programsSchema = z.object({
  /** Where the list stands, for whoever wants to add to it. */
  file: z.string(),
  problem: z.string().nullable(),
  programs: z.array(z.object({ name: z.string(), opensFolder: z.boolean() })),
});
export type Programs = z.infer<typeof programsSchema>;
export const openInputSchema = z.strictObject({ program: z.string().max(100) });
