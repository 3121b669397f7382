import { z } from 'zod';
import { isSound } from '../geometry/homography';
import { limits } from '../values/limits';
import { colour, pointSchema } from '../values/shapes';
import { MOST_PICTURES } from '../values/stretch';

const side = z.int().min(1).max(limits.side);

/**
 * How the frame is turned before anything is shown of it, in this order: four corners pulled
 * square, mirrored, quarter turns, a free angle. Angles in degrees, clockwise.
 */
export const turnSchema = z.strictObject({
  quarters: z.int().min(0).max(3).default(0),
  /** Left and right change places. */
  mirrored: z.boolean().default(false),
  angle: z.number().min(-45).max(45).default(0),
  /** Corners in the frame, from the top left one clockwise, and the size they are pulled to. */
  square: z
    .strictObject({
      corners: z
        .tuple([pointSchema, pointSchema, pointSchema, pointSchema])
        .refine((quad) => isSound(quad), 'the corners do not go around a plain four-sided area'),
      width: side,
      height: side,
    })
    .refine(({ width, height }) => width * height <= limits.pixels, 'too many pixels')
    .optional(),
});
export type Turn = z.infer<typeof turnSchema>;

const roomSide = z.int().min(0).max(8_000);
/** Room beside the crop that belongs to the view: it can be marked. Pixels of the frame. */
export const roomSchema = z.strictObject({
  top: roomSide,
  right: roomSide,
  bottom: roomSide,
  left: roomSide,
  /** Null leaves it transparent. */
  colour: colour.nullable(),
});
export type Room = z.infer<typeof roomSchema>;

/** What a view shows of its crop; outside it the picture is transparent. Points are frame pixels. */
export const viewShapeSchema = z.discriminatedUnion('kind', [
  /** Fills the crop. */
  z.strictObject({ kind: z.literal('oval') }),
  z.strictObject({ kind: z.literal('polygon'), points: z.array(pointSchema).min(3).max(2_000) }),
]);
export type ViewShape = z.infer<typeof viewShapeSchema>;

const away = z.int().min(-limits.side).max(limits.side);
/**
 * Of a clip, what its view follows: from which picture on that lies how far from where it lay at
 * first, pixels of the frame.
 */
export const followSchema = z
  .array(z.strictObject({ from: z.int().min(0).max(MOST_PICTURES), x: away, y: away }))
  .max(MOST_PICTURES)
  .refine(
    (all) => all.every(({ from }, i) => from > (all[i - 1]?.from ?? -1)),
    'must come in order',
  );
export type Follow = z.infer<typeof followSchema>;
