import { polygonContains } from 'd3-polygon';
import { distanceToPolyline, type Point } from '../../geometry/point';
import { boundsOf, inflate, type Rect } from '../../geometry/rect';
import { applyStyle, pick } from '../base';
import { LEAST, type MarkKind } from '../contract';
import { paintEnclosing, rectNumbers, rectStyle } from '../shared/rectMark';
import { polygonSchema, type PolygonMark } from './schema';

const settings = ['colour', 'outline', 'fill', 'fillOpacity', 'dashed'] as const;

const corners = (mark: PolygonMark): Point[] => mark.points.map(([x, y]) => ({ x, y }));
const extentOf = (mark: PolygonMark): Rect => boundsOf(corners(mark));

function fitted(mark: PolygonMark, to: Rect): PolygonMark {
  const from = extentOf(mark);
  const sx = from.width > 0 ? to.width / from.width : 1;
  const sy = from.height > 0 ? to.height / from.height : 1;
  return {
    ...mark,
    points: mark.points.map(([x, y]) => [to.x + (x - from.x) * sx, to.y + (y - from.y) * sy]),
  };
}

/** A closed line from corner to corner. */
export const polygon: MarkKind<PolygonMark> = {
  kind: 'polygon',
  label: 'Polygon',
  group: 'Enclose',
  rank: 30,
  icon: 'M10.83 2.38a2 2 0 0 1 2.34 0l8 5.74a2 2 0 0 1 .73 2.25l-3.04 9.26a2 2 0 0 1-1.9 1.37H7.04a2 2 0 0 1-1.9-1.37L2.1 10.37a2 2 0 0 1 .73-2.25z',
  key: 'y',
  contrast: { least: LEAST.mark },
  schema: polygonSchema,
  blend: 'normal',
  fades: true,
  made: () => 'points',
  settings,
  create: (id, path, style) => ({
    id,
    kind: 'polygon',
    points: (path.length > 1 ? path : [...path, ...path]).map(({ x, y }): [number, number] => [
      x,
      y,
    ]),
    ...rectStyle(style),
  }),
  tooSmall: (mark) => mark.points.length < 3,
  bounds: (mark) => inflate(extentOf(mark), mark.outline / 2 + 1),
  hit(mark, at, tolerance) {
    const [first] = corners(mark);
    const line = first ? [...corners(mark), first] : [];
    if (distanceToPolyline(at, line) <= mark.outline / 2 + tolerance) return true;
    return mark.fill !== null && polygonContains(mark.points, [at.x, at.y]);
  },
  handles: (mark) => corners(mark).map((at, i) => ({ id: String(i), at, role: 'end' })),
  pull: (mark, handle, to) => ({
    ...mark,
    points: mark.points.map((p, i) => (String(i) === handle ? [to.x, to.y] : p)),
  }),
  move: (mark, by) => ({ ...mark, points: mark.points.map(([x, y]) => [x + by.x, y + by.y]) }),
  through: (mark, map) => ({
    ...mark,
    points: corners(mark).map((p) => {
      const { x, y } = map.point(p);
      return [x, y];
    }),
  }),
  numbers: (mark) => rectNumbers(extentOf(mark)),
  withNumber(mark, field, value) {
    const r = extentOf(mark);
    if (!(field in r)) return mark;
    const size = field === 'width' || field === 'height';
    return fitted(mark, { ...r, [field]: size ? Math.max(1, value) : value });
  },
  restyle: applyStyle,
  styleOf: (mark) => pick(mark, settings),
  paint: (surface, mark) =>
    paintEnclosing(surface, mark, () => {
      mark.points.forEach(([x, y], i) => (i === 0 ? surface.moveTo(x, y) : surface.lineTo(x, y)));
      surface.closePath();
    }),
  describe: (mark) => `${mark.points.length} corners`,
};
