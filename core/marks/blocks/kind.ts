import type { MarkKind } from '../contract';
import { areaFromPath, hideKind, hideSeed } from '../hide/hideKind';
import { blocksSchema, type BlocksMark } from './schema';

/** Looks coarse, and gives nothing away. */
export const blocks: MarkKind<BlocksMark> = {
  ...hideKind<BlocksMark>(['area', 'strength'], (mark) => ({
    look: 'blocks',
    strength: mark.strength,
    seed: hideSeed(mark),
  })),
  kind: 'blocks',
  label: 'Blocks',
  rank: 20,
  icon: 'M12 3v18M3 12h18M5 3h14a2 2 0 0 1 2 2v14a2 2 0 0 1 -2 2h-14a2 2 0 0 1 -2 -2v-14a2 2 0 0 1 2 -2z',
  key: 'q',
  first: { strength: 14 },
  schema: blocksSchema,
  create: (id, path, style) => ({
    id,
    kind: 'blocks',
    ...areaFromPath(path, style),
    strength: style.strength,
  }),
};
