import { z } from 'zod';

/** Most pictures of a film. */
export const MOST_PICTURES = 60_000;

const picture = z.int().min(0).max(MOST_PICTURES);

/** Pictures of a film from one, and up to but without another, by their numbers from 0. */
export const stretchSchema = z
  .strictObject({ from: picture, to: picture })
  .refine(({ from, to }) => from < to, 'from must come before to');
export type Stretch = z.infer<typeof stretchSchema>;

export const isIn = ({ from, to }: Stretch, picture: number): boolean =>
  picture >= from && picture < to;
