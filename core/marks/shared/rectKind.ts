import { applyStyle } from '../base';
import type { MarkBase, MarkKind } from '../contract';
import {
  describeRect,
  moveRect,
  pullRect,
  rectBounds,
  rectHandles,
  rectNumbers,
  rectTooSmall,
  throughRect,
  withRectNumber,
  type RectMark,
} from './rectMark';

/** Everything that is the same for boxes and ovals. */
export const rectKind = <M extends MarkBase & RectMark>() =>
  ({
    group: 'Enclose',
    blend: 'normal',
    fades: true,
    made: () => 'drag',
    tooSmall: rectTooSmall,
    bounds: rectBounds,
    handles: rectHandles,
    pull: pullRect,
    move: moveRect,
    through: throughRect,
    numbers: rectNumbers,
    withNumber: withRectNumber,
    restyle: applyStyle,
    describe: describeRect,
  }) satisfies Partial<MarkKind<M>>;
