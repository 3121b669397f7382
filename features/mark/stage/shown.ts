import type { Rect } from '@/core/geometry/rect';
import { toFrame } from '../session/camera';
import { sheetOf } from '@/core/document/view';
import { shownPart } from '../fit/crop';
import { usePointer } from '../session/pointerStore';
import { session } from '../session/session';

/** The part of the view that can be seen now, in frame pixels. */
export function shownNow(): Rect {
  const { camera, size } = usePointer.getState();
  const origin = toFrame(camera, { x: 0, y: 0 });
  const seen = {
    ...origin,
    width: size.width / camera.scale,
    height: size.height / camera.scale,
  };
  return shownPart(sheetOf(session().history.document.view), seen);
}
