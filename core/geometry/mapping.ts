import { apply, determinant, type Matrix } from './matrix';
import { distance, type Point } from './point';
import { boundsOf, centre, type Rect } from './rect';

/** Where things go when the picture, or a group of marks, is turned, sized or pulled. */
export interface Mapping {
  point: (this: void, p: Point) => Point;
  /** Degrees clockwise by which directions turn. */
  angle: number;
  /** Left and right change places. */
  mirrored: boolean;
}

/** The angle within (−180, 180]. */
export function normalAngle(degrees: number): number {
  const turned = ((degrees % 360) + 360) % 360;
  return turned > 180 ? turned - 360 : turned;
}

/** Angles are stored to a thousandth of a degree: finer than a pixel at any size. */
export const storedAngle = (degrees: number): number =>
  Math.round(normalAngle(degrees) * 1000) / 1000;

/** A map as a mapping; how it turns is read off near `around`. */
export function mappingOf(matrix: Matrix, around: Point): Mapping {
  const from = apply(matrix, around);
  const to = apply(matrix, { x: around.x + 1, y: around.y });
  const mirrored = determinant(matrix) < 0;
  const angle = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
  return {
    point: (p) => apply(matrix, p),
    // Mirrored, what pointed right points left before anything turns.
    angle: normalAngle(mirrored ? angle + 180 : angle),
    mirrored,
  };
}

/** Turns about a place. @param degrees clockwise */
export function turning(about: Point, degrees: number): Mapping {
  return { point: (p) => rotated(p, about, degrees), angle: degrees, mirrored: false };
}

/** Stretches one rectangle into another; a side of no length stays as it is. */
export function stretching(from: Rect, to: Rect): Mapping {
  const sx = from.width > 0 ? to.width / from.width : 1;
  const sy = from.height > 0 ? to.height / from.height : 1;
  return {
    point: (p) => ({ x: to.x + (p.x - from.x) * sx, y: to.y + (p.y - from.y) * sy }),
    angle: 0,
    mirrored: false,
  };
}

export function rotated(p: Point, about: Point, degrees: number): Point {
  if (degrees === 0) return p;
  const radians = (degrees * Math.PI) / 180;
  const [c, s] = [Math.cos(radians), Math.sin(radians)];
  const [x, y] = [p.x - about.x, p.y - about.y];
  return { x: about.x + c * x - s * y, y: about.y + s * x + c * y };
}

/** The corners of a rectangle that is turned about its middle, from the top left one on. */
export function cornersOf(r: Rect, degrees = 0): [Point, Point, Point, Point] {
  const c = centre(r);
  const at = (x: number, y: number) => rotated({ x, y }, c, degrees);
  const [x, y] = [r.x + r.width, r.y + r.height];
  return [at(r.x, r.y), at(x, r.y), at(x, y), at(r.x, y)];
}

const isQuarter = (degrees: number): boolean => Math.abs(degrees % 90) < 1e-6;

/** A turned rectangle after a mapping: its new place, size and angle, as near as a rectangle can be. */
export function mappedRect(r: Rect, degrees: number, map: Mapping): Rect & { angle: number } {
  const corners = cornersOf(r, degrees).map(map.point);
  if (degrees === 0 && isQuarter(map.angle)) return { ...boundsOf(corners), angle: 0 };
  const [a, b, c, d] = corners as [Point, Point, Point, Point];
  const middle = { x: (a.x + b.x + c.x + d.x) / 4, y: (a.y + b.y + c.y + d.y) / 4 };
  const width = (distance(a, b) + distance(d, c)) / 2;
  const height = (distance(a, d) + distance(b, c)) / 2;
  const angle = storedAngle((map.mirrored ? -degrees : degrees) + map.angle);
  return { x: middle.x - width / 2, y: middle.y - height / 2, width, height, angle };
}

/** How much lengths grow, on the whole, at a place. */
export function growth(map: Mapping, at: Point): number {
  const from = map.point(at);
  const across = distance(from, map.point({ x: at.x + 1, y: at.y }));
  const down = distance(from, map.point({ x: at.x, y: at.y + 1 }));
  return Math.sqrt(across * down);
}

/** An upright rectangle after a mapping: it stands in the new place, in its new size, upright again. */
export function uprightRect(r: Rect, map: Mapping): Rect {
  const { x, y, width, height, angle } = mappedRect(r, 0, map);
  if (angle === 0) return { x, y, width, height };
  // Turned by more than an eighth, what was wide is now high.
  const side = Math.abs(angle % 180);
  const swapped = side > 45 && side < 135;
  const size = swapped ? { width: height, height: width } : { width, height };
  const c = { x: x + width / 2, y: y + height / 2 };
  return { x: c.x - size.width / 2, y: c.y - size.height / 2, ...size };
}
