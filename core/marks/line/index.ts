import { z } from 'zod';
import { distance } from '../../geometry/point';
import { arrow } from '../arrow';
import { applyStyle, baseShape, pick } from '../base';
import type { MarkKind } from '../contract';
import {
  bentMarkBounds,
  bentMarkHandles,
  bentMarkHit,
  bentNumbers,
  bentShape,
  moveBent,
  paintBent,
  pullBent,
  withBentNumber,
} from '../shared/bentMark';

export const lineSchema = z.strictObject({
  ...baseShape,
  kind: z.literal('line'),
  ...bentShape,
});
export type LineMark = z.infer<typeof lineSchema>;

const settings = ['colour', 'thickness', 'heads', 'dashed'] as const;

/** A line is an arrow whose tool starts without heads; the Marks list tells the two apart. */
export const line: MarkKind<LineMark> = {
  kind: 'line',
  label: 'Line',
  group: 'Point',
  schema: lineSchema,
  blend: 'normal',
  made: 'drag',
  settings,
  create: (id, path, style) => ({ ...arrow.create(id, path, style), kind: 'line' }),
  tooSmall: (mark) => distance(mark.from, mark.to) < 4,
  bounds: bentMarkBounds,
  hit: bentMarkHit,
  handles: bentMarkHandles,
  pull: pullBent,
  move: moveBent,
  numbers: bentNumbers,
  withNumber: withBentNumber,
  restyle: applyStyle,
  styleOf: (mark) => pick(mark, settings),
  paint: paintBent,
  describe: (mark) => `${Math.round(distance(mark.from, mark.to))} px long`,
};
