import { z } from 'zod';
import { distance } from '../../geometry/point';
import { seenShape } from '../base';
import type { MarkKind } from '../contract';
import { bentFromPath, bentKind } from '../shared/bentKind';
import { bentShape } from '../shared/bentMark';

export const lineSchema = z.strictObject({ ...seenShape, kind: z.literal('line'), ...bentShape });
export type LineMark = z.infer<typeof lineSchema>;

/** A line is an arrow whose tool starts without heads; the Marks list tells the two apart. */
export const line: MarkKind<LineMark> = {
  ...bentKind<LineMark>(),
  kind: 'line',
  label: 'Line',
  schema: lineSchema,
  create: (id, path, style) => ({ id, kind: 'line', ...bentFromPath(path, style) }),
  describe: (mark) => `${Math.round(distance(mark.from, mark.to))} px long`,
};
