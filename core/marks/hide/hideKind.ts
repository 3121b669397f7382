import { polygonContains } from 'd3-polygon';
import { cornersOf, uprightRect, type Mapping } from '../../geometry/mapping';
import type { Point } from '../../geometry/point';
import { boundsOf, contains, inflate, outerPixels, type Rect } from '../../geometry/rect';
import type { Outline } from '../../raster/mask';
import { seedOf } from '../../random/random';
import { applyStyle, pick } from '../base';
import type { MarkBase, MarkKind, StrokePoint } from '../contract';
import {
  describeRect,
  moveRect,
  pullRect,
  rectFromPath,
  rectHandles,
  rectNumbers,
  rectTooSmall,
  withRectNumber,
} from '../shared/rectMark';
import { ovalPoints } from '../../geometry/oval';
import { loopPoints } from '../../geometry/loop';
import type { Style } from '../style';
import type { AreaName } from '../names';
import type { Look } from './looks';

export interface HideMark extends MarkBase, Rect {
  area: AreaName;
  points?: [number, number][] | undefined;
}

export function outlineOf({ area, points, x, y, width, height }: HideMark): Outline {
  if (area === 'free' && points) return { area, points };
  return { area: area === 'oval' ? 'oval' : 'box', x, y, width, height };
}

export function areaFromPath(path: readonly StrokePoint[], { area }: Style) {
  if (area !== 'free') {
    const { x, y, width, height } = rectFromPath(path);
    return { x, y, width, height, area };
  }
  const points = loopPoints(path.map(({ x, y }) => ({ x, y })));
  return {
    ...boundsOf(points),
    area,
    points: points.map(({ x, y }): [number, number] => [hundredth(x), hundredth(y)]),
  };
}

const hundredth = (v: number): number => Math.round(v * 100) / 100;

/** Points go with the rectangle around them. */
function fitted<M extends HideMark>(before: M, to: Rect): M {
  const { points } = before;
  const next = { ...before, x: to.x, y: to.y, width: to.width, height: to.height };
  if (!points) return next;
  const sx = before.width > 0 ? to.width / before.width : 1;
  const sy = before.height > 0 ? to.height / before.height : 1;
  return {
    ...next,
    points: points.map(([x, y]) => [
      hundredth(to.x + (x - before.x) * sx),
      hundredth(to.y + (y - before.y) * sy),
    ]),
  };
}

/** A box or oval that no longer stands upright hides as an area of its own outline. */
function throughHide<M extends HideMark>(mark: M, map: Mapping): M {
  const { area, points } = mark;
  const upright = Math.abs(map.angle % 90) < 1e-6 && area !== 'free';
  if (upright && isParallel(mark, map)) return { ...mark, ...uprightRect(mark, map) };
  const outline =
    area === 'free' && points
      ? points.map(([x, y]) => ({ x, y }))
      : area === 'oval'
        ? ovalPoints(mark)
        : cornersOf(mark);
  const to = outline.map(map.point);
  return {
    ...mark,
    area: 'free',
    ...boundsOf(to),
    points: to.map(({ x, y }): [number, number] => [hundredth(x), hundredth(y)]),
  };
}

/** True when the rectangle stays one. */
function isParallel(r: Rect, map: Mapping): boolean {
  const [a, b, c, d] = cornersOf(r).map(map.point);
  if (!a || !b || !c || !d) return false;
  return Math.hypot(a.x + c.x - b.x - d.x, a.y + c.y - b.y - d.y) < 1e-6;
}

function hitArea(mark: HideMark, at: Point, tolerance: number): boolean {
  if (!contains(inflate(mark, tolerance), at)) return false;
  return mark.area !== 'free' || !mark.points || polygonContains(mark.points, [at.x, at.y]);
}

/** How far a hidden area looks around itself, pixels; further away nothing of it changes. */
const REACH = 26;

/** The seed of a mark's look: its own, and the same on every repaint. */
export const hideSeed = (mark: MarkBase): number => seedOf(mark.id);

/**
 * Everything that is the same for all ways of hiding. What they paint is worked out before any mark
 * is painted, from what is around all hidden areas: see core/paint/scene.ts.
 */
export function hideKind<M extends HideMark>(
  settings: readonly (keyof Style)[],
  look: (mark: M) => Look,
): Omit<MarkKind<M>, 'kind' | 'label' | 'rank' | 'icon' | 'schema' | 'create'> {
  const own = settings.filter((field) => field !== 'area');
  return {
    group: 'Hide',
    reach: REACH,
    blend: 'normal',
    made: ({ area }) => (area === 'free' ? 'stroke' : 'drag'),
    settings,
    tooSmall: rectTooSmall,
    bounds: (mark) => outerPixels(inflate(mark, 1)),
    hit: hitArea,
    handles: rectHandles,
    pull: (mark, handle, to, keep) => fitted(mark, pullRect({ ...mark }, handle, to, keep)),
    move: (mark, by) => fitted(mark, moveRect({ ...mark }, by)),
    through: throughHide,
    numbers: rectNumbers,
    withNumber: (mark, field, value) => fitted(mark, withRectNumber({ ...mark }, field, value)),
    restyle(mark, style) {
      const { area, ...rest } = style;
      const shaped = area && area !== 'free' ? { ...mark, area, points: undefined } : mark;
      return applyStyle(shaped, rest);
    },
    styleOf: (mark) => ({ area: mark.area, ...pick(mark as M & Style, own) }),
    hide: (mark) => ({ outline: outlineOf(mark), look: look(mark) }),
    paint: (surface, mark, _tools, scene) => scene.drawPatch(surface, mark.id),
    describe: describeRect,
  };
}
