import type { Rail } from '@/core/geometry/rail';
import { followRail, snappedAngle } from '@/core/geometry/rail';
import type { StrokePoint } from '@/core/marks/contract';
import { toFrame } from '../session/camera';
import { usePointer } from '../session/pointerStore';
import { session, update } from '../session/session';

/** Strokes this near to the edge follow it, pixels of the screen. */
const REACH = 28;

/** Lays the rail into the middle of what is shown, or takes it away. */
export function toggleRail(): void {
  if (session().rail) {
    update({ rail: null });
    return;
  }
  const { camera, size } = usePointer.getState();
  const at = toFrame(camera, { x: size.width / 2, y: size.height / 2 });
  update({ rail: { at, angle: 0, radius: null } });
}

export function setRail(change: Partial<Rail>): void {
  const { rail } = session();
  if (rail) update({ rail: { ...rail, ...change } });
}

/** Turns it, and lets it rest at the steps of 15° on its way. */
export function turnRail(by: number): void {
  const { rail } = session();
  if (!rail) return;
  const wanted = rail.angle + by;
  const snapped = snappedAngle(wanted);
  // A step of the wheel must be able to leave the angle it rests at.
  setRail({ angle: snapped === rail.angle ? ((wanted % 360) + 360) % 360 : snapped });
}

/** A point of a stroke, on the rail while near it. */
export function alongRail(point: StrokePoint, scale: number): StrokePoint {
  const { rail } = session();
  return rail ? { ...point, ...followRail(rail, point, REACH / scale) } : point;
}
