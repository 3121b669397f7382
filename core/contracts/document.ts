import { z } from 'zod';
import { markSchema } from '../marks/registry';
import { limits } from './limits';
import { text } from './text';
import { pixelRectSchema, viewShapeSchema } from './shapes';

/** Raised when the shape of a document changes; older ones are upgraded on reading. */
export const DOCUMENT_VERSION = 1;

/** What a shot shows and what is drawn on it. Coordinates are frame pixels. */
export const documentSchema = z
  .strictObject({
    version: z.literal(DOCUMENT_VERSION),
    view: z.strictObject({
      /** The part of the frame that is shown. */
      crop: pixelRectSchema,
      /** A free shape within the crop; absent for the whole rectangle. */
      shape: viewShapeSchema.optional(),
    }),
    /** What is to be seen, in words. */
    description: text(limits.descriptionLength).optional(),
    /** From the lowest to the topmost. */
    marks: z.array(markSchema).max(limits.marks),
  })
  .refine((d) => new Set(d.marks.map((m) => m.id)).size === d.marks.length, {
    message: 'two marks have the same id',
    path: ['marks'],
  });

export type ShotDocument = z.infer<typeof documentSchema>;

/**
 * The document schema for a frame of a given size: the view must lie inside the frame.
 */
export const documentFor = (frame: { width: number; height: number }) =>
  documentSchema.refine(
    ({ view: { crop } }) =>
      crop.x + crop.width <= frame.width && crop.y + crop.height <= frame.height,
    { message: 'the view reaches beyond the frame', path: ['view', 'crop'] },
  );
