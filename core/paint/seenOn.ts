import type { ShotDocument } from '../document/document';
import { sheetOf } from '../document/view';
import type { Shaper } from '../drawing/shaper';
import { onWhole } from '../finish/surround/layout';
import { boundsOf, bottom, right, type Rect } from '../geometry/rect';
import type { Size } from '../geometry/size';
import { layoutOfShot } from './whole';

/** Places of a view where they are seen on the whole. */
export interface Seen extends Size {
  boxes: Rect[];
}

/**
 * Where places of a view are seen on all that leaves; null where that is the view's crop alone.
 * @param boxes from the top left corner of what the view shows, in pixels of the frame
 */
export function seenOnWhole(
  document: Pick<ShotDocument, 'view' | 'finish'>,
  boxes: readonly Rect[],
  shaper: Shaper,
): Seen | null {
  const layout = layoutOfShot(document, shaper);
  const { width, height } = sheetOf(document.view);
  if (!layout) return document.view.room ? { width, height, boxes: [...boxes] } : null;
  const seen = (box: Rect): Rect =>
    boundsOf(
      [
        { x: box.x, y: box.y },
        { x: right(box) - 0.01, y: box.y },
        { x: right(box) - 0.01, y: bottom(box) - 0.01 },
        { x: box.x, y: bottom(box) - 0.01 },
      ].map((p) => onWhole(layout, p)),
    );
  return { ...layout.whole, boxes: boxes.map(seen) };
}
