import { z } from 'zod';
import { line } from '../values/text';
import { limits } from '../values/limits';
import { SPEEDS } from '../clip/cuts';
import { MOST_PICTURES, stretchSchema } from '../values/stretch';
import { documentSchema } from '../document/document';
import { viewShapeSchema } from '../document/viewSchema';
import { pixelRectSchema } from '../values/shapes';
import { namePattern } from './namePattern';
import { provenanceSchema } from './provenance';
import { copySchema } from './folder';
import { linkInputSchema } from './link';
import { mailShape } from './mail';
import { pressedNames } from './way';
import { sendingSchema } from './remote';

/** Bounds of clips; stated in docs/api.md. */
export const clipLimits = {
  seconds: 600,
  pieceBytes: 64_000_000,
  bytes: 8_000_000_000,
  pictures: MOST_PICTURES,
  /** Of one picture. */
  pixels: 36_000_000,
  away: 500,
  /** A recording that is silent for so long is over, seconds. */
  silence: 30,
} as const;

/** What a browser's recorder writes. */
export const recordedTypes = ['video/webm', 'video/x-matroska', 'video/mp4'] as const;
export type RecordedType = (typeof recordedTypes)[number];

const side = z.int().min(1).max(limits.side);
/** What of its pictures is shown, chosen when they were of a size; all of them are recorded whole. */
export const shownSchema = z.strictObject({
  crop: pixelRectSchema,
  shape: viewShapeSchema.optional(),
  of: z.strictObject({ width: side, height: side }),
});

export const clipBeginSchema = z.strictObject({
  id: z.uuid(),
  title: line(limits.titleLength).optional(),
  provenance: provenanceSchema,
  shown: shownSchema.optional(),
  type: z.enum(recordedTypes),
  /** Its sound comes so much later than the pictures it goes with, ms. */
  soundDelay: z.int().min(0).max(500).optional(),
});
export type ClipBegin = z.input<typeof clipBeginSchema>;

/** So many clicks and keys of one clip are kept, and so many come at a time. */
const MOST_PRESSED = 5_000;
const moment = z
  .number()
  .min(0)
  .max(clipLimits.seconds * 2);
const onPicture = z.number().min(-limits.side).max(limits.side);
/** What a hand did while it was recorded, at seconds from the start: clicked somewhere, or a key. */
export const pressedSchema = z
  .array(
    z.union([
      z.strictObject({ at: moment, x: onPicture, y: onPicture }),
      z.strictObject({ at: moment, key: line(60).min(1) }),
    ]),
  )
  .max(MOST_PRESSED);

const onScreen = z.int().min(-limits.side).max(limits.side);
/** Where the window that the view follows lay, from where it lay at first, in the pixels of `shown.of`. */
export const followedSchema = z
  .array(z.strictObject({ at: moment, x: onPicture, y: onPicture }))
  .max(MOST_PRESSED);

/** This computer's screen, which the server records itself. */
export const displayClipSchema = z.strictObject({
  id: z.uuid(),
  title: line(limits.titleLength).optional(),
  /** A monitor's name, `all`, or `current`. */
  display: line(100).min(1).default('current'),
  pointer: z.boolean().default(true),
  /** What of a hand's doing is shown. */
  pressed: z.array(z.enum(pressedNames)).max(pressedNames.length).default([]),
  shown: shownSchema.optional(),
  /** A window that the view follows, and where its corner lay on the display when `shown` was chosen. */
  follow: z.strictObject({ window: z.int().min(0), x: onScreen, y: onScreen }).optional(),
});
export type DisplayClip = z.output<typeof displayClipSchema>;

const filmState = {
  /** Recorded so far. */
  seconds: z.number(),
  paused: z.boolean(),
};
/** What is recorded of this computer's screen now. */
export const displayRecordingSchema = z.object({
  id: z.uuid(),
  title: z.string(),
  width: z.int(),
  height: z.int(),
  ...filmState,
});
export type DisplayRecording = z.infer<typeof displayRecordingSchema>;
export const recordedNowSchema = z.object({ recording: displayRecordingSchema.nullable() });

export const clipPauseSchema = z.strictObject({ paused: z.boolean() });

