import { z } from 'zod';
import { distance } from '../../geometry/point';
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

export const arrowSchema = z.strictObject({
  ...baseShape,
  kind: z.literal('arrow'),
  ...bentShape,
});
export type ArrowMark = z.infer<typeof arrowSchema>;

const settings = ['colour', 'thickness', 'heads', 'dashed'] as const;

export const arrow: MarkKind<ArrowMark> = {
  kind: 'arrow',
  label: 'Arrow',
  group: 'Point',
  schema: arrowSchema,
  blend: 'normal',
  made: 'drag',
  settings,
  create(id, path, style) {
    const from = path[0] ?? { x: 0, y: 0 };
    const to = path.at(-1) ?? from;
    return {
      id,
      kind: 'arrow',
      from: { x: from.x, y: from.y },
      to: { x: to.x, y: to.y },
      bend: null,
      colour: style.colour,
      thickness: style.thickness,
      heads: style.heads,
      dashed: style.dashed,
    };
  },
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
  describe: (mark) => `to ${Math.round(mark.to.x)}, ${Math.round(mark.to.y)}`,
};
