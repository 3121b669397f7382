import { sample } from '../../geometry/bend';
import type { Mapping } from '../../geometry/mapping';
import { distanceToPolyline, midpoint, subtract, type Point } from '../../geometry/point';
import { boundsOf, inflate, type Rect } from '../../geometry/rect';
import type { Surface } from '../../drawing/surface';
import type { NumberField, StrokePoint } from '../contract';

export interface StrokeMark {
  points: [number, number, number][];
  colour: string;
  thickness: number;
}

/** Stored to a hundredth of a pixel: finer than any device, and half the bytes. */
const round = (v: number): number => Math.round(v * 100) / 100;

export const storedPoints = (path: readonly StrokePoint[]): [number, number, number][] =>
  path.map((p) => [round(p.x), round(p.y), round(p.pressure ?? 0.5)]);

const toPoints = (mark: StrokeMark): Point[] => mark.points.map(([x, y]) => ({ x, y }));

/** Points along the smoothed stroke, near enough for hit tests: the course that smoothPath draws. */
function smoothedPoints(mark: StrokeMark): Point[] {
  const points = toPoints(mark);
  const [first] = points;
  const last = points.at(-1);
  if (!first || !last || points.length < 3) return points;
  let from = first;
  const course = [first];
  points.slice(1, -1).forEach((corner, i) => {
    const to = midpoint(corner, points[i + 2] ?? last);
    const line = { from, to, bend: subtract(curveMiddle(from, corner, to), midpoint(from, to)) };
    course.push(...sample(line, 6).slice(1));
    from = to;
  });
  return [...course, last];
}

/** The point at t = ½ of the quadratic curve with this control point. */
const curveMiddle = (from: Point, c: Point, to: Point): Point => ({
  x: from.x / 4 + c.x / 2 + to.x / 4,
  y: from.y / 4 + c.y / 2 + to.y / 4,
});

export function strokeExtent(mark: StrokeMark): Rect {
  return boundsOf(toPoints(mark));
}

export const strokeBounds = (mark: StrokeMark): Rect =>
  inflate(strokeExtent(mark), mark.thickness / 2 + 1);

export const strokeHit = (mark: StrokeMark, at: Point, tolerance: number): boolean =>
  distanceToPolyline(at, smoothedPoints(mark)) <= mark.thickness / 2 + tolerance;

export const moveStroke = <M extends StrokeMark>(mark: M, by: Point): M => ({
  ...mark,
  points: mark.points.map(([x, y, p]) => [round(x + by.x), round(y + by.y), p]),
});

export const strokeThrough = <M extends StrokeMark>(mark: M, map: Mapping): M => ({
  ...mark,
  points: mark.points.map(([x, y, pressure]) => {
    const to = map.point({ x, y });
    return [round(to.x), round(to.y), pressure];
  }),
});

/** The stroke scaled so that its extent becomes `to`; a side of no extent stays as it is. */
export function fitStroke<M extends StrokeMark>(mark: M, to: Rect): M {
  const from = strokeExtent(mark);
  const sx = from.width > 0 ? to.width / from.width : 1;
  const sy = from.height > 0 ? to.height / from.height : 1;
  return {
    ...mark,
    points: mark.points.map(([x, y, p]) => [
      round(to.x + (x - from.x) * sx),
      round(to.y + (y - from.y) * sy),
      p,
    ]),
  };
}

export const strokeNumbers = (mark: StrokeMark): NumberField[] => {
  const r = strokeExtent(mark);
  return [
    { id: 'x', label: 'Left', value: r.x },
    { id: 'y', label: 'Top', value: r.y },
    { id: 'width', label: 'Width', value: r.width },
    { id: 'height', label: 'Height', value: r.height },
  ];
};

export function withStrokeNumber<M extends StrokeMark>(mark: M, field: string, value: number): M {
  const r = strokeExtent(mark);
  if (!(field in r)) return mark;
  const size = field === 'width' || field === 'height';
  return fitStroke(mark, { ...r, [field]: size ? Math.max(1, value) : value });
}

/**
 * Adds the stroke to the path, smoothed: a quadratic curve from middle to middle of the
 * segments, with the points as its control points.
 */
export function smoothPath(surface: Surface, points: StrokeMark['points']): void {
  const [first, ...rest] = points;
  if (!first) return;
  surface.moveTo(first[0], first[1]);
  rest.forEach(([x, y], i) => {
    const next = rest[i + 1];
    if (next) surface.quadraticCurveTo(x, y, (x + next[0]) / 2, (y + next[1]) / 2);
    else surface.lineTo(x, y);
  });
}
