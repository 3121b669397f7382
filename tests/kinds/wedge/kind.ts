import { contains, inflate } from '@/core/geometry/rect';
import { applyStyle, pick } from '@/core/marks/base';
import { LEAST, type MarkKind } from '@/core/marks/contract';
import {
  describeRect,
  moveRect,
  pullRect,
  rectFromPath,
  rectHandles,
  rectNumbers,
  rectTooSmall,
  throughRect,
  withRectNumber,
} from '@/core/marks/shared/rectMark';
import { wedgeSchema, type WedgeMark } from './schema';

/** A kind that Rezzik does not have: a right-angled triangle, wide at its foot. */
export const wedge: MarkKind<WedgeMark> = {
  kind: 'wedge',
  label: 'Wedge',
  group: 'Point',
  rank: 25,
  icon: 'M4 4v16h16z',
  key: 'w w',
  first: { colour: '#009E73' },
  contrast: { least: LEAST.mark },
  schema: wedgeSchema,
  blend: 'normal',
  fades: true,
  made: () => 'drag',
  settings: ['colour'],
  create: (id, path, { colour }) => ({ id, kind: 'wedge', ...rectFromPath(path), colour }),
  bounds: (mark) => inflate(mark, 1),
  tooSmall: rectTooSmall,
  handles: rectHandles,
  pull: pullRect,
  move: moveRect,
  through: throughRect,
  numbers: rectNumbers,
  withNumber: withRectNumber,
  describe: describeRect,
  hit: (mark, at, tolerance) => contains(inflate(mark, tolerance), at),
  restyle: applyStyle,
  styleOf: (mark) => pick(mark, ['colour']),
  paint(surface, { x, y, width, height, colour }) {
    surface.fillStyle = colour;
    surface.beginPath();
    surface.moveTo(x, y);
    surface.lineTo(x, y + height);
    surface.lineTo(x + width, y + height);
    surface.closePath();
    surface.fill();
  },
};
