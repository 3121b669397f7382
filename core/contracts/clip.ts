import { z } from 'zod';
import { line } from '../values/text';
import { limits } from '../values/limits';
import { SPEEDS } from '../clip/cuts';
import { MOST_PICTURES, stretchSchema } from '../values/stretch';
import { documentSchema } from '../document/document';
import { viewShapeSchema } from '../document/viewSchema';
import { pixelRectSchema } from '../values/shapes';
import { provenanceSchema } from './provenance';
import { pressedNames } from './way';

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
  /** For so many bytes more there is room; null where that is not known. */
  room: z.number().nullable(),
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

export const stillInputSchema = z.strictObject({
  /** Seconds from the start of the film. */
  at: z
    .number()
    .min(0)
    .max(clipLimits.seconds * 2),
  id: z.uuid().optional(),
});
