import { distance } from '../../geometry/point';
import { LEAST, type MarkKind } from '../contract';
import { bentFromPath, bentKind } from '../shared/bentKind';
import { lineSchema, type LineMark } from './schema';

/** A line is an arrow whose tool starts without heads; the Marks list tells the two apart. */
export const line: MarkKind<LineMark> = {
  ...bentKind<LineMark>(),
  kind: 'line',
  label: 'Line',
  rank: 20,
  icon: 'M5 12h14',
  key: 'l',
  first: { heads: 'none' },
  directed: true,
  alongRail: true,
  contrast: { least: LEAST.mark },
  schema: lineSchema,
  create: (id, path, style) => ({ id, kind: 'line', ...bentFromPath(path, style) }),
  describe: (mark) => `${Math.round(distance(mark.from, mark.to))} px long`,
};
