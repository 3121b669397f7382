import { LEAST, type MarkKind } from '../contract';
import { bentFromPath, bentKind } from '../shared/bentKind';
import { arrowSchema, type ArrowMark } from './schema';

export const arrow: MarkKind<ArrowMark> = {
  ...bentKind<ArrowMark>(),
  kind: 'arrow',
  label: 'Arrow',
  rank: 10,
  icon: 'M7 7h10v10M7 17 17 7',
  key: 'a',
  directed: true,
  contrast: { least: LEAST.mark },
  schema: arrowSchema,
  create: (id, path, style) => ({ id, kind: 'arrow', ...bentFromPath(path, style) }),
  describe: (mark) => `to ${Math.round(mark.to.x)}, ${Math.round(mark.to.y)}`,
};
