import { z } from 'zod';
import { limits } from '../values/limits';
import { displayShotSchema } from './display';

/** Whether the last seconds of this computer's screen are held, and how that goes. */
export const heldAnswerSchema = z.object({
  on: z.boolean(),
  /** How far it goes back, ms. */
  reach: z.number().optional(),
  bytes: z.number().optional(),
  /** It goes back less far than it should: there is no more room. */
  shortened: z.boolean().optional(),
  /** It ends by itself when the screen is locked: the desktop tells of that. */
  locks: z.boolean().optional(),
  /** Why it ended by itself. */
  why: z.string().optional(),
});
export type HeldAnswer = z.infer<typeof heldAnswerSchema>;

/** On begins; off leaves nothing of it; going on, after the moments were looked at, begins nothing. */
export const heldPatchSchema = z.union([
  z.strictObject({ on: z.boolean() }),
  z.strictObject({ goOn: z.literal(true) }),
]);
export type HeldPatch = z.infer<typeof heldPatchSchema>;

export const heldMomentsSchema = z.object({
  /** The clock of who holds them, ms: how long ago they were. */
  now: z.number(),
  /** Oldest first; each was seen from `since` to `until`, ms, null for the one that still stands. */
  moments: z.array(z.object({ id: z.int(), since: z.number(), until: z.number().nullable() })),
});
export type HeldMoments = z.infer<typeof heldMomentsSchema>;

/** How large a moment is looked at. */
export const heldPictureSchema = z.strictObject({
  width: z.coerce.number().int().min(16).max(limits.side).default(1920),
});

/** A shot of a moment: what is wished for of one that is taken now, but its delay. */
export const heldShotSchema = displayShotSchema.omit({ delay: true });
