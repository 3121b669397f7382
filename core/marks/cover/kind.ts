import type { MarkKind } from '../contract';
import { areaFromPath, hideKind } from '../hide/hideKind';
import { coverSchema, type CoverMark } from './schema';

/** One plain colour. */
export const cover: MarkKind<CoverMark> = {
  ...hideKind<CoverMark>(['area', 'colour'], (mark) => ({ look: 'colour', colour: mark.colour })),
  kind: 'cover',
  label: 'Cover',
  rank: 30,
  icon: 'M4 6h16a2 2 0 0 1 2 2v8a2 2 0 0 1 -2 2h-16a2 2 0 0 1 -2 -2v-8a2 2 0 0 1 2 -2z',
  key: 'j',
  first: { colour: '#000000' },
  schema: coverSchema,
  create: (id, path, style) => ({
    id,
    kind: 'cover',
    ...areaFromPath(path, style),
    colour: style.colour,
  }),
};
