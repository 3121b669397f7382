import type { Point } from '../../geometry/point';
import type { Rect } from '../../geometry/rect';

/** A part of the picture and where its top left corner lies on the card. */
export interface Piece {
  source: Rect;
  at: Point;
}
