import { z } from 'zod';
import { seenShape } from '../base';
import type { MarkKind } from '../contract';
import { bentFromPath, bentKind } from '../shared/bentKind';
import { bentShape } from '../shared/bentMark';

export const arrowSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('arrow'),
  ...bentShape,
});
export type ArrowMark = z.infer<typeof arrowSchema>;

export const arrow: MarkKind<ArrowMark> = {
  ...bentKind<ArrowMark>(),
  kind: 'arrow',
  label: 'Arrow',
  schema: arrowSchema,
  create: (id, path, style) => ({ id, kind: 'arrow', ...bentFromPath(path, style) }),
  describe: (mark) => `to ${Math.round(mark.to.x)}, ${Math.round(mark.to.y)}`,
};
