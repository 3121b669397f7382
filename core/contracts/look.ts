import { z } from 'zod';
import { finishSchema, type Finish } from '../finish/finish';
import { hasAllHeld } from '../document/look';
import { heldPicturesSchema } from '../values/heldPicture';
import { line } from '../values/text';

/** A named set of what is done to a picture as a whole. */
const shape = {
  name: line(80).trim().min(1, 'must not be empty'),
  /** Gives it to the shot that is open in Mark. */
  key: line(40).nullable(),
  finish: finishSchema.refine((finish: Finish) => finish.adjust ?? finish.surround, {
    message: 'nothing is done by this look',
  }),
  /** The picture of its watermark. */
  pictures: heldPicturesSchema.optional(),
};

const isWhole = {
  message: 'the watermark has no picture',
  path: ['pictures'],
};

export const lookInputSchema = z
  .strictObject({ ...shape, key: shape.key.default(null) })
  .refine(hasAllHeld, isWhole);
export type LookInput = z.input<typeof lookInputSchema>;

export const lookPatchSchema = z
  .strictObject(shape)
  .partial()
  .refine(({ finish, pictures }) => !finish || hasAllHeld({ finish, pictures }), isWhole);
export type LookPatch = z.infer<typeof lookPatchSchema>;

export const lookSchema = z.object({ id: z.uuid(), ...shape });
export type Look = z.infer<typeof lookSchema>;
export const looksSchema = z.object({ looks: z.array(lookSchema) });

/** Shots that a look is given to, in the order in which they are counted. */
export const lookShotsSchema = z.strictObject({ ids: z.array(z.uuid()).min(1).max(500) });
export const lookGivenSchema = z.object({
  given: z.int(),
  /** Shots that stay as they are, with the reason. */
  left: z.array(z.object({ id: z.uuid(), problem: z.string() })),
});
export type LookGiven = z.infer<typeof lookGivenSchema>;
