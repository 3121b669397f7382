import type { Point } from '@/core/geometry/point';
import { fitScale, type Rect } from '@/core/geometry/rect';
import { isLong } from '@/core/geometry/size';

/** How the frame is looked at: screen = (frame − origin) × scale. */
export interface Camera {
  /**
   * Fit follows the space and the view; start does too, but of a long picture shows its beginning in
   * full width; free stays where it was put.
   */
  mode: 'fit' | 'start' | 'free';
  scale: number;
  x: number;
  y: number;
}

export const MOST_SCALE = 32;
export const LEAST_SCALE = 0.02;
const MARGIN = 20;

interface Space {
  width: number;
  height: number;
}

/** The camera with a free choice resolved, or the one that shows all of `view`, or its beginning. */
export function resolveCamera(camera: Camera, view: Rect, space: Space): Camera {
  if (camera.mode === 'free') return camera;
  const room = {
    width: Math.max(50, space.width - 2 * MARGIN),
    height: Math.max(50, space.height - 2 * MARGIN),
  };
  const begins = camera.mode === 'start' && isLong(view);
  const scale = begins ? Math.min(1, room.width / view.width) : fitScale(view, room, 1);
  return {
    mode: camera.mode,
    scale,
    x: view.x - (space.width / scale - view.width) / 2,
    y: view.y - (begins ? MARGIN / scale : (space.height / scale - view.height) / 2),
  };
}

export const toScreen = (camera: Camera, p: Point): Point => ({
  x: (p.x - camera.x) * camera.scale,
  y: (p.y - camera.y) * camera.scale,
});

export const toFrame = (camera: Camera, p: Point): Point => ({
  x: p.x / camera.scale + camera.x,
  y: p.y / camera.scale + camera.y,
});

/** What of the frame lies within a space of the screen. */
export const seenBy = ({ x, y, scale }: Camera, space: Space): Rect => ({
  x,
  y,
  width: space.width / scale,
  height: space.height / scale,
});

/** Enlarged by `factor` with the place under `at` (on the screen) staying where it is. */
export function zoomAt(camera: Camera, at: Point, factor: number): Camera {
  const scale = Math.min(MOST_SCALE, Math.max(LEAST_SCALE, camera.scale * factor));
  const fixed = toFrame(camera, at);
  return { mode: 'free', scale, x: fixed.x - at.x / scale, y: fixed.y - at.y / scale };
}

/** Actual size, or any other, with the middle staying in the middle. */
export const zoomTo = (camera: Camera, scale: number, space: Space): Camera =>
  zoomAt(camera, { x: space.width / 2, y: space.height / 2 }, scale / camera.scale);

export const pan = (camera: Camera, dx: number, dy: number): Camera => ({
  ...camera,
  mode: 'free',
  x: camera.x - dx / camera.scale,
  y: camera.y - dy / camera.scale,
});
