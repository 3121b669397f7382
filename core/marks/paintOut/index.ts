import { z } from 'zod';
import { colour } from '../../values/shapes';
import type { MarkKind } from '../contract';
import { areaFromPath, hideKind, hideShape } from '../hide/hideKind';

export const paintOutSchema = z.strictObject({
  ...hideShape,
  kind: z.literal('paintOut'),
  paintOut: z.enum(['across', 'colour']).default('across'),
  colour,
});
export type PaintOutMark = z.infer<typeof paintOutSchema>;

/** What is around it goes on across it, or one colour of the picture covers it. */
export const paintOut: MarkKind<PaintOutMark> = {
  ...hideKind<PaintOutMark>(['area', 'paintOut', 'colour'], (mark) =>
    mark.paintOut === 'across' ? { look: 'across' } : { look: 'colour', colour: mark.colour },
  ),
  kind: 'paintOut',
  label: 'Paint out',
  schema: paintOutSchema,
  create: (id, path, style) => ({
    id,
    kind: 'paintOut',
    ...areaFromPath(path, style),
    paintOut: style.paintOut,
    colour: style.colour,
  }),
};
