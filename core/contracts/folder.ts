import { z } from 'zod';
import { patternProblem } from '../naming/pattern';
import { limits } from './limits';
import { line } from './text';

export const formatNames = ['png', 'jpeg'] as const;
export type FormatName = (typeof formatNames)[number];

export const quality = z.int().min(1).max(100);

const pattern = line(limits.patternLength).superRefine((value, context) => {
  const problem = patternProblem(value);
  if (problem) context.addIssue({ code: 'custom', message: problem });
});

/** What a person sets of a folder. */
export const folderInputSchema = z.strictObject({
  name: line(limits.nameLength).trim().min(1, 'must not be empty'),
  path: line(limits.pathLength).min(1, 'must not be empty'),
  format: z.enum(formatNames).default('png'),
  quality: quality.default(85),
  pattern: pattern.default('{title} {date} {time}'),
  isDefault: z.boolean().default(false),
  /** Make the folder when it is not there yet. */
  make: z.boolean().default(false),
});
export type FolderInput = z.input<typeof folderInputSchema>;

export const folderPatchSchema = z.strictObject({
  name: line(limits.nameLength).trim().min(1, 'must not be empty').optional(),
  path: line(limits.pathLength).min(1, 'must not be empty').optional(),
  format: z.enum(formatNames).optional(),
  quality: quality.optional(),
  pattern: pattern.optional(),
  isDefault: z.boolean().optional(),
  make: z.boolean().optional(),
});

export const folderSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  path: z.string(),
  format: z.enum(formatNames),
  quality,
  pattern: z.string(),
  isDefault: z.boolean(),
  nextNumber: z.int(),
  /** Null when all is well, else why nothing can be kept there now. */
  problem: z.string().nullable(),
});
export type Folder = z.infer<typeof folderSchema>;

export const foldersSchema = z.object({
  folders: z.array(folderSchema),
  roots: z.array(z.string()),
});

export const copyInputSchema = z.strictObject({
  folderId: z.uuid(),
  format: z.enum(formatNames).optional(),
  quality: quality.optional(),
  /** A name or pattern in place of the folder's own. */
  name: pattern.optional(),
});

export const copySchema = z.object({
  id: z.uuid(),
  path: z.string(),
  bytes: z.int(),
  sha256: z.string(),
  format: z.enum(formatNames),
  folderName: z.string().nullable(),
  keptAt: z.iso.datetime(),
});
export type Copy = z.infer<typeof copySchema>;
export const copiesSchema = z.object({ copies: z.array(copySchema) });
