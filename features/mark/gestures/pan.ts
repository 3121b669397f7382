import type { Point } from '@/core/geometry/point';
import { session, update } from '../session/session';
import { pan } from '../session/camera';
import type { Gesture } from './contract';

/** The picture is pushed about under the window. @param from pixels of the screen */
export function panning(from: Point): Gesture {
  let last = from;
  return {
    move({ screen }) {
      update({ camera: pan(session().camera, screen.x - last.x, screen.y - last.y) });
      last = screen;
    },
  };
}
