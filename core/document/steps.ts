import { z } from 'zod';
import { limits } from '../values/limits';
import { line } from '../values/text';

/** One change in a document tree, as immer describes it (the JSON Patch operations it uses). */
export const patchSchema = z.strictObject({
  op: z.enum(['replace', 'remove', 'add']),
  path: z.array(z.union([z.string().max(100), z.int().min(0)])).max(20),
  value: z.json().optional(),
});

/** One step of undo: how to do it again and how to take it back. */
export const stepSchema = z.strictObject({
  label: line(limits.nameLength),
  patches: z.array(patchSchema).max(20_000),
  inverse: z.array(patchSchema).max(20_000),
});
export type Step = z.infer<typeof stepSchema>;
