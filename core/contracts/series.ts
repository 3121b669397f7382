import { z } from 'zod';
import { patternProblem } from '../naming/pattern';
import { thenStepSchema } from '../places/registry';
import { limits } from '../values/limits';
import { pixelRectSchema } from '../values/shapes';
import { line } from '../values/text';
import { pageSchema } from './page';

/** Where a series takes by itself, with every page of Rezzik closed; or only while a page has it. */
export const seriesSources = ['display', 'desk', 'web', 'screen', 'camera'] as const;
export const pageSources = ['screen', 'camera'] as const;
export type PageSource = (typeof pageSources)[number];
export const isOfPage = (source: string): source is PageSource =>
  pageSources.some((name) => name === source);
/** What can be done with a shot again and again, with nobody there. */
export const seriesSteps: ReadonlySet<string> = new Set(['keep', 'send', 'link', 'tag']);
/** What is taken of a screen without a hand. */
export const seriesKinds = ['full', 'window', 'region'] as const;
export type SeriesKind = (typeof seriesKinds)[number];

/** In the pixels of the source. */
const region = pixelRectSchema.nullable().default(null);
const screen = {
  kind: z.enum(seriesKinds),
  /** Full screen: a display by its name, or `all`. */
  display: line(100).min(1).default('all'),
  /** A window: what its title holds; empty for the one in use. */
  window: line(limits.titleLength).trim().default(''),
  region,
};
const hasRegion = { message: 'A region needs x, y, width and height.', path: ['region'] };

const ofPage = <T extends PageSource>(source: T) =>
  z
    .strictObject({ source: z.literal(source), kind: z.enum(['full', 'region']), region })
    .refine(({ kind, region: at }) => kind !== 'region' || at !== null, hasRegion);

export const seriesWhatSchema = z.discriminatedUnion('source', [
  z
    .strictObject({ source: z.literal('display'), ...screen })
    .refine(({ kind, region }) => kind !== 'region' || region !== null, hasRegion),
  z
    .strictObject({ source: z.literal('desk'), ...screen })
    .refine(({ kind, region }) => kind !== 'region' || region !== null, hasRegion),
  z.strictObject({ source: z.literal('web'), page: pageSchema }),
  ofPage('screen'),
  ofPage('camera'),
]);
export type SeriesWhat = z.infer<typeof seriesWhatSchema>;

const time = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'must be a time such as 09:30');

function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** Longest time from one take to the next, seconds: a week. */
export const LONGEST_EVERY = 604_800;

const whenSchema = z.union([
  z.strictObject({
    every: z.int().min(1).max(LONGEST_EVERY),
    between: z.strictObject({ from: time, until: time }).nullable().default(null),
  }),
  z.strictObject({ at: z.array(time).min(1).max(96) }),
]);

const timesShape = {
  zone: line(100).refine(isZone, 'is no time zone'),
  begins: z.iso.datetime(),
  ends: z.iso.datetime().nullable().default(null),
  days: z
    .array(z.int().min(0).max(6))
    .min(1, 'choose at least one day')
    .max(7)
    .default([0, 1, 2, 3, 4, 5, 6]),
  when: whenSchema,
};
const timesSchema = z.strictObject(timesShape);

export const onlyChangedSchema = z.strictObject({
  /** Percent of the pixels that are watched; less, and nothing is taken. 0: any pixel. */
  least: z.number().min(0).max(100),
  watch: pixelRectSchema.nullable().default(null),
  ignore: z.array(pixelRectSchema).max(20).default([]),
});
export type OnlyChanged = z.infer<typeof onlyChangedSchema>;

const pattern = line(limits.patternLength).superRefine((value, problems) => {
  const message = patternProblem(value);
  if (message) problems.addIssue({ code: 'custom', message });
});
const stopAtSchema = z.strictObject({
  shots: z.int().min(1).max(100_000),
  megabytes: z.int().min(1).max(1_000_000),
});
export const firstStopAt = { shots: 1000, megabytes: 2000 };
export const FIRST_SERIES_PATTERN = '{title} {n:3}';

const shape = {
  name: line(80).trim().min(1, 'must not be empty'),
  what: seriesWhatSchema,
  onlyChanged: onlyChangedSchema.nullable(),
  then: z
    .array(thenStepSchema)
    .max(8)
    .refine((steps) => steps.every((step) => seriesSteps.has(step.do)), {
      message: 'can be keep, send, link and tag: nobody is there for more',
    }),
  /** What its shots are called: {title} is the series, {n} the number of the shot in it. */
  pattern,
  /** It ends by itself after so many. */
  stopAt: stopAtSchema,
};

