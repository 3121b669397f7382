import { z } from 'zod';
import { inflate } from '../../geometry/rect';
import { applyStyle, baseShape, pick } from '../base';
import type { MarkKind } from '../contract';
import { tips } from '../names';
import { strokeKind } from '../shared/strokeKind';
import { storedPoints, strokeExtent, strokeShape } from '../shared/strokeMark';
import { paintTip } from './tips';

export const penSchema = z.strictObject({
  ...baseShape,
  kind: z.literal('pen'),
  tip: z.enum(tips),
  ...strokeShape,
});
export type PenMark = z.infer<typeof penSchema>;

const settings = ['tip', 'colour', 'thickness'] as const;

/** A stroke by hand, stored as its points, so that tip and thickness can be changed at any time. */
export const pen: MarkKind<PenMark> = {
  ...strokeKind<PenMark>(),
  kind: 'pen',
  label: 'Pen',
  group: 'Draw',
  schema: penSchema,
  blend: 'normal',
  settings,
  create: (id, path, style) => ({
    id,
    kind: 'pen',
    tip: style.tip,
    points: storedPoints(path),
    colour: style.colour,
    thickness: style.thickness,
  }),
  bounds: (mark) => inflate(strokeExtent(mark), mark.thickness * 0.75 + 2),
  restyle: applyStyle,
  styleOf: (mark) => pick(mark, settings),
  paint: paintTip,
  describe: (mark) => `${mark.tip}, ${mark.thickness} px`,
};
