import { z } from 'zod';
import { countings } from '../marks/names';
import { limits } from '../values/limits';
import { line, text } from '../values/text';

const id = line(40).min(1);

const headingSchema = z.strictObject({
  id,
  kind: z.literal('heading'),
  text: line(limits.titleLength),
});

const stepSchema = z.strictObject({
  id,
  kind: z.literal('step'),
  shot: z.uuid(),
  heading: line(limits.titleLength).default(''),
  /** Markdown (CommonMark); {1} is the first number in the picture. */
  caption: text(limits.guideCaption).default(''),
});
export type GuideStep = z.infer<typeof stepSchema>;

const itemSchema = z.discriminatedUnion('kind', [headingSchema, stepSchema]);
export type GuideItem = z.infer<typeof itemSchema>;

/**
 * How clips are shown: by their first picture, by that with the address of their newest link, or as
 * they move, where the format can.
 */
export const clipRules = ['still', 'link', 'moving'] as const;

/** Shots in an order, with what is said of them. */
export const guideSchema = z.strictObject({
  version: z.literal(1),
  items: z
    .array(itemSchema)
    .max(limits.guideItems)
    .refine((items) => new Set(items.map((item) => item.id)).size === items.length, {
      message: 'two have the same id',
    }),
  /** The look of all its pictures. */
  look: z.uuid().nullable().default(null),
  /** The longest side of its pictures at most, pixels; null for their own size. */
  longest: z.int().min(100).max(8_000).nullable().default(null),
  clips: z.enum(clipRules).default('still'),
});
export type Guide = z.infer<typeof guideSchema>;

const title = line(limits.titleLength).trim().min(1, 'must not be empty');

export const guideInputSchema = z.strictObject({
  title: title.optional(),
  shots: z.array(z.uuid()).max(limits.guideItems),
});
export type GuideInput = z.input<typeof guideInputSchema>;

export const guidePatchSchema = z.strictObject({
  /** The one it was changed from: another one is refused. */
  revision: z.int().min(1),
  title: title.optional(),
  guide: guideSchema.optional(),
});
export type GuidePatch = z.infer<typeof guidePatchSchema>;

/** What a guide knows of a number in a picture. */
const discSchema = z.object({ counting: z.enum(countings), caption: z.string() });
export type Disc = z.infer<typeof discSchema>;

/** A shot as a guide shows it. */
export const guideShotSchema = z.object({
  id: z.uuid(),
  state: z.enum(['there', 'in the bin', 'gone']),
  revision: z.int(),
  /** The name that a person gave it, a step's heading where none is written; else empty. */
  name: z.string(),
  /** What is told to people who do not see it; empty where nothing is written. */
  description: z.string(),
  /** Its numbers, in the order in which they count. */
  discs: z.array(discSchema),
  /**
   * Of a clip: which of its pictures stands for it, and where its newest link plays it; null where
   * there is none that has not ended.
   */
  clip: z.object({ cover: z.int(), link: z.string().nullable() }).optional(),
});
export type GuideShot = z.infer<typeof guideShotSchema>;

export const storedGuideSchema = z.object({
  id: z.uuid(),
  title: z.string(),
  revision: z.int(),
  changedAt: z.iso.datetime(),
  guide: guideSchema,
  /** Those that it names, each once. */
  shots: z.array(guideShotSchema),
});
export type StoredGuide = z.infer<typeof storedGuideSchema>;

export const guideConflictSchema = z.object({ current: storedGuideSchema });

export const guideSummarySchema = z.object({
  id: z.uuid(),
  title: z.string(),
  steps: z.int(),
  changedAt: z.iso.datetime(),
  /** The first shot that is there. */
  cover: z.object({ id: z.uuid(), revision: z.int(), cover: z.int() }).nullable(),
});
export type GuideSummary = z.infer<typeof guideSummarySchema>;
export const guidesSchema = z.object({ guides: z.array(guideSummarySchema) });

export const guideFormats = ['html', 'pdf', 'docx', 'markdown', 'epub'] as const;
export type GuideFormat = (typeof guideFormats)[number];

/** Keeps a guide in a folder. */
export const guideCopyInputSchema = z.strictObject({
  folderId: z.uuid(),
  formats: z.array(z.enum(guideFormats)).min(1).max(guideFormats.length),
});
export type GuideCopyInput = z.input<typeof guideCopyInputSchema>;

export const guideFileSchema = z.object({
  path: z.string(),
  format: z.enum(guideFormats),
  /** With the pictures beside it. */
  bytes: z.int(),
});
export type GuideFile = z.infer<typeof guideFileSchema>;
export const guideCopiesSchema = z.object({
  files: z.array(guideFileSchema),
  /** Steps that are left out, as their shot is in the Bin or gone. */
  left: z.int(),
});
export type GuideCopies = z.infer<typeof guideCopiesSchema>;

/** How far the clips are that are written to move in a guide, 0–1, and seconds that are left. */
export const guideFilmsSchema = z.object({ progress: z.number(), left: z.number().nullable() });
export type GuideFilms = z.infer<typeof guideFilmsSchema>;
/** Null while none is written. */
export const guideFilmsAnswerSchema = z.object({ films: guideFilmsSchema.nullable() });
