import type { Size } from '../geometry/size';
import { polygonContains } from 'd3-polygon';
import type { ShapeName } from '../contracts/way';
import type { ViewShape } from '../document/viewSchema';
import { distance, type Point } from '../geometry/point';
import { bottom, boundsOf, right, type Rect } from '../geometry/rect';
import { loopPoints } from '../geometry/loop';
import { cropAround } from '../document/viewShape';

/** Drawing a free shape on a stilled picture, as a state and what each action makes of it. */
export interface FreeShape {
  frame: Size;
  kind: Exclude<ShapeName, 'oval'>;
  points: readonly Point[];
  /** True once the outline is whole and can be adjusted. */
  closed: boolean;
  drag: { kind: 'draw' } | { kind: 'move'; from: Point } | { kind: 'point'; index: number } | null;
}

export const noShape = (frame: FreeShape['frame'], kind: FreeShape['kind']): FreeShape => ({
  frame,
  kind,
  points: [],
  closed: false,
  drag: null,
});

/** How far back along the line a stroke can be taken back at once, in reaches. */
const TAIL = 14;

/**
 * A freehand line with one more point. Drawing back over the last stretch takes it back: the line
 * is cut where the pointer meets it again.
 * @param reach how near counts as over it, in pixels of the frame
 */
export function drawOn(points: readonly Point[], at: Point, reach: number): Point[] {
  const last = points.at(-1);
  if (!last) return [at];
  if (distance(last, at) < reach / 3) return [...points];
  let along = distance(last, at);
  for (let i = points.length - 2; i >= 0; i -= 1) {
    const here = points[i];
    const next = points[i + 1];
    if (!here || !next) break;
    along += distance(here, next);
    if (along > TAIL * reach) break;
    // Near in the plane though far along the line: the line has turned back on itself.
    if (distance(here, at) < reach && along > 2.5 * distance(here, at) + reach / 2) {
      return points.slice(0, i + 1);
    }
  }
  return [...points, at];
}

const inFrame = ({ frame }: FreeShape, p: Point): Point => ({
  x: Math.min(Math.max(p.x, 0), frame.width),
  y: Math.min(Math.max(p.y, 0), frame.height),
});

export const pointAt = (s: FreeShape, at: Point, reach: number): number =>
  s.points.findIndex((p) => distance(p, at) <= reach);

const inside = (s: FreeShape, at: Point): boolean =>
  polygonContains(
    s.points.map((p): [number, number] => [p.x, p.y]),
    [at.x, at.y],
  );

/** The pointer goes down: pulls a point, moves the shape, starts a loop or sets a corner. */
export function pressShape(s: FreeShape, at: Point, reach: number): FreeShape {
  const p = inFrame(s, at);
  if (s.closed) {
    const index = pointAt(s, at, reach);
    if (index >= 0) return { ...s, drag: { kind: 'point', index } };
    if (inside(s, at)) return { ...s, drag: { kind: 'move', from: at } };
    return pressShape(noShape(s.frame, s.kind), at, reach);
  }
  if (s.kind === 'loop') return { ...s, points: [p], drag: { kind: 'draw' } };
  const first = s.points[0];
  if (first && s.points.length > 2 && distance(first, at) <= reach) return closeShape(s);
  return { ...s, points: [...s.points, p] };
}

export function dragShape(s: FreeShape, at: Point, reach: number): FreeShape {
  const { drag } = s;
  if (drag?.kind === 'draw') return { ...s, points: drawOn(s.points, inFrame(s, at), reach) };
  if (drag?.kind === 'point') {
    return { ...s, points: s.points.map((p, i) => (i === drag.index ? inFrame(s, at) : p)) };
  }
  if (drag?.kind === 'move') {
    const by = { x: at.x - drag.from.x, y: at.y - drag.from.y };
    return { ...moveShape(s, by), drag: { kind: 'move', from: at } };
  }
  return s;
}

/** The pointer comes up: a loop closes itself. */
export function releaseShape(s: FreeShape): FreeShape {
  const done = { ...s, drag: null };
  return s.drag?.kind === 'draw' ? closeShape(done) : done;
}

/** Joins the last point with the first; too few points are no shape. */
export function closeShape(s: FreeShape): FreeShape {
  const points = s.kind === 'loop' ? loopPoints(s.points) : s.points;
  return points.length < 3 ? noShape(s.frame, s.kind) : { ...s, points, closed: true, drag: null };
}

/** Takes the last corner back. */
export const takeBack = (s: FreeShape): FreeShape =>
  s.closed ? { ...s, closed: false } : { ...s, points: s.points.slice(0, -1) };

/** Moves the whole shape, as far as the frame allows. */
export function moveShape(s: FreeShape, by: Point): FreeShape {
  const box = boundsOf(s.points);
  const x = Math.min(Math.max(by.x, -box.x), s.frame.width - right(box));
  const y = Math.min(Math.max(by.y, -box.y), s.frame.height - bottom(box));
  return { ...s, points: s.points.map((p) => ({ x: p.x + x, y: p.y + y })) };
}

/** What a finished shape makes of a view; null while it is not whole. */
export function shapeView(s: FreeShape): { crop: Rect; shape: ViewShape } | null {
  if (!s.closed) return null;
  const points = s.points.map(({ x, y }) => ({ x, y }));
  return { crop: cropAround(points, s.frame), shape: { kind: 'polygon', points } };
}
