import { z } from 'zod';
import { limits } from '../values/limits';
import { line } from '../values/text';
import { queryText } from './search';

/** What of an archive was new, was here already, or is kept beside another one that is here. */
const countsSchema = z.object({ added: z.int(), here: z.int(), beside: z.int() });
export type Counts = z.infer<typeof countsSchema>;

export const broughtKinds = [
  'shots',
  'guides',
  'tags',
  'looks',
  'searches',
  'folders',
  'remotes',
  'routines',
] as const;
export type BroughtKind = (typeof broughtKinds)[number];

export const reportSchema = z.object({
  /** Written out: how many shots and guides. */
  shots: z.int().optional(),
  guides: z.int().optional(),
  /** Brought in. */
  brought: z.partialRecord(z.enum(broughtKinds), countsSchema).optional(),
  /** Conflicts and what was done about them, in words; not more than some hundred. */
  told: z.array(z.string()),
  /** Entries that were left out, with the reason. */
  damaged: z.array(z.object({ entry: z.string(), why: z.string() })),
  /** How many more there were of both. */
  more: z.int(),
});
export type Report = z.infer<typeof reportSchema>;

export const archiveSchema = z.object({
  id: z.uuid(),
  direction: z.enum(['out', 'in']),
  path: z.string(),
  query: z.string(),
  planned: z.boolean(),
  bytes: z.number().nullable(),
  state: z.enum(['waiting', 'going on', 'stopped', 'done', 'handed out']),
  /** What stood in the way. */
  problem: z.string().nullable(),
  /** Of the entries, while it goes on. */
  progress: z.object({ done: z.int(), all: z.int() }).nullable(),
  report: reportSchema.nullable(),
  beganAt: z.iso.datetime(),
  endedAt: z.iso.datetime().nullable(),
});
export type Archive = z.infer<typeof archiveSchema>;

export const everyNames = ['day', 'week', 'month'] as const;
export const planSchema = z.object({
  folderId: z.uuid(),
  every: z.enum(everyNames),
  /** So many of those it wrote are left; null leaves all. */
  keep: z.int().min(1).max(1_000).nullable(),
});
export type Plan = z.infer<typeof planSchema>;

export const archivesSchema = z.object({
  /** The latest first. */
  archives: z.array(archiveSchema),
  plan: planSchema.nullable(),
});
export type Archives = z.infer<typeof archivesSchema>;

/** Writes an archive into a folder. */
export const archiveInputSchema = z.strictObject({
  folderId: z.uuid(),
  query: queryText.default(''),
});
export type ArchiveInput = z.input<typeof archiveInputSchema>;

/** What an archive that is handed out holds, and the name it is known by. */
export const archiveQuerySchema = z.strictObject({
  q: queryText.default(''),
  as: line(limits.pathLength).min(1).optional(),
});
export const planPatchSchema = z.strictObject({
  plan: z.strictObject(planSchema.shape).nullable(),
});
