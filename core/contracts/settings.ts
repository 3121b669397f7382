import { z } from 'zod';
import { pixelRectSchema } from '../values/shapes';
import { line } from '../values/text';
import { clipLimits } from './clip';
import { firstWay, takenFrom, wayPatchSchema, waySchema } from './way';

/** A region that can be taken again, in the pixels of its source. */
export const lastRegionSchema = z.strictObject({
  display: line(100),
  region: pixelRectSchema,
  at: z.iso.datetime(),
});
export type LastRegion = z.infer<typeof lastRegionSchema>;

const shape = {
  showCountdown: z.boolean(),
  /** The delay of a take stays for the next ones; else it is for that take. */
  delayStays: z.boolean(),
  sound: z.boolean(),
  notice: z.boolean(),
  thumbnail: z.boolean(),
  /** What the last moments of a screen may take up while they are held, MB. */
  heldMegabytes: z.int().min(32).max(2048),
  /** A recording that is so long ends by itself, minutes. */
  clipMinutes: z
    .int()
    .min(1)
    .max(clipLimits.seconds / 60),
  /** Which window is the one in use. */
  inUseIs: z.enum(['focused', 'pointer']),
  /** This computer's screen may be read. */
  displayAllowed: z.boolean(),
  /** Web pages may be taken by their addresses. */
  pagesAllowed: z.boolean(),
  /** Hosts in one's own network, or on this computer, from which a person has allowed pages to be taken. */
  pageHosts: z.array(line(300).min(1)).max(200),
  /** Programs may be asked what the parts of their windows are called. */
  partsAsked: z.boolean(),
  /** Words in pictures are read in the background, so that shots are found by them. */
  readWords: z.boolean(),
  /** In what language, by the recogniser's name for it. */
  wordsLanguage: z.string().regex(/^[A-Za-z][\w/-]{0,40}$/),
  /** The Shelf shows small cards, more of them. */
  smallCards: z.boolean(),
  /** Days after which what lies in the bin is deleted for good; null: never by itself. */
  binDays: z.int().min(1).max(3650).nullable(),
  /** Days after which a shot that nobody kept goes into the Bin; null: never by itself. */
  unkeptDays: z.int().min(1).max(3650).nullable(),
  /** Links are reached from other machines on this port; null: on this computer only. */
  linkPort: z.int().min(1024).max(65_535).nullable(),
  /** Who messages are from; empty: the mail program that opens them says so. */
  mailFrom: z.union([z.literal(''), z.email().max(254)]),
  /** Smallest letters that are read without trouble: height of a small x, pixels. */
  readableFrom: z.number().min(3).max(30),
  /** For Repeat region. */
  regions: z.partialRecord(z.enum(takenFrom), lastRegionSchema),
  /** Keys that differ from the first ones, by the action's name; an empty one has none. */
  keys: z.record(z.string().max(60), z.string().max(40)),
};

/** How a person likes to take; remembered from one take to the next. */
export const settingsSchema = z.object({ way: waySchema, ...shape });
export type Settings = z.infer<typeof settingsSchema>;

/** The settings as they are told, with what of the stored ones could not be read. */
export const settingsAnswerSchema = settingsSchema.extend({ problem: z.string().optional() });

export const settingsPatchSchema = z.strictObject({ way: wayPatchSchema, ...shape }).partial();
export type SettingsPatch = z.infer<typeof settingsPatchSchema>;

export const firstSettings: Settings = {
  way: firstWay,
  showCountdown: true,
  delayStays: true,
  sound: false,
  notice: true,
  thumbnail: true,
  heldMegabytes: 256,
  clipMinutes: 10,
  inUseIs: 'focused',
  displayAllowed: false,
  pagesAllowed: false,
  pageHosts: [],
  partsAsked: false,
  readWords: true,
  wordsLanguage: 'eng',
  smallCards: false,
  binDays: null,
  unkeptDays: null,
  linkPort: null,
  mailFrom: '',
  readableFrom: 6,
  regions: {},
  keys: {},
};

/** The settings after a change: the way and the regions are changed field by field. */
export const withPatch = (settings: Settings, patch: SettingsPatch): Settings => ({
  ...settings,
  ...patch,
  way: { ...settings.way, ...patch.way },
  regions: { ...settings.regions, ...patch.regions },
});
