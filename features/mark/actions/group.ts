import { stretching, turning, type Mapping } from '@/core/geometry/mapping';
import type { Point } from '@/core/geometry/point';
import { bottom, centre, right, union, type Rect } from '@/core/geometry/rect';
import { gripPoint, grips, isGrip, pullGrip } from '@/core/geometry/resize';
import { kindOf, markBounds, type Mark } from '@/core/marks/registry';
import type { Handle } from '@/core/marks/contract';
import { replaceMarks } from './change';
import { selectedMarks } from '../session/select';
import { session } from '../session/session';

/** Several marks that are sized and turned as one. */
export interface Group {
  marks: readonly Mark[];
  box: Rect;
}

export function groupOf(marks: readonly Mark[]): Group {
  const { shaper } = session();
  return { marks, box: union(marks.map((mark) => markBounds(mark, { shaper }))) };
}

export const groupHandles = ({ box }: Group): Handle[] => [
  ...grips.map((grip) => ({ id: grip, at: gripPoint(box, grip), role: 'resize' as const })),
  {
    id: 'turn',
    at: { x: centre(box).x, y: box.y },
    away: { x: 0, y: -1 },
    role: 'turn',
  },
];

const through = (marks: readonly Mark[], map: Mapping): Mark[] => {
  const { shaper } = session();
  return marks.map((mark) => kindOf(mark).through(mark, map, { shaper }));
};

const LEAST = 4;
const STEP = 15;

/** The group's marks while one of its handles is pulled. `keep`: its ratio, or steps of 15°. */
export function pulledGroup(
  { marks, box }: Group,
  handle: string,
  to: Point,
  keep: boolean,
): Mark[] {
  if (handle === 'turn') {
    const c = centre(box);
    const angle = (Math.atan2(to.y - c.y, to.x - c.x) * 180) / Math.PI + 90;
    return through(marks, turning(c, keep ? Math.round(angle / STEP) * STEP : angle));
  }
  if (!isGrip(handle)) return [...marks];
  const pulled = pullGrip(box, handle, to, keep || handle.length === 2);
  const next = {
    ...pulled,
    width: Math.max(LEAST, pulled.width),
    height: Math.max(LEAST, pulled.height),
  };
  return through(marks, stretching(box, next));
}

const chosen = (): Mark[] => selectedMarks().filter((mark) => !mark.locked);

/** A side of what surrounds the selected marks, typed. */
export function setGroupNumber(field: keyof Rect, value: number): void {
  const group = groupOf(chosen());
  if (group.marks.length === 0) return;
  const size = field === 'width' || field === 'height';
  const next = { ...group.box, [field]: size ? Math.max(LEAST, value) : value };
  replaceMarks(through(group.marks, stretching(group.box, next)), 'Size several');
}

/** Turns the selected marks together. @param degrees clockwise */
export function turnGroup(degrees: number): void {
  const group = groupOf(chosen());
  if (group.marks.length === 0 || degrees === 0) return;
  replaceMarks(through(group.marks, turning(centre(group.box), degrees)), 'Turn several');
}

/** True where a handle of the group's box would lie on another. */
export const tooSmallForHandles = (box: Rect, scale: number): boolean =>
  (right(box) - box.x) * scale < 24 && (bottom(box) - box.y) * scale < 24;
