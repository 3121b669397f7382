import { z } from 'zod';
import { pictureKey } from '../../values/heldPicture';
import { coordinate, extent, pixelRectSchema } from '../../values/shapes';
import { baseShape } from '../base';
import { turnedShape } from '../shared/shapes';
import { pointerShapes } from '../names';

/** The largest pointers there are for whoever sees little; larger pictures are held by the document. */
export const MOST_SIDE = 256;

const pixelsSchema = z
  .strictObject({
    width: z.int().min(1).max(MOST_SIDE),
    height: z.int().min(1).max(MOST_SIDE),
    /** RGBA, row-major, not premultiplied, as base64. */
    rgba: z.string().max(Math.ceil((MOST_SIDE * MOST_SIDE * 4) / 3) * 4 + 4),
  })
  .refine(({ width, height, rgba }) => {
    if (!/^[A-Za-z0-9+/]*={0,2}$/.test(rgba)) return false;
    return Math.floor((rgba.replace(/=+$/, '').length * 3) / 4) === width * height * 4;
  }, 'the pixels do not fit the size');
export type PointerPixels = z.infer<typeof pixelsSchema>;

export const pieceSchema = z.strictObject({
  ...baseShape,
  kind: z.literal('piece'),
  x: coordinate,
  y: coordinate,
  width: extent,
  height: extent,
  /** The place of the piece that points, as parts of its width and height. */
  hotSpot: z.strictObject({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) }),
  /** Drawn anew at any size, when it is a known one. */
  pointer: z.enum(pointerShapes).optional(),
  pixels: pixelsSchema.optional(),
  /** Key of a picture that the document holds, its size, and the part of it that is shown. */
  picture: pictureKey.optional(),
  cut: pixelRectSchema.optional(),
  size: z.strictObject({ width: z.int().min(1), height: z.int().min(1) }).optional(),
  /** The place of the frame, as it is turned, that it shows: it can show more of it. */
  from: pixelRectSchema.optional(),
  /** The shot that it shows. */
  shot: z.uuid().optional(),
  ...turnedShape,
});
export type PieceMark = z.infer<typeof pieceSchema>;
