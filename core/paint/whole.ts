import type { ShotDocument } from '../document/document';
import { sheetOf } from '../document/view';
import { traceMoved } from '../document/viewShape';
import type { Shaper } from '../drawing/shaper';
import { layoutOf, type Layout } from '../finish/surround/layout';
import { tornSides } from '../finish/surround/ragged';
import type { Surround } from '../finish/surround/surround';
import type { Size } from '../geometry/size';
import { heldPixels } from '../raster/png';
import type { SurroundedOf } from './surrounded';

/** Where the view and what is around it lie; null where nothing is. */
export function layoutOfShot(
  { view, finish }: Pick<ShotDocument, 'view' | 'finish'>,
  shaper: Shaper,
): Layout | null {
  const { surround } = finish ?? {};
  const { width, height } = sheetOf(view);
  return surround ? layoutOf(surround, { width, height }, view.shape !== undefined, shaper) : null;
}

/** How large a shot is as it leaves, in pixels. */
export function wholeSize(document: ShotDocument, shaper: Shaper): Size {
  const { width, height } = sheetOf(document.view);
  return layoutOfShot(document, shaper)?.whole ?? { width, height };
}

/**
 * Whether no pixel of a shot is transparent as it leaves.
 * @param isOpaque no pixel of its frame is
 */
export function leavesOpaque(document: ShotDocument, isOpaque: boolean, shaper: Shaper): boolean {
  const { view, finish } = document;
  const isClear = view.room !== undefined && !view.shape && view.room.colour === null;
  const isFull = isOpaque && !view.shape && !view.turn?.angle && !isClear;
  const { surround } = finish ?? {};
  const layout = layoutOfShot(document, shaper);
  if (!surround || !layout) return isFull;
  if (surround.background?.colours.length) return true;
  const { fold, tilt, ragged, shadow, border, background, caption } = surround;
  const isCut = tilt ?? (border?.corners || (ragged && tornSides(ragged).length > 0));
  const isLoose = fold ?? shadow ?? (background?.room || background?.ratio);
  const isPlated =
    !layout.caption ||
    (typeof caption?.plate === 'string' && layout.caption.block.width <= layout.card.width);
  return isFull && !isCut && !isLoose && isPlated;
}

/** What is painted around the picture of a shot, whoever draws that. */
export function surroundedOf(
  { view: { crop, shape }, pictures }: ShotDocument,
  layout: Layout,
  surround: Surround,
): Omit<SurroundedOf, 'draw'> {
  return {
    surround,
    layout,
    trace:
      shape && ((to, by) => traceMoved(to, crop, shape, { x: by.x - crop.x, y: by.y - crop.y })),
    held: (key) => {
      const held = pictures?.[key];
      return held ? heldPixels(held) : null;
    },
  };
}
