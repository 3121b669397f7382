import type { MarkKind } from '../contract';
import { areaFromPath, hideKind, hideSeed } from '../hide/hideKind';
import { blurSchema, type BlurMark } from './schema';

/** Looks soft, and gives nothing away. */
export const blur: MarkKind<BlurMark> = {
  ...hideKind<BlurMark>(['area', 'strength'], (mark) => ({
    look: 'blur',
    strength: mark.strength,
    seed: hideSeed(mark),
  })),
  kind: 'blur',
  label: 'Blur',
  rank: 10,
  icon: 'M12 22a7 7 0 0 0 7-7c0-2-1-3.9-3-5.5s-3.5-4-4-6.5c-.5 2.5-2 4.9-4 6.5C6 11.1 5 13 5 15a7 7 0 0 0 7 7z',
  key: 'x',
  schema: blurSchema,
  create: (id, path, style) => ({
    id,
    kind: 'blur',
    ...areaFromPath(path, style),
    strength: style.strength,
  }),
};
