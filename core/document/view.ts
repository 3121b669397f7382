import type { Size } from '../geometry/size';
import type { ShotDocument } from './document';
import { DOCUMENT_VERSION } from './version';
import type { Rect } from '../geometry/rect';

/** A shot that shows the whole frame, without marks. */
export const untouched = (frame: Size): ShotDocument => ({
  version: DOCUMENT_VERSION,
  view: { crop: { x: 0, y: 0, width: frame.width, height: frame.height } },
  marks: [],
});

/**
 * The nearest rectangle of whole pixels, at least one, that lies inside the frame: what a view
 * can be after any dragging or typing.
 */
export function cropInside(crop: Rect, frame: Size): Rect {
  const whole = {
    x: Math.round(crop.x),
    y: Math.round(crop.y),
    width: Math.round(crop.width),
    height: Math.round(crop.height),
  };
  const x = Math.min(Math.max(whole.x, 0), frame.width - 1);
  const y = Math.min(Math.max(whole.y, 0), frame.height - 1);
  return {
    x,
    y,
    width: Math.min(Math.max(whole.x + whole.width - x, 1), frame.width - x),
    height: Math.min(Math.max(whole.y + whole.height - y, 1), frame.height - y),
  };
}

/** All that a view shows: its crop, and the room beside that. A free shape has no room. */
export function sheetOf({ crop, room, shape }: ShotDocument['view']): Rect {
  if (!room || shape) return crop;
  return {
    x: crop.x - room.left,
    y: crop.y - room.top,
    width: crop.width + room.left + room.right,
    height: crop.height + room.top + room.bottom,
  };
}
