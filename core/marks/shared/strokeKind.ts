import { pullGrip, isGrip, grips, gripPoint } from '../../geometry/resize';
import { applyStyle, pick } from '../base';
import type { MarkBase, MarkKind } from '../contract';
import {
  fitStroke,
  moveStroke,
  strokeThrough,
  strokeBounds,
  strokeExtent,
  strokeHit,
  strokeNumbers,
  withStrokeNumber,
  type StrokeMark,
} from './strokeMark';

const settings = ['colour', 'thickness'] as const;

/** Everything but making, painting and describing, which is the same for all strokes. */
export function strokeKind<M extends MarkBase & StrokeMark>(): Pick<
  MarkKind<M>,
  | 'made'
  | 'settings'
  | 'tooSmall'
  | 'bounds'
  | 'hit'
  | 'handles'
  | 'pull'
  | 'move'
  | 'through'
  | 'numbers'
  | 'withNumber'
  | 'restyle'
  | 'styleOf'
> {
  return {
    made: () => 'stroke',
    settings,
    tooSmall: () => false,
    bounds: strokeBounds,
    hit: strokeHit,
    handles(mark) {
      const extent = strokeExtent(mark);
      if (extent.width === 0 && extent.height === 0) return [];
      // A side without extent cannot be pulled out of nothing.
      const useful = grips.filter(
        (grip) =>
          (extent.height > 0 || !/[ns]/.test(grip)) && (extent.width > 0 || !/[ew]/.test(grip)),
      );
      return useful.map((grip) => ({ id: grip, at: gripPoint(extent, grip), role: 'resize' }));
    },
    pull: (mark, handle, to, keep) =>
      isGrip(handle) ? fitStroke(mark, pullGrip(strokeExtent(mark), handle, to, keep)) : mark,
    move: moveStroke,
    through: strokeThrough,
    numbers: strokeNumbers,
    withNumber: withStrokeNumber,
    restyle: applyStyle,
    styleOf: (mark) => pick(mark, settings),
  };
}
