import { isSound, type Quad } from '@/core/geometry/homography';
import type { Point } from '@/core/geometry/point';
import { session, update } from '../session/session';
import type { Gesture } from './contract';

/** A corner of what is being pulled square goes with the pointer. */
export const pullingCorner = (index: number): Gesture => ({
  move: ({ at }) => pullTo(index, at),
});

function pullTo(index: number, at: Point): void {
  const { squaring, frame } = session();
  if (!squaring) return;
  const to = {
    x: Math.min(Math.max(Math.round(at.x), 0), frame.width),
    y: Math.min(Math.max(Math.round(at.y), 0), frame.height),
  };
  const [a, b, c, d] = squaring;
  const all = [a, b, c, d].map((p, i) => (i === index ? to : p));
  const [p0 = a, p1 = b, p2 = c, p3 = d] = all;
  const next: Quad = [p0, p1, p2, p3];
  // Corners that would cross each other make no picture.
  if (isSound(next, 16)) update({ squaring: next });
}
