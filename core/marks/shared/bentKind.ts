import { distance } from '../../geometry/point';
import { applyStyle, pick } from '../base';
import type { MarkBase, MarkKind, StrokePoint } from '../contract';
import type { Style } from '../style';
import {
  bentMarkBounds,
  bentMarkHandles,
  bentMarkHit,
  bentNumbers,
  bentThrough,
  moveBent,
  pullBent,
  withBentNumber,
  type BentMark,
} from './bentMark';
import { paintBent } from './paintBent';

const settings = ['colour', 'thickness', 'heads', 'headShape', 'taper', 'dashed'] as const;

/** A straight mark from the first to the last point of a path. */
export function bentFromPath(path: readonly StrokePoint[], style: Style): BentMark {
  const from = path[0] ?? { x: 0, y: 0 };
  const to = path.at(-1) ?? from;
  return {
    from: { x: from.x, y: from.y },
    to: { x: to.x, y: to.y },
    bend: null,
    colour: style.colour,
    thickness: style.thickness,
    heads: style.heads,
    dashed: style.dashed,
    headShape: style.headShape,
    taper: style.taper,
  };
}

/** Everything but names, making and describing, which is the same for arrows and lines. */
export const bentKind = <M extends MarkBase & BentMark>() =>
  ({
    group: 'Point',
    blend: 'normal',
    fades: true,
    made: () => 'drag',
    settings,
    tooSmall: (mark) => distance(mark.from, mark.to) < 4,
    bounds: bentMarkBounds,
    hit: bentMarkHit,
    handles: bentMarkHandles,
    pull: pullBent,
    move: moveBent,
    through: bentThrough,
    numbers: bentNumbers,
    withNumber: withBentNumber,
    restyle: applyStyle,
    styleOf: (mark) => pick(mark, settings),
    paint: paintBent,
  }) satisfies Omit<
    MarkKind<M>,
    'kind' | 'label' | 'rank' | 'icon' | 'schema' | 'create' | 'describe'
  >;
