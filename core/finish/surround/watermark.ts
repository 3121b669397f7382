import { z } from 'zod';
import { faces } from '../../drawing/names';
import { colour, opacity } from '../../values/shapes';
import { pictureKey } from '../../values/heldPicture';
import { text } from '../../values/text';
import type { Part } from './contract';

export const places = [
  ...(['top left', 'top', 'top right'] as const),
  ...(['left', 'middle', 'right'] as const),
  ...(['bottom left', 'bottom', 'bottom right'] as const),
] as const;
export type Place = (typeof places)[number];

const schema = z.strictObject({
  text: text(200),
  /** A held picture, in place of words. */
  picture: pictureKey.optional(),
  face: z.enum(faces),
  colour,
  place: z.enum(places),
  /** Width in percent of the whole. */
  size: z.int().min(1).max(100),
  opacity,
  /** Again and again, all over. */
  tiled: z.boolean(),
});
export type Watermark = z.infer<typeof schema>;

export const watermark: Part<typeof schema> = {
  label: 'Watermark',
  schema,
  first: {
    ...{ text: 'Draft', face: 'display', colour: '#15302A', place: 'middle' },
    ...{ size: 40, opacity: 0.2, tiled: false },
  },
};

/** How far from the edge of the whole it stands, of the whole's shorter side. */
export const MARGIN = 0.03;

/** How far a place is across and down: 0, ½ or 1. */
export const alongOf = (place: Place): readonly [number, number] => {
  const at = places.indexOf(place);
  return [(at % 3) / 2, Math.floor(at / 3) / 2];
};
