import { unlinked } from './bring';
import type { Size } from '../geometry/size';
import type { ShotDocument } from './document';
import { limits } from '../values/limits';
import type { Turn, ViewShape } from './viewSchema';
import { mappingOf, type Mapping } from '../geometry/mapping';
import { apply, inverse, multiply } from '../geometry/matrix';
import { ovalPoints } from '../geometry/oval';
import type { Point } from '../geometry/point';
import { boundsOf, centre, type Rect } from '../geometry/rect';
import type { MarkTools } from '../marks/contract';
import { kindOf } from '../marks/registry';
import { cropInside } from './view';
import { isTurned, pictureSize, turnMatrix, upright, withoutCorners } from './turn';
import { shapedView } from './viewShape';

const same = (a: Rect, b: Rect): boolean =>
  a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height;

/** Places far behind the camera of a squared picture have no sensible place; they stay in bounds. */
function bounded({ x, y }: Point): Point {
  const most = limits.coordinate;
  const within = (v: number) => (Number.isFinite(v) ? Math.min(most, Math.max(-most, v)) : most);
  return { x: within(x), y: within(y) };
}

/** From places of the picture as one turn shows it to places as another shows it. */
function mappingBetween(frame: Size, from: Turn, to: Turn, around: Point): Mapping {
  const matrix = multiply(turnMatrix(frame, to), inverse(turnMatrix(frame, from)));
  const map = mappingOf(matrix, around);
  return { ...map, point: (p) => bounded(apply(matrix, p)) };
}

/**
 * A shot whose frame is turned in another way: its view and its marks go with what they lie on.
 * A view of everything becomes a view of everything that has no empty corner.
 */
export function turnDocument(
  document: ShotDocument,
  frame: Size,
  turn: Turn,
  tools: MarkTools,
): ShotDocument {
  const { view } = document;
  const before = view.turn ?? upright;
  const map = mappingBetween(frame, before, turn, centre(view.crop));
  const wasAll =
    !view.shape &&
    (same(view.crop, { x: 0, y: 0, ...pictureSize(frame, before) }) ||
      same(view.crop, withoutCorners(frame, before)));
  const shown = wasAll
    ? { crop: withoutCorners(frame, turn) }
    : shownThrough(view, map, pictureSize(frame, turn));
  return {
    ...document,
    view: {
      ...shown,
      ...(isTurned(turn) && { turn }),
      ...(view.room && { room: view.room }),
      ...(view.follow && { follow: view.follow }),
    },
    marks: document.marks.map((mark) => unlinked(kindOf(mark).through(mark, map, tools))),
  };
}

function shownThrough(
  { crop, shape }: ShotDocument['view'],
  map: Mapping,
  picture: Size,
): Pick<ShotDocument['view'], 'crop' | 'shape'> {
  const { x, y, width, height } = crop;
  const corners = [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ];
  const next = cropInside(boundsOf(corners.map(map.point)), picture);
  if (!shape) return { crop: next };
  const upright = Math.abs(map.angle % 90) < 1e-6;
  if (shape.kind === 'oval' && upright) return { crop: next, shape };
  const points = shape.kind === 'oval' ? ovalPoints(crop) : shape.points;
  const turned: ViewShape = { kind: 'polygon', points: points.map(map.point) };
  return shapedView(turned, next, picture);
}

/** The turn after another quarter, clockwise. */
export const quarterMore = (turn: Turn, quarters: number): Turn => ({
  ...turn,
  quarters: (turn.quarters + quarters + 4) % 4,
});

/** The turn after left and right, or top and bottom, changed places in what is seen. */
export const flipped = (turn: Turn, along: 'across' | 'down'): Turn => ({
  ...turn,
  mirrored: !turn.mirrored,
  quarters: (4 - turn.quarters + (along === 'down' ? 2 : 0)) % 4,
  angle: turn.angle === 0 ? 0 : -turn.angle,
});

/** The angle at which a line that is seen from `a` to `b` lies level, or upright where that is nearer. */
export function levelled(turn: Turn, a: Point, b: Point): number {
  const seen = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
  const off = seen - Math.round(seen / 90) * 90;
  return Math.round(Math.min(45, Math.max(-45, turn.angle - off)) * 100) / 100;
}
