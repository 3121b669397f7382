import { z } from 'zod';
import { cutsSchema, recordedTypes } from '../contracts/clip';
import { copyFormats, numberWays } from '../contracts/folder';
import { guideSchema } from '../contracts/guide';
import { lookSchema } from '../contracts/look';
import { provenanceSchema } from '../contracts/provenance';
import { remoteInputSchema } from '../contracts/remote';
import { rulesShape } from '../contracts/rules';
import { orders, queryText } from '../contracts/search';
import { title } from '../contracts/shot';
import { firstWay, waySchema } from '../contracts/way';
import { colour } from '../values/shapes';
import { limits } from '../values/limits';
import { tagName } from '../values/tagName';
import { line, text } from '../values/text';

/** What this Rezzik writes, and the latest that it reads. */
export const ARCHIVE_VERSION = 1;

const id = z.uuid().toLowerCase();
const time = z.iso.datetime();
const sha256 = z.string().regex(/^[0-9a-f]{64}$/);
const name = line(limits.nameLength).trim().min(1, 'must not be empty');
/** Whole, so that it can never be taken for anything but a place. */
const path = line(limits.pathLength).startsWith('/');

export const aboutSchema = z.object({
  archive: z.literal('Rezzik'),
  version: z.int().min(1),
  /** Of the documents in it. */
  document: z.int().min(1),
  made: time,
  /** What the shots in it were searched by; null for everything. */
  query: z.string().nullable(),
});
export type About = z.infer<typeof aboutSchema>;

export const folderRecord = z.strictObject({
  id,
  name,
  path,
  ...rulesShape,
  numberBy: z.enum(numberWays),
  isDefault: z.boolean(),
  nextNumber: z.int().min(1),
});

/** Without its password. */
export const remoteRecord = z.strictObject({
  id,
  name,
  url: remoteInputSchema.shape.url,
  username: line(200),
  address: remoteInputSchema.shape.address,
  ...rulesShape,
});

/** A stored way may lack what came later: the rest is as at first. */
const isObject = (value: unknown): value is object => typeof value === 'object' && value !== null;
const way = z.preprocess((v) => (isObject(v) ? { ...firstWay, ...v } : v), waySchema);

export const routineRecord = z.strictObject({
  id,
  name: line(80).trim().min(1),
  key: line(40).nullable(),
  systemKey: line(40).nullable(),
  way,
});

export const lookRecord = z.strictObject({ ...lookSchema.shape, id });
export const tagRecord = z.strictObject({ id, name: tagName, colour });
export const searchRecord = z.strictObject({
  id,
  name,
  query: queryText,
  order: z.enum(orders),
});
/** What number comes next for a pattern, in whatever folder. */
export const numberRecord = z.strictObject({
  pattern: line(limits.patternLength),
  nextNumber: z.int().min(1),
});
/** Where a guide was kept, and the shots it shows there. */
export const guideFileRecord = z.strictObject({
  id,
  path,
  shows: z.array(id).max(limits.guideItems),
  keptAt: time,
});

export const guideRecord = z.strictObject({
  id,
  title: title.trim().min(1),
  guide: guideSchema,
  madeAt: time,
  changedAt: time,
});
export type GuideRecord = z.infer<typeof guideRecord>;

const copyRecord = z.strictObject({
  id,
  folder: id.nullable(),
  path,
  format: z.enum(copyFormats),
  bytes: z.int().min(0),
  sha256,
  /** The name of the shot that the file is called by. */
  named: title.nullable(),
  keptAt: time,
});
const sentRecord = z.strictObject({
  id,
  remote: id,
  name: line(limits.pathLength),
  mediaType: line(100),
  bytes: z.int().min(0),
  address: z
    .url({ protocol: /^https?$/ })
    .max(4_000)
    .nullable(),
  madeAt: time,
  sentAt: time.nullable(),
});
const wordsRecord = z.strictObject({
  revision: z.int().min(1),
  /** Words parted by blanks, lines by line feeds, paragraphs by empty lines. */
  lines: text(5_000_000),
  /** x, y, width and height of each word, two bytes each, the lower one first; in base64. */
  boxes: z.base64().max(20_000_000),
});

/** The film that a shot is the first picture of. */
const clipRecord = z.strictObject({
  type: z.enum(recordedTypes),
  bytes: z.int().min(1),
  sha256,
  /** Every way in which it was cut, and by which of them it is: 0 is the whole. */
  steps: z.array(cutsSchema).max(100_000),
  step: z.int().min(0),
});
export type ClipRecord = z.infer<typeof clipRecord>;

export const shotRecord = z.strictObject({
  id,
  title,
  titleOwn: z.boolean(),
  revision: z.int().min(1),
  /** As its version had it: checked, and brought up to date, by whoever reads it. */
  document: z.json(),
  /** The steps of undo, and how many of them are done. */
  steps: z.array(z.json()),
  position: z.int().min(0),
  provenance: provenanceSchema,
  takenAt: time,
  changedAt: time,
  binnedAt: time.nullable(),
  frame: z.strictObject({
    id,
    sha256,
    width: z.int().min(1),
    height: z.int().min(1),
    /** Of the file that was opened, where there is one: image/jpeg and so on. */
    original: line(20).nullable(),
  }),
  tags: z.array(id).max(limits.tagsOfShot),
  words: wordsRecord.nullable(),
  copies: z.array(copyRecord).max(100_000),
  sent: z.array(sentRecord).max(100_000),
  /** Of a clip alone. */
  clip: clipRecord.optional(),
});
export type ShotRecord = z.infer<typeof shotRecord>;

/** Settings are read one by one, by whoever stores them. */
export const settingsRecord = z.record(z.string(), z.json());

/**
 * The records of a list that can be read, and what is wrong with each of the others: one that is
 * unsound leaves the rest as it is.
 */
export function soundRecords<T extends z.ZodType>(
  schema: T,
  values: readonly unknown[],
): { sound: z.output<T>[]; odd: string[] } {
  const sound: z.output<T>[] = [];
  const odd: string[] = [];
  values.forEach((value, i) => {
    const read = schema.safeParse(value);
    if (read.success) sound.push(read.data);
    else odd.push(`number ${i + 1} is left out: ${issueWords(read.error)}`);
  });
  return { sound, odd };
}

/** The first thing that does not fit, and where. */
export function issueWords({ issues: [issue] }: z.ZodError): string {
  const place = issue?.path.length ? `${issue.path.slice(0, 6).join('.')}: ` : '';
  return `${place}${issue?.message ?? 'it does not fit'}`.slice(0, 300);
}
