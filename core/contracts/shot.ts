import { joinSchema } from './join';
import { z } from 'zod';
import { documentSchema } from '../document/document';
import { limits } from '../values/limits';
import { provenanceSchema } from './provenance';
import { helpSchema, reasonSchema } from './search';
import { stepSchema } from '../document/steps';
import { line } from '../values/text';

export const title = line(limits.titleLength);
export const revision = z.int().min(1);

export const storedSchema = z.object({
  id: z.uuid(),
  revision,
  width: z.int(),
  height: z.int(),
});
export type Stored = z.infer<typeof storedSchema>;

export const shotSchema = z.object({
  id: z.uuid(),
  title: z.string(),
  /** A person gave or confirmed the name. */
  titleOwn: z.boolean(),
  revision,
  document: documentSchema,
  provenance: provenanceSchema,
  width: z.int(),
  height: z.int(),
  binnedAt: z.iso.datetime().nullable(),
  /** It is a clip. */
  clip: z.literal(true).optional(),
  /** Of a clip, the number of the picture that stands for it. */
  cover: z.int().optional(),
});
export type Shot = z.infer<typeof shotSchema>;

/** The undo steps that go with a change of the document. */
export const stepsChangeSchema = z.strictObject({
  /** How many of the stored steps stay. */
  keep: z.int().min(0),
  added: z.array(stepSchema).max(10_000),
  /** How many of all steps are done. */
  position: z.int().min(0),
});

export const shotChangeSchema = z.strictObject({
  revision,
  document: documentSchema,
  title: title.optional(),
  steps: stepsChangeSchema.optional(),
});
export type ShotChange = z.infer<typeof shotChangeSchema>;

export const revisedSchema = z.object({ revision });
export const conflictSchema = z.object({
  error: z.object({ code: z.literal('stale'), message: z.string() }),
  current: shotSchema,
});

export const stepsSchema = z.object({ steps: z.array(stepSchema), position: z.int() });

export const duplicateSchema = z.strictObject({
  id: z.uuid().optional(),
  title: title.optional(),
  document: documentSchema.optional(),
  /** Not the same once more, but this one and others on one sheet. */
  join: joinSchema.optional(),
});

export const shotSummarySchema = z.object({
  id: z.uuid(),
  title: z.string(),
  revision,
  width: z.int(),
  height: z.int(),
  source: z.string(),
  takenAt: z.iso.datetime(),
  binnedAt: z.iso.datetime().nullable(),
  copies: z.int(),
  /** Names, in the order of the alphabet. */
  tags: z.array(z.string()),
  /** Of a clip: how long it plays, seconds, and the number of the picture that stands for it. */
  seconds: z.number().optional(),
  cover: z.int().optional(),
  /** Why it was found, where something was asked for. */
  found: reasonSchema.optional(),
});
export type ShotSummary = z.infer<typeof shotSummarySchema>;

export const shotPageSchema = z.object({
  shots: z.array(shotSummarySchema),
  /** Ask for the next page with this; null after the last. */
  next: z.string().nullable(),
  total: z.int(),
  /** How many were taken today, the binned ones too; the next one is one more. */
  today: z.int(),
});

/** What fits a query; how many these are is asked for apart. */
export const foundPageSchema = shotPageSchema.omit({ total: true }).extend({
  /** Words were found within other words: as they are, nobody has them. */
  inside: z.boolean().optional(),
  help: helpSchema.optional(),
});
export type FoundPage = z.infer<typeof foundPageSchema>;

export const errorSchema = z.object({ error: z.object({ code: z.string(), message: z.string() }) });

/** Dropping for good what a shot does not show. */
export const dropRestSchema = z.strictObject({
  /** The revision that was looked at. */
  revision: z.int().min(1),
  /** The shots that share the frame do the same. */
  others: z.boolean().default(false),
});
/** What else shows a shot, or will: asked for before its rest is dropped. */
export const besidesSchema = z.object({
  /** Other shots with the same frame. */
  sharing: z.int(),
  /** Paths of kept copies. */
  copies: z.array(z.string()),
  /** Remote folders that have it, with the names there. */
  sent: z.array(z.string()),
  /** Copies that wait to be sent. */
  waiting: z.int(),
  links: z.int(),
});
export type Besides = z.infer<typeof besidesSchema>;
