import { z } from 'zod';
import { limits } from '../values/limits';
import { colour } from '../values/shapes';

export const formatNames = [
  'png',
  'jpeg',
  'webp',
  'avif',
  'gif',
  'tiff',
  'bmp',
  'svg',
  'pdf',
] as const;
export type FormatName = (typeof formatNames)[number];

export const quality = z.int().min(1).max(100);

/** One choice that a format leaves to the person; the interface draws it from this alone. */
export const optionFieldSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('switch'),
    name: z.string(),
    label: z.string(),
    first: z.boolean(),
  }),
  z.object({
    kind: z.literal('choice'),
    name: z.string(),
    label: z.string(),
    choices: z.array(z.object({ value: z.string(), label: z.string() })),
    first: z.string(),
  }),
  z.object({
    kind: z.literal('number'),
    name: z.string(),
    label: z.string(),
    min: z.number(),
    max: z.number(),
    step: z.number(),
    first: z.number(),
  }),
]);
export type OptionField = z.infer<typeof optionFieldSchema>;

export const optionsSchema = z
  .record(z.string().max(40), z.union([z.string().max(100), z.number(), z.boolean()]))
  .transform(({ words, ...options }) =>
    // As the option of PDF was called before; an address has that name for something else.
    words === undefined ? options : { ...options, below: words },
  );
export type FormatOptions = z.infer<typeof optionsSchema>;

/** What a format can do, as the interface needs it. */
export const formatFactsSchema = z.object({
  name: z.enum(formatNames),
  label: z.string(),
  note: z.string(),
  mediaType: z.string(),
  extension: z.string(),
  /** Transparent parts stay so. */
  transparent: z.boolean(),
  /** It has a quality: smaller files for a likeness that is less. */
  quality: z.boolean(),
  /** Title, description and the like can be written into it. */
  facts: z.boolean(),
  fields: z.array(optionFieldSchema),
});
export type FormatFacts = z.infer<typeof formatFactsSchema>;
export const formatsSchema = z.object({ formats: z.array(formatFactsSchema) });

/** How a picture is fitted into a width and a height that are both given. */
export const fits = ['within', 'fill', 'pad'] as const;
export type Fit = (typeof fits)[number];

const side = z.int().min(1).max(limits.side);

/** The size a picture leaves in; without width and height it is the view's own. */
export const sizeShape = {
  width: side.optional(),
  height: side.optional(),
  /** Longest side; smaller pictures stay as they are. */
  longest: side.optional(),
  percent: z.number().min(1).max(400).optional(),
  fit: z.enum(fits).optional(),
  /** Dots per inch written into the file, for a size on paper. */
  density: z.int().min(1).max(2400).optional(),
};
export const sizeWishSchema = z.strictObject(sizeShape);
export type SizeWish = z.infer<typeof sizeWishSchema>;

/** How a picture leaves: format, quality, size, and what is done about transparency. */
export const encodeShape = {
  format: z.enum(formatNames).optional(),
  quality: quality.optional(),
  options: optionsSchema.optional(),
  ...sizeShape,
  /** The file has at most so many bytes: the best quality, then the largest size that fits. */
  maxBytes: z.int().min(100).max(limits.pictureBytes).optional(),
  /** Behind transparent parts where the format has none, and around a padded picture. */
  background: colour.optional(),
  /** A look that it leaves with, in place of what is done to it. */
  look: z.uuid().optional(),
  /** Where its numbers begin, in place of where they do by themselves: in a guide they run on. */
  first: z.int().min(0).max(99_999).optional(),
};

/** Which facts are written into files. */
export const factsRuleSchema = z.strictObject({
  /** Title, description, time, software. */
  words: z.boolean().default(true),
  /** Where from: the address and the window's title. */
  origin: z.boolean().default(false),
});
export type FactsRule = z.output<typeof factsRuleSchema>;
export const firstFacts: FactsRule = { words: true, origin: false };