export const clipEndSchema = z.strictObject({
  /** Nothing comes after so many. */
  pieces: z.int().min(0),
  /** It goes to the Bin. */
  bin: z.boolean().default(false),
});

const spedSchema = z
  .strictObject({ ...stretchSchema.shape, speed: z.literal(SPEEDS) })
  .refine(({ from, to }) => from < to, 'from must come before to');

export const cutsSchema = z.strictObject({
  away: z.array(stretchSchema).max(clipLimits.away).readonly(),
  /** In order, and apart from each other. */
  speeds: z
    .array(spedSchema)
    .max(clipLimits.away)
    .readonly()
    .refine(
      (all) => all.every(({ from }, i) => from >= (all[i - 1]?.to ?? 0)),
      'must come in order, and apart from each other',
    )
    .optional(),
});

/** Cuts it anew, or goes back or on to a step of that. */
export const clipChangeSchema = z
  .strictObject({
    revision: z.int().min(1),
    cuts: cutsSchema.optional(),
    step: z.int().min(0).optional(),
  })
  .refine(({ cuts, step }) => (cuts === undefined) !== (step === undefined), {
    message: 'either cuts or a step',
  });
export type ClipChange = z.input<typeof clipChangeSchema>;

const cutState = {
  /** Of its cuts. */
  revision: z.int(),
  cuts: cutsSchema,
  /** Which step of those that were made it is cut by: 0 is the whole. */
  step: z.int(),
  /** So many were made, undone ones too. */
  steps: z.int(),
};
export const cutStateSchema = z.object(cutState);
export type CutState = z.infer<typeof cutStateSchema>;

/** A recording that is not a clip yet. */
export const recordingSchema = z.object({
  id: z.uuid(),
  state: z.enum(['going', 'ended']),
  /** So many pieces have come, of so many bytes. */
  pieces: z.int(),
  bytes: z.number(),
  /** Why it is no clip yet, where it has ended; it is tried again. */
  problem: z.string().nullable(),
  /** How far it is, where the server records it. */
  seconds: filmState.seconds.optional(),
  paused: filmState.paused.optional(),
});
export type Recording = z.infer<typeof recordingSchema>;

export const clipSchema = z.object({
  id: z.uuid(),
  state: z.literal('ready'),
  title: z.string(),
  titleOwn: z.boolean(),
  provenance: provenanceSchema,
  binnedAt: z.iso.datetime().nullable(),
  ...cutState,
  type: z.string(),
  bytes: z.number(),
  width: z.int(),
  height: z.int(),
  /** In words: how its pictures are packed. */
  codec: z.string(),
  /** Colours are as fine as brightness; else coloured words are a little soft. */
  fineColours: z.boolean(),
  /** Sound goes with its pictures. */
  sound: z.boolean(),
  /** When each picture comes, seconds. */
  times: z.array(z.number()),
  /** Where something changes, numbers of pictures; null until it was looked for. */
  changes: z.array(z.int()).nullable(),
  /** What lies on its pictures, and what of them is shown. */
  document: documentSchema,
  /** The revision of that. */
  marksRevision: z.int(),
  /** How large its pictures leave. */
  leaves: z.object({ width: z.int(), height: z.int() }),
});
export type Clip = z.infer<typeof clipSchema>;
export const clipAnswerSchema = z.union([clipSchema, recordingSchema]);

export const clipFormats = {
  webm: { label: 'WebM', note: 'for browsers, small', extension: 'webm', type: 'video/webm' },
  av1: { label: 'AV1', note: 'smallest, slow to write', extension: 'webm', type: 'video/webm' },
  mp4: { label: 'MP4', note: 'plays everywhere', extension: 'mp4', type: 'video/mp4' },
  gif: { label: 'GIF', note: 'moves by itself, 256 colours', extension: 'gif', type: 'image/gif' },
  webp: { label: 'WebP', note: 'moves by itself', extension: 'webp', type: 'image/webp' },
  apng: { label: 'PNG', note: 'moves by itself, exact', extension: 'png', type: 'image/apng' },
} as const;
export type ClipFormat = keyof typeof clipFormats;
/** A film, or else a picture that moves by itself. */
export const isFilm = (format: ClipFormat): boolean =>
  clipFormats[format].type.startsWith('video/');
