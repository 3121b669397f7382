import { z } from 'zod';

import type { MarkKind } from '../contract';
import { areaFromPath, hideKind, hideSeed, hideShape } from '../hide/hideKind';

export const blocksSchema = z.strictObject({
  ...hideShape,
  kind: z.literal('blocks'),
  strength: z.number().min(2).max(60).default(12),
});
export type BlocksMark = z.infer<typeof blocksSchema>;

/** Looks coarse, and gives nothing away. */
export const blocks: MarkKind<BlocksMark> = {
  ...hideKind<BlocksMark>(['area', 'strength'], (mark) => ({
    look: 'blocks',
    strength: mark.strength,
    seed: hideSeed(mark),
  })),
  kind: 'blocks',
  label: 'Blocks',
  schema: blocksSchema,
  create: (id, path, style) => ({
    id,
    kind: 'blocks',
    ...areaFromPath(path, style),
    strength: style.strength,
  }),
};
