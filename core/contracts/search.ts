import { z } from 'zod';
import { tagName } from '../values/tagName';
import { limits } from '../values/limits';
import { line } from '../values/text';
import { places } from '../search/match';

export const orders = ['day', 'fitness'] as const;
export type Order = (typeof orders)[number];

const rect = z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() });

/** Why a shot was found. */
export const reasonSchema = z.object({
  places: z.array(z.enum(places)),
  /** Recognised words that were asked for, in pixels of the view from its top left corner. */
  hits: z.array(rect),
  /** Of a clip, where they stand on a later picture: when that is seen, seconds. */
  moment: z.number().optional(),
  /** Where they are seen on all that leaves, and how large that is, where it is more than the view. */
  seen: z.object({ width: z.number(), height: z.number(), boxes: z.array(rect) }).optional(),
});
export type Found = z.infer<typeof reasonSchema>;

/** What to try where nothing was found. */
export const helpSchema = z.object({
  /** Parts of the query, by their number from 0, without each of which something is found. */
  loosen: z.array(z.int()),
  /** Known words in place of ones that no shot knows. */
  instead: z.array(z.object({ part: z.int(), typed: z.string(), word: z.string() })),
});
export type Help = z.infer<typeof helpSchema>;

export const countSchema = z.object({
  count: z.int(),
  /** There are more than that. */
  more: z.boolean(),
});
export type Count = z.infer<typeof countSchema>;

export const queryText = z.string().max(limits.queryLength);

/** A month as it is asked for: 2026-11. */
export const month = z.string().regex(/^\d{4}-(0[1-9]|1[0-2])$/, 'is no month such as 2026-11');
export const daysSchema = z.object({
  days: z.array(z.object({ day: z.iso.date(), shots: z.int() })),
});
export type DayCount = z.infer<typeof daysSchema>['days'][number];

const wordsStates = ['read', 'waiting', 'reading', 'stopped', 'off'] as const;
export const wordsSchema = z.object({
  state: z.enum(wordsStates),
  /** Why they could not be read. */
  problem: z.string().nullable(),
  /** The revision of the shot that was read. */
  revision: z.int().nullable(),
  /** In reading order, in pixels of the view from its top left corner. */
  words: z.array(
    z.object({
      text: z.string(),
      box: rect,
      /** Counted from 0 through the whole picture, as paragraphs are. */
      line: z.int(),
      paragraph: z.int(),
    }),
  ),
  /** Of a clip: lines that are first seen on a later picture, and when, seconds. */
  later: z.array(z.object({ at: z.number(), lines: z.string() })).optional(),
});
export type ShotWords = z.infer<typeof wordsSchema>;

/** How far the reading of words has come, and by what. */
export const readingSchema = z.object({
  read: z.int(),
  waiting: z.int(),
  stopped: z.int(),
  /** The system's own recogniser is there; else the one that ships with the app reads. */
  installed: z.boolean(),
  languages: z.array(z.string()),
});
export type Reading = z.infer<typeof readingSchema>;

const colour = z.string().regex(/^#[0-9a-fA-F]{6}$/, 'is no colour such as #0072B2');

export const tagSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  colour: z.string(),
  /** Shots that have it and do not lie in the bin. */
  shots: z.int(),
});
export type Tag = z.infer<typeof tagSchema>;
export const tagsSchema = z.object({ tags: z.array(tagSchema) });

export const setTagsSchema = z.strictObject({ tags: z.array(tagName).max(limits.tagsOfShot) });
/** Given to several shots at once, or taken from them. */
export const manyTagsSchema = z.strictObject({
  shots: z.array(z.uuid()).min(1).max(1_000),
  add: z.array(tagName).max(limits.tagsOfShot).default([]),
  remove: z.array(tagName).max(limits.tagsOfShot).default([]),
});
export const tagPatchSchema = z.strictObject({
  name: tagName.optional(),
  colour: colour.optional(),
  /** Where another tag has the name, both become one. */
  merge: z.boolean().default(false),
});
export type TagPatch = z.input<typeof tagPatchSchema>;

export const savedSearchInputSchema = z.strictObject({
  name: line(limits.nameLength).trim().min(1, 'must not be empty'),
  /** As typed: a blank at the end says that the last word is whole. */
  query: queryText.refine((query) => query.trim() !== '', 'must not be empty'),
  order: z.enum(orders).default('day'),
});
export type SavedSearchInput = z.input<typeof savedSearchInputSchema>;
export const savedSearchPatchSchema = z
  .strictObject({ ...savedSearchInputSchema.shape, order: z.enum(orders) })
  .partial();
export const savedSearchSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  query: z.string(),
  order: z.enum(orders),
  ...countSchema.shape,
});
export type SavedSearch = z.infer<typeof savedSearchSchema>;
export const savedSearchesSchema = z.object({ searches: z.array(savedSearchSchema) });
