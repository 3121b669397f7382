import { z } from 'zod';

export const linkInputSchema = z.strictObject({
  /** Days until it ends; null for never. */
  days: z.number().min(0.001).max(3650).nullable().default(7),
  /** After so many views it ends; null for any number. */
  mostViews: z.int().min(1).max(1_000_000).nullable().default(null),
  /** Title and description are shown beside the picture. */
  words: z.boolean().default(true),
});
export type LinkInput = z.input<typeof linkInputSchema>;

export const linkSchema = z.object({
  id: z.uuid(),
  title: z.string(),
  /** Page and picture, relative to where this Rezzik is reached. */
  path: z.string(),
  picturePath: z.string(),
  /** It plays a film, which begins with that picture. */
  film: z.boolean(),
  /** Whole address on this computer, and for others where Setup opens one. */
  address: z.string(),
  openAddress: z.string().nullable(),
  madeAt: z.iso.datetime(),
  endsAt: z.iso.datetime().nullable(),
  views: z.int(),
  mostViews: z.int().nullable(),
  ended: z.boolean(),
});
export type Link = z.infer<typeof linkSchema>;
export const linksSchema = z.object({ links: z.array(linkSchema) });
