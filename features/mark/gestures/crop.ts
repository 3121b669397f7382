import type { Point } from '@/core/geometry/point';
import type { Rect } from '@/core/geometry/rect';
import { isGrip, pullGrip, type Grip } from '@/core/geometry/resize';
import { snapTo } from '@/core/region/snap';
import { drawCrop, isCropTooSmall, setCropping, showCropping } from '../fit/crop';
import { session, update } from '../session/session';
import { knownParts } from '../recognise/parts';
import { snapReach, type Gesture, type Moved, type Press } from './contract';

const snapped = (moved: Moved): Point => {
  const reach = snapReach(moved);
  return reach > 0 ? snapTo(knownParts(), reach)(moved.at) : moved.at;
};

/** A crop is drawn; a press that hardly moved draws none, and all is as it was. */
export function drawingCrop({ at: from }: Press): Gesture | null {
  const { cropping: start, cropDrawn: before } = session();
  if (!start) return null;
  const back = () => update({ cropping: start, cropDrawn: before });
  return {
    move: (moved) => drawCrop(from, snapped(moved)),
    end() {
      const { cropping } = session();
      if (cropping && isCropTooSmall(cropping)) back();
    },
    abandon: back,
  };
}

/** The crop is moved, or pulled by a grip. */
export function pullingCrop(grip: Grip | 'move', from: Point): Gesture | null {
  const { cropping: start } = session();
  if (!start) return null;
  return {
    move(moved) {
      const keep = moved.keep || session().cropRatio !== null;
      const pulled = isGrip(grip)
        ? pullGrip(start, grip, snapped(moved), keep)
        : movedBy(start, moved.at.x - from.x, moved.at.y - from.y);
      setCropping(pulled);
    },
    end: showCropping,
    abandon: () => session().cropping && setCropping(start),
  };
}

/** The rectangle moved, as far as the picture goes. */
function movedBy(start: Rect, dx: number, dy: number): Rect {
  const { width, height } = session().picture;
  return {
    ...start,
    x: Math.min(Math.max(0, start.x + dx), width - start.width),
    y: Math.min(Math.max(0, start.y + dy), height - start.height),
  };
}
