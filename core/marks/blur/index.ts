import { z } from 'zod';

import type { MarkKind } from '../contract';
import { areaFromPath, hideKind, hideSeed, hideShape } from '../hide/hideKind';

export const blurSchema = z.strictObject({
  ...hideShape,
  kind: z.literal('blur'),
  strength: z.number().min(2).max(60).default(10),
});
export type BlurMark = z.infer<typeof blurSchema>;

/** Looks soft, and gives nothing away. */
export const blur: MarkKind<BlurMark> = {
  ...hideKind<BlurMark>(['area', 'strength'], (mark) => ({
    look: 'blur',
    strength: mark.strength,
    seed: hideSeed(mark),
  })),
  kind: 'blur',
  label: 'Blur',
  schema: blurSchema,
  create: (id, path, style) => ({
    id,
    kind: 'blur',
    ...areaFromPath(path, style),
    strength: style.strength,
  }),
};
