import type { Size } from '../geometry/size';
import { z } from 'zod';
import { finishSchema } from '../finish/finish';
import { readAs } from './read';
import { upgradedDocument } from './upgrade/upgrade';
import { DOCUMENT_VERSION } from './version';
import { markSchema } from '../marks/registry';
import { pictureSize } from './turn';
import { limits } from '../values/limits';
import { text } from '../values/text';
import { heldPicturesSchema, type HeldPictures } from '../values/heldPicture';
import { pixelRectSchema } from '../values/shapes';
import { followSchema, roomSchema, turnSchema, viewShapeSchema } from './viewSchema';

const thisVersion = z
  .strictObject({
    version: z.literal(DOCUMENT_VERSION),
    view: z.strictObject({
      /** The part of the frame that is shown. */
      crop: pixelRectSchema,
      /** How the frame is turned; crop, shape and marks lie on the turned picture. */
      turn: turnSchema.optional(),
      /** A free shape within the crop; absent for the whole rectangle. */
      shape: viewShapeSchema.optional(),
      /** Room beside the crop; a free shape has none. */
      room: roomSchema.optional(),
      /** Of a clip: what it follows, with all that lies on it. */
      follow: followSchema.optional(),
    }),
    /** What is to be seen, in words. */
    description: text(limits.descriptionLength).optional(),
    /** The pictures of pieces. */
    pictures: heldPicturesSchema.optional(),
    /** What is done to the whole picture. */
    finish: finishSchema.optional(),
    /** From the lowest to the topmost. */
    marks: z.array(markSchema).max(limits.marks),
  })
  .refine((d) => new Set(d.marks.map((m) => m.id)).size === d.marks.length, {
    message: 'two marks have the same id',
    path: ['marks'],
  })
  .refine((d) => hasOwn(d.pictures, d.finish?.surround?.watermark?.picture), {
    message: 'the watermark has no picture',
    path: ['pictures'],
  })
  .refine((d) => d.marks.every((m) => !('picture' in m) || hasOwn(d.pictures, m.picture)), {
    message: 'a piece has no picture',
    path: ['pictures'],
  });

const hasOwn = (held: HeldPictures | undefined, key: string | undefined): boolean =>
  key === undefined || (held !== undefined && Object.hasOwn(held, key));

/**
 * What a shot shows and what is drawn on it. Coordinates are frame pixels, of the turned frame if it
 * is. Documents of older versions are read as this one.
 */
export const documentSchema = z.preprocess(readAs('document', upgradedDocument), thisVersion);
export type ShotDocument = z.infer<typeof documentSchema>;

/**
 * The document schema for a frame of a given size: the view must lie inside the frame.
 */
export const documentFor = (frame: Size) =>
  documentSchema.refine(
    ({ view: { crop, turn } }) => {
      const picture = pictureSize(frame, turn);
      return crop.x + crop.width <= picture.width && crop.y + crop.height <= picture.height;
    },
    { message: 'the view reaches beyond the frame', path: ['view', 'crop'] },
  );
