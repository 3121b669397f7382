import { z } from 'zod';
import { centre } from '../../geometry/rect';
import { ovalPath } from '../../paint/paths';
import { applyStyle, baseShape, pick } from '../base';
import type { MarkKind } from '../contract';
import {
  describeRect,
  moveRect,
  paintEnclosing,
  pullRect,
  rectBounds,
  rectFromPath,
  rectHandles,
  rectNumbers,
  rectShape,
  rectStyle,
  rectTooSmall,
  withRectNumber,
} from '../shared/rectMark';

export const ovalSchema = z.strictObject({ ...baseShape, kind: z.literal('oval'), ...rectShape });
export type OvalMark = z.infer<typeof ovalSchema>;

const settings = ['colour', 'outline', 'fill', 'fillOpacity', 'dashed'] as const;

export const oval: MarkKind<OvalMark> = {
  kind: 'oval',
  label: 'Oval',
  group: 'Enclose',
  schema: ovalSchema,
  blend: 'normal',
  made: 'drag',
  settings,
  create: (id, path, style) => ({ id, kind: 'oval', ...rectFromPath(path), ...rectStyle(style) }),
  tooSmall: rectTooSmall,
  bounds: rectBounds,
  hit(mark, at, tolerance) {
    const c = centre(mark);
    /** (x/a)² + (y/b)²: below 1 inside the oval whose half axes are grown by `by`. */
    const level = (by: number) => {
      const a = mark.width / 2 + by;
      const b = mark.height / 2 + by;
      if (a <= 0 || b <= 0) return Infinity;
      return ((at.x - c.x) / a) ** 2 + ((at.y - c.y) / b) ** 2;
    };
    const reach = mark.outline / 2 + tolerance;
    return level(reach) <= 1 && (mark.fill !== null || level(-reach) >= 1);
  },
  handles: rectHandles,
  pull: pullRect,
  move: moveRect,
  numbers: rectNumbers,
  withNumber: withRectNumber,
  restyle: applyStyle,
  styleOf: (mark) => pick(mark, settings),
  paint: (surface, mark) => paintEnclosing(surface, mark, () => ovalPath(surface, mark)),
  describe: describeRect,
};
