import { z } from 'zod';
import { readAs } from './read';
import { upgradedStep } from './upgrade/upgrade';
import { DOCUMENT_VERSION } from './version';
import { limits } from '../values/limits';
import { line } from '../values/text';

/** One change in a document tree, as immer describes it (the JSON Patch operations it uses). */
export const patchSchema = z.strictObject({
  op: z.enum(['replace', 'remove', 'add']),
  path: z.array(z.union([z.string().max(100), z.int().min(0)])).max(20),
  value: z.json().optional(),
});

export const patchesSchema = z.array(patchSchema).max(20_000);

/** One step of undo: how to do it again and how to take it back. Older ones are read as this version. */
export const stepSchema = z.preprocess(
  readAs('step', upgradedStep),
  z.strictObject({
    /** Of the documents it leads from and to. */
    version: z.literal(DOCUMENT_VERSION),
    label: line(limits.nameLength),
    patches: patchesSchema,
    inverse: patchesSchema,
  }),
);
export type Step = z.infer<typeof stepSchema>;
