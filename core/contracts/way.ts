import { z } from 'zod';
import { formatNames } from './format';
import { firstPage, wayPageSchema } from './page';
import { limits } from '../values/limits';
import { thenStepSchema } from '../places/registry';
import { line } from '../values/text';

/** Places that can be stilled. What is pasted, dropped or opened is no way of taking. */
export const takenFrom = ['desk', 'display', 'screen', 'camera', 'web'] as const;
export type TakenFrom = (typeof takenFrom)[number];

/** In the order of their number keys. */
export const kindNames = [
  'full',
  'window',
  'region',
  'shape',
  'part',
  'repeat',
  'long',
  'series',
  'back',
  'clip',
] as const;
export type Kind = (typeof kindNames)[number];

/** Chosen on a picture that is still already: the others are of what moves, or comes later. */
export const stillKinds = ['full', 'window', 'region', 'shape', 'part', 'repeat'] as const;
export type StillKind = (typeof stillKinds)[number];
export const isOnStill = (kind: Kind): kind is StillKind =>
  stillKinds.some((name) => name === kind);

/** What is chosen on the still picture: of a clip, what of it is recorded. */
export const chosenKind = ({ kind, records }: Pick<Way, 'kind' | 'records'>): Kind =>
  kind === 'clip' ? records : kind;

export const kindLabels: Record<Kind, string> = {
  full: 'Full screen',
  window: 'Window',
  region: 'Region',
  shape: 'Free shape',
  part: 'Part',
  repeat: 'Repeat region',
  long: 'Long page',
  series: 'Series',
  back: 'Look back',
  clip: 'Clip',
};

/** What is heard of what is recorded. */
export const soundNames = ['shared', 'microphone'] as const;
export type SoundName = (typeof soundNames)[number];

/** What of a hand's doing is shown on a clip: rings where it clicks, the keys it presses. */
export const pressedNames = ['clicks', 'keys'] as const;
export type PressedName = (typeof pressedNames)[number];

export const shapeNames = ['loop', 'polygon', 'oval'] as const;
export type ShapeName = (typeof shapeNames)[number];

/** A size that fits any picture. */
export const waySizeSchema = z.union([
  z.strictObject({ percent: z.number().min(1).max(400) }),
  z.strictObject({ longest: z.int().min(1).max(limits.side) }),
]);
export type WaySize = z.infer<typeof waySizeSchema>;

const shape = {
  source: z.enum(takenFrom),
  kind: z.enum(kindNames),
  /** A display's id, `all`, or `current`: the one being worked on. */
  display: line(100).min(1),
  /** A window: the one in use at once, without choosing. */
  inUse: z.boolean(),
  /** A window: with the border that the window manager draws. */
  border: z.boolean(),
  /** A window: pixels around it that come along, for its shadow. */
  margin: z.int().min(0).max(100),
  /** A free shape: how it is drawn. */
  shape: z.enum(shapeNames),
  /** Letting go of the drag takes at once; else the region can be adjusted. */
  atOnce: z.boolean(),
  /** A clip: what of the source is shown of it. */
  records: z.enum(stillKinds).default('full'),
  /** A clip: the sound that goes with its pictures, where the source has it. */
  sounds: z.array(z.enum(soundNames)).max(soundNames.length).default([]),
  /** A clip: what of a hand's doing is shown on it, where the source can tell. */
  pressed: z.array(z.enum(pressedNames)).max(pressedNames.length).default([]),
  /** The pointer comes along as a loose piece. */
  pointer: z.boolean(),
  /** Seconds. */
  delay: z.number().min(0).max(limits.delay),
  /** What is done without asking, in this order. */
  then: z.array(thenStepSchema).max(8),
  /** Ask on the stilled picture instead. */
  ask: z.boolean(),
  /** A region: begins with the last one, to be adjusted. */
  fromLast: z.boolean().default(false),
  /** The size of what is copied, kept and sent; null follows each place. */
  size: waySizeSchema.nullable().default(null),
  /** The format of what is kept and sent; null follows each place. */
  format: z.enum(formatNames).nullable().default(null),
  /** A look that the shot gets as it is taken. */
  look: z.uuid().nullable().default(null),
  /** A web page: where it is, and how it is laid out. */
  page: wayPageSchema.default(firstPage),
};

/** A way of taking: what, from where, when, and what then. Every routine is one, and so is the last way. */
export const waySchema = z.strictObject(shape);
export type Way = z.infer<typeof waySchema>;
/** A change of a way; what it does not name stays, defaults or not. */
export const wayPatchSchema = z
  .strictObject({
    ...shape,
    records: z.enum(stillKinds),
    sounds: z.array(z.enum(soundNames)).max(soundNames.length),
    pressed: z.array(z.enum(pressedNames)).max(pressedNames.length),
    fromLast: z.boolean(),
    size: waySizeSchema.nullable(),
    format: z.enum(formatNames).nullable(),
    look: z.uuid().nullable(),
    page: wayPageSchema,
  })
  .partial();

export const firstWay: Way = {
  source: 'desk',
  kind: 'full',
  display: 'current',
  inUse: false,
  border: true,
  margin: 0,
  shape: 'loop',
  atOnce: false,
  records: 'full',
  sounds: [],
  pressed: [],
  pointer: false,
  delay: 0,
  then: [{ do: 'mark' }],
  ask: false,
  fromLast: false,
  size: null,
  format: null,
  look: null,
  page: firstPage,
};

/** A named way of taking, started by one key or click. */
export const routineInputSchema = z.strictObject({
  name: line(80).trim().min(1, 'must not be empty'),
  /** Starts it while Rezzik is in sight. */
  key: line(40).nullable().default(null),
  /** Starts it on this computer while Rezzik is out of sight. */
  systemKey: line(40).nullable().default(null),
  way: waySchema,
});
export type RoutineInput = z.input<typeof routineInputSchema>;
export const routinePatchSchema = z.strictObject({
  name: line(80).trim().min(1, 'must not be empty').optional(),
  key: line(40).nullable().optional(),
  systemKey: line(40).nullable().optional(),
  way: waySchema.optional(),
  /** A person has looked at one that came in with an archive. */
  confirmed: z.literal(true).optional(),
});
export const routineSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  key: z.string().nullable(),
  systemKey: z.string().nullable(),
  /** Why its system key does not work now. */
  systemKeyProblem: z.string().optional(),
  /** Came in with an archive: it takes nothing until a person confirms it. */
  unconfirmed: z.boolean(),
  way: waySchema,
});
export type Routine = z.infer<typeof routineSchema>;
export const routinesSchema = z.object({ routines: z.array(routineSchema) });
/** The ids of all routines in their new order. */
export const routineOrderSchema = z.strictObject({ ids: z.array(z.uuid()).max(200) });