/** The forms in which pictures lie as they were recorded, by how those were packed. */
const recordedForms: Partial<Record<string, ClipFormat>> = { vp9: 'webm', av1: 'av1', h264: 'mp4' };
/**
 * The form in which a clip can be kept as it was recorded, without packing its pictures anew.
 * @returns null where there is none: of finer colours players know too little
 */
export const recordedAs = ({
  codec,
  fineColours,
}: Pick<Clip, 'codec' | 'fineColours'>): ClipFormat | null =>
  fineColours ? null : (recordedForms[codec] ?? null);
export const clipFormatNames = ['webm', 'av1', 'mp4', 'gif', 'webp', 'apng'] as const;

/** How much of its sound goes with a film: all, all but where a Hide mark is, or none. */
export const soundRules = ['all', 'unhidden', 'none'] as const;
export type SoundRule = (typeof soundRules)[number];

const sizeShape = {
  percent: z.coerce.number().min(5).max(100).default(100),
  /** Pictures a second; null for those of the clip. */
  rate: z.coerce.number().min(1).max(60).nullable().default(null),
  sound: z.enum(soundRules).default('unhidden'),
};
/** In which form it is asked how large it becomes. */
export const clipSizeSchema = z.strictObject({ format: z.enum(clipFormatNames), ...sizeShape });
export type ClipSize = z.output<typeof clipSizeSchema>;
export const clipBytesSchema = z.object({ bytes: z.number() });

const toOnePlace = {
  message: 'either a folder or a remote one',
  path: ['remoteId'],
};

export const clipWishSchema = z
  .strictObject({
    /** Null: the file is only made, to be fetched, or sent. */
    folderId: z.uuid().nullable(),
    /** A remote folder that it is sent to instead. */
    remoteId: z.uuid().nullable().default(null),
    format: z.enum(clipFormatNames),
    percent: z.number().min(5).max(100).default(100),
    /** Pictures a second; null for those of the clip. */
    rate: z.number().min(1).max(60).nullable().default(null),
    /** MB that the file may have: films get fewer bits a second, moving pictures fewer pixels. */
    most: z.number().min(0.01).max(10_000).nullable().default(null),
    sound: z.enum(soundRules).default('unhidden'),
    /** A name or pattern in place of the folder's own. */
    name: namePattern.optional(),
    /** Title and description stand in a file that is only made; a folder has a rule of its own. */
    words: z.boolean().default(true),
  })
  .refine(({ folderId, remoteId }) => folderId === null || remoteId === null, toOnePlace);
export type ClipWish = z.input<typeof clipWishSchema>;

/** A link under which a film that was made is played. */
export const clipLinkSchema = z.strictObject({ job: z.uuid(), ...linkInputSchema.shape });
export type ClipLink = z.input<typeof clipLinkSchema>;

/** A message with a film or a moving picture that was made. */
export const clipMailSchema = z.strictObject({ job: z.uuid(), ...mailShape });
export type ClipMail = z.input<typeof clipMailSchema>;

/** Drops for good what it does not show, as it was cut and marked then. */
export const clipDropSchema = z.strictObject({
  revision: z.int().min(1),
  marksRevision: z.int().min(1),
});
export type ClipDrop = z.infer<typeof clipDropSchema>;

export const clipJobSchema = z.object({
  id: z.uuid(),
  state: z.enum(['waiting', 'going on', 'done', 'stopped']),
  /** 0–1 of it is written. */
  progress: z.number(),
  /** Seconds that it will still take, where that can be told. */
  left: z.number().nullable(),
  problem: z.string().nullable(),
  bytes: z.number().nullable(),
  copy: copySchema.nullable(),
  /** To a remote folder. */
  sending: sendingSchema.nullable(),
  /** It takes the place of the clip's film. */
  drops: z.boolean().default(false),
});
export type ClipJob = z.infer<typeof clipJobSchema>;

export const stillInputSchema = z.strictObject({
  /** Seconds from the start of the film. */
  at: z
    .number()
    .min(0)
    .max(clipLimits.seconds * 2),
  id: z.uuid().optional(),
});
