import type { MarkKind } from '../contract';
import { areaFromPath, hideKind } from '../hide/hideKind';
import { paintOutSchema, type PaintOutMark } from './schema';

/** What is around it goes on across it, or one colour of the picture covers it. */
export const paintOut: MarkKind<PaintOutMark> = {
  ...hideKind<PaintOutMark>(['area', 'paintOut', 'colour'], (mark) =>
    mark.paintOut === 'across' ? { look: 'across' } : { look: 'colour', colour: mark.colour },
  ),
  kind: 'paintOut',
  label: 'Paint out',
  rank: 40,
  icon: 'M4 2h12a2 2 0 0 1 2 2v2a2 2 0 0 1 -2 2h-12a2 2 0 0 1 -2 -2v-2a2 2 0 0 1 2 -2zM10 16v-2a2 2 0 0 1 2-2h8a2 2 0 0 0 2-2V7a2 2 0 0 0-2-2h-2M9 16h2a1 1 0 0 1 1 1v4a1 1 0 0 1 -1 1h-2a1 1 0 0 1 -1 -1v-4a1 1 0 0 1 1 -1z',
  key: 'z',
  first: { colour: '#FFFFFF' },
  schema: paintOutSchema,
  create: (id, path, style) => ({
    id,
    kind: 'paintOut',
    ...areaFromPath(path, style),
    paintOut: style.paintOut,
    colour: style.colour,
  }),
};
