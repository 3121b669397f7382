import type { Size } from '../geometry/size';
import type { ShotDocument } from '../document/document';
import { untouched } from '../document/view';
import type { ViewShape } from '../document/viewSchema';
import { shapedView } from '../document/viewShape';
import { contains, type Rect } from '../geometry/rect';
import type { Point } from '../geometry/point';
import { describedAs } from '../keep/leaving';
import type { Mark } from '../marks/registry';

/** What was chosen on a stilled picture, in its pixels. */
export interface Taken {
  crop: Rect;
  shape?: ViewShape | undefined;
  /** What a part is, as its program told. */
  part?: string | undefined;
}

/** The pointer on the picture. */
interface Pointer {
  at: Point;
  piece: Mark | null;
}

/**
 * The document of a take: the chosen part, with the pointer as a loose piece where it pointed at it.
 * @param frame the size of the whole picture
 */
export function takenDocument(
  frame: Size,
  { crop, shape, part }: Taken,
  pointer: Pointer | null,
): ShotDocument {
  const piece = pointer && contains(crop, pointer.at) ? pointer.piece : null;
  return {
    ...untouched(frame),
    view: shape ? shapedView(shape, crop, frame) : { crop },
    marks: piece ? [piece] : [],
    ...(part && { description: describedAs(part) }),
  };
}

/** Said of a window that is not wholly on the picture. */
export const OFF_DISPLAY = 'Part of this window is off the display and is not in the picture.';
