import { distance, type Point } from './point';

/** A straight edge, or an arc, that strokes follow. */
export interface Rail {
  /** A place on the edge; of an arc the middle of it. */
  at: Point;
  /** Direction of the edge there, degrees clockwise. */
  angle: number;
  /** Of an arc, pixels; it curves to the right of its direction. Null for a straight edge. */
  radius: number | null;
}

const direction = ({ angle }: Rail): Point => ({
  x: Math.cos((angle * Math.PI) / 180),
  y: Math.sin((angle * Math.PI) / 180),
});

/** The middle of an arc's circle. */
export function railCentre(rail: Rail): Point | null {
  if (rail.radius === null) return null;
  const u = direction(rail);
  return { x: rail.at.x - u.y * rail.radius, y: rail.at.y + u.x * rail.radius };
}

/** The nearest place on the edge. */
export function ontoRail(rail: Rail, p: Point): Point {
  const c = railCentre(rail);
  if (c && rail.radius !== null) {
    const d = distance(p, c);
    if (d === 0) return rail.at;
    return {
      x: c.x + ((p.x - c.x) * rail.radius) / d,
      y: c.y + ((p.y - c.y) * rail.radius) / d,
    };
  }
  const u = direction(rail);
  const along = (p.x - rail.at.x) * u.x + (p.y - rail.at.y) * u.y;
  return { x: rail.at.x + u.x * along, y: rail.at.y + u.y * along };
}

/** A point of a stroke: on the edge while it is near, else where it is. */
export function followRail(rail: Rail, p: Point, reach: number): Point {
  const on = ontoRail(rail, p);
  return distance(on, p) <= reach ? on : p;
}

const STEP = 15;
const NEAR = 2;

/** An angle of 0–359°, drawn to the steps of 15° when it comes near one. */
export function snappedAngle(angle: number): number {
  const whole = ((angle % 360) + 360) % 360;
  const step = Math.round(whole / STEP) * STEP;
  return (Math.abs(whole - step) <= NEAR ? step : whole) % 360;
}
