import { z } from 'zod';
import { colour } from '../../values/shapes';
import type { MarkKind } from '../contract';
import { areaFromPath, hideKind, hideShape } from '../hide/hideKind';

export const coverSchema = z.strictObject({
  ...hideShape,
  kind: z.literal('cover'),
  colour,
});
export type CoverMark = z.infer<typeof coverSchema>;

/** One plain colour. */
export const cover: MarkKind<CoverMark> = {
  ...hideKind<CoverMark>(['area', 'colour'], (mark) => ({ look: 'colour', colour: mark.colour })),
  kind: 'cover',
  label: 'Cover',
  schema: coverSchema,
  create: (id, path, style) => ({
    id,
    kind: 'cover',
    ...areaFromPath(path, style),
    colour: style.colour,
  }),
};
