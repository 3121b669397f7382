import { z } from 'zod';
import type { Part } from './contract';
import * as list from './list';

export type PartName = keyof typeof list;

/** From the picture outwards: each is done to what those before it made. */
export const partOrder = [
  ...(['fold', 'ragged', 'border', 'tilt', 'shadow', 'background', 'caption'] as const),
  'watermark',
] as const satisfies readonly PartName[];

export const parts: { readonly [N in PartName]: (typeof list)[N] } = list;

/** What is around a picture; what is not there is not done. */
export const surroundSchema = z.strictObject({
  fold: list.fold.schema.optional(),
  ragged: list.ragged.schema.optional(),
  border: list.border.schema.optional(),
  tilt: list.tilt.schema.optional(),
  shadow: list.shadow.schema.optional(),
  background: list.background.schema.optional(),
  caption: list.caption.schema.optional(),
  watermark: list.watermark.schema.optional(),
});
export type Surround = z.infer<typeof surroundSchema>;

export const labelOf = (name: PartName): string => (parts[name] as Part<z.ZodType>).label;

/** Those that are there, from the picture outwards. */
export const partsIn = (surround: Surround | undefined): PartName[] =>
  partOrder.filter((name) => surround?.[name] !== undefined);
