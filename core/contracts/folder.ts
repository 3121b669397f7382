import { z } from 'zod';
import { encodeShape, factsRuleSchema, formatNames } from './format';
import { limits } from '../values/limits';
import { namePattern } from './namePattern';
import { rulesInput, rulesPatch, rulesShape } from './rules';
import { line } from '../values/text';

/** Numbers in names count on in their folder, or for their pattern in whatever folder. */
export const numberWays = ['folder', 'pattern'] as const;

const name = line(limits.nameLength).trim().min(1, 'must not be empty');
const path = line(limits.pathLength).min(1, 'must not be empty');

/** What a person sets of a folder. */
export const folderInputSchema = z.strictObject({
  name,
  path,
  ...rulesInput,
  numberBy: z.enum(numberWays).default('folder'),
  isDefault: z.boolean().default(false),
  /** Make the folder when it is not there yet. */
  make: z.boolean().default(false),
});
export type FolderInput = z.input<typeof folderInputSchema>;

export const folderPatchSchema = z.strictObject({
  name: name.optional(),
  path: path.optional(),
  ...rulesPatch,
  numberBy: z.enum(numberWays).optional(),
  isDefault: z.boolean().optional(),
  make: z.boolean().optional(),
  /** A person has looked at one that came in with an archive. */
  confirmed: z.literal(true).optional(),
});

export const folderSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  path: z.string(),
  ...rulesShape,
  pattern: z.string(),
  numberBy: z.enum(numberWays),
  isDefault: z.boolean(),
  nextNumber: z.int(),
  /** Came in with an archive: nothing is kept there until a person confirms it. */
  unconfirmed: z.boolean(),
  /** Bytes that are free there; null where that is not known. */
  free: z.number().nullable(),
  /** Null when all is well, else why nothing can be kept there now. */
  problem: z.string().nullable(),
});
export type Folder = z.infer<typeof folderSchema>;

export const foldersSchema = z.object({
  folders: z.array(folderSchema),
  roots: z.array(z.string()),
});

/** The folders below a place of the computer, to choose one from. */
export const placesSchema = z.object({
  path: z.string(),
  /** Null at a root. */
  above: z.string().nullable(),
  folders: z.array(z.object({ name: z.string(), path: z.string() })),
});
export type Places = z.infer<typeof placesSchema>;

export const copyInputSchema = z.strictObject({
  folderId: z.uuid(),
  ...encodeShape,
  facts: factsRuleSchema.optional(),
  /** A name or pattern in place of the folder's own. */
  name: namePattern.optional(),
});

/** Of kept files: pictures, and films of clips. */
export const copyFormats = [...formatNames, 'webm', 'av1', 'mp4', 'apng'] as const;

export const copySchema = z.object({
  id: z.uuid(),
  path: z.string(),
  bytes: z.int(),
  sha256: z.string(),
  format: z.enum(copyFormats),
  folderName: z.string().nullable(),
  /** Its file is called by an earlier name of the shot. */
  behind: z.boolean(),
  keptAt: z.iso.datetime(),
});
export type Copy = z.infer<typeof copySchema>;
/** What became of the files of a shot that got another name. */
export const renamedSchema = z.object({
  renamed: z.int(),
  /** Files that stay as they are called, with the reason. */
  left: z.array(z.object({ path: z.string(), problem: z.string() })),
});
export type Renamed = z.infer<typeof renamedSchema>;

export const copiesSchema = z.object({ copies: z.array(copySchema) });
