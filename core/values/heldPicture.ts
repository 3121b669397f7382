import { z } from 'zod';
import { limits } from './limits';

/** A picture that pieces of a shot show, as PNG (W3C, PNG Third Edition) in base64. */
export const heldPictureSchema = z.strictObject({
  width: z.int().min(1).max(limits.side),
  height: z.int().min(1).max(limits.side),
  png: z
    .base64()
    .min(60)
    .max(Math.ceil(limits.heldPictureBytes / 3) * 4),
});
export type HeldPicture = z.infer<typeof heldPictureSchema>;

export const pictureKey = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/);

/** By a key of the document's own. */
export const heldPicturesSchema = z
  .record(pictureKey, heldPictureSchema)
  .refine(
    (held) =>
      Object.values(held).reduce((sum, { png }) => sum + png.length, 0) <= limits.heldPicturesText,
    'the pictures lying on this shot are too large together',
  );
export type HeldPictures = z.infer<typeof heldPicturesSchema>;