export const seriesInputSchema = z.strictObject({
  ...shape,
  times: z.strictObject({
    ...timesShape,
    /** This computer's, unless it is said. */
    zone: timesShape.zone.optional(),
    /** At once, unless it is said. */
    begins: timesShape.begins.optional(),
  }),
  onlyChanged: shape.onlyChanged.default(null),
  then: shape.then.default([]),
  pattern: pattern.default(FIRST_SERIES_PATTERN),
  stopAt: stopAtSchema.default(firstStopAt),
});
export type SeriesInput = z.input<typeof seriesInputSchema>;

export const seriesPatchSchema = z
  .strictObject({
    ...shape,
    times: timesSchema,
    /** Paused, going on, or ended for good. */
    state: z.enum(['running', 'paused', 'ended']),
  })
  .partial();
export type SeriesPatch = z.input<typeof seriesPatchSchema>;

const shotSchema = z.object({ id: z.uuid(), revision: z.int() });

export const seriesSchema = z.object({
  id: z.uuid(),
  ...shape,
  /** As they were stored: the zone may be one that this system does not have any more. */
  times: timesSchema.extend({ zone: line(100) }),
  state: z.enum(['running', 'paused', 'ended']),
  /** Why it ended by itself. */
  why: z.string().nullable(),
  /** The next time. */
  next: z.iso.datetime().nullable(),
  taken: z.int(),
  unchanged: z.int(),
  missed: z.int(),
  bytes: z.int(),
  /** The last shot of it that is there. */
  last: shotSchema.nullable(),
});
export type Series = z.infer<typeof seriesSchema>;
export const seriesListSchema = z.object({ series: z.array(seriesSchema) });

/** What became of its times on a day. */
const daySchema = z.object({
  /** As 2026-03-29, where the series is. */
  day: z.iso.date(),
  taken: z.int(),
  unchanged: z.int(),
  missed: z.int(),
});
export type SeriesDay = z.infer<typeof daySchema>;
export const seriesDaysSchema = z.object({ days: z.array(daySchema) });

export const outcomes = ['due', 'taken', 'unchanged', 'missed', 'noted'] as const;

/** What became of one time, or of several that were missed one after the other. */
const entrySchema = z.object({
  id: z.uuid(),
  at: z.iso.datetime(),
  /** The last of them. */
  until: z.iso.datetime(),
  count: z.int(),
  outcome: z.enum(outcomes),
  /** Why it was missed, or what is to be said of it. */
  why: z.string().nullable(),
  shot: shotSchema.nullable(),
  title: z.string().nullable(),
});
export type SeriesEntry = z.infer<typeof entrySchema>;
export const seriesEntriesSchema = z.object({ entries: z.array(entrySchema) });

/** Which entries are asked for. */
export const seriesQuerySchema = z.strictObject({
  day: z.iso.date().optional(),
  limit: z.coerce.number().int().min(1).max(limits.pageSize).default(limits.pageSize),
  /** Those before this one only. */
  before: z.iso.datetime().optional(),
});

/** As what the pictures of a series are kept in one file, with its media type. */
export const movingFormats = { gif: 'image/gif', webp: 'image/webp' } as const;
export type MovingFormat = keyof typeof movingFormats;

export const movingQuerySchema = z.strictObject({
  format: z.enum(['gif', 'webp']),
  /** How long each is seen. */
  seconds: z.coerce.number().min(0.02).max(60).default(0.5),
  longest: z.coerce.number().int().min(16).max(8_000).default(1000),
  day: z.iso.date().optional(),
});
export type MovingWish = Partial<z.output<typeof movingQuerySchema>> & { format: MovingFormat };

/** What a page asks that has a shared screen or a camera. */
export const dueQuerySchema = z.strictObject({
  sources: z.array(z.enum(pageSources)).min(1).max(pageSources.length),
});
/** What it takes now, if anything. */
export const dueSchema = z.object({
  due: z
    .object({
      id: z.uuid(),
      source: z.enum(pageSources),
      region: pixelRectSchema.nullable(),
    })
    .nullable(),
  /** There are series of these sources that go on. */
  waits: z.boolean(),
});
export type PageDue = z.infer<typeof dueSchema>;
export const missedSchema = z.strictObject({ why: line(500).min(1) });
