import type { ShotDocument } from '../document/document';
import { shows } from '../document/viewShape';
import type { Surface } from '../drawing/surface';
import type { Adjust } from '../finish/adjust/adjust';
import { adjustPixels } from '../finish/adjust/pixels';
import type { PaintTools } from '../marks/contract';
import { blotOut } from '../marks/hide/surround';
import type { Mark } from '../marks/registry';
import type { Mask } from '../raster/mask';
import type { RgbaPixels } from '../raster/pixels';
import { hiddenOf } from './hidden';

interface Of {
  marks: readonly Mark[];
  view: ShotDocument['view'];
  tools: PaintTools;
}

type Draw = (surface: Surface) => void;

/**
 * What draws the view of a frame as it is adjusted. What is hidden and what the view does not show
 * leaves no trace in what is around it.
 * @param drawFrame draws the frame in frame coordinates
 */
export function adjustedFrame({ marks, view, tools }: Of, adjust: Adjust, drawFrame: Draw): Draw {
  const { x, y, width, height } = view.crop;
  const sheet = tools.sheet(width, height);
  sheet.surface.translate(-x, -y);
  drawFrame(sheet.surface);
  const pixels = sheet.read();
  adjustView({ marks, view }, adjust, pixels);
  const image = tools.bitmap(pixels);
  return (surface) => surface.drawImage(image, x, y);
}

/**
 * Adjusts a picture of the view in place.
 * @param pixels RGBA, row-major, as large as the view, not premultiplied
 */
export function adjustView({ marks, view }: Omit<Of, 'tools'>, adjust: Adjust, pixels: RgbaPixels) {
  const masks = () => hiddenOf({ marks, view }).map(({ mask }) => mask);
  adjustPixels(pixels, adjust, knownOf(pixels, view, adjust, masks));
}

/**
 * Draws all that leaves as it is adjusted.
 * @param surface as large as the view
 * @param draw draws it on such a surface, before a free shape is cut out of it
 */
export function drawAdjusted(surface: Surface, of: Of, adjust: Adjust, draw: Draw): void {
  const { view, tools } = of;
  const sheet = tools.sheet(view.crop.width, view.crop.height);
  draw(sheet.surface);
  const pixels = sheet.read();
  // What is hidden is filled already.
  adjustPixels(
    pixels,
    adjust,
    knownOf(pixels, view, adjust, () => []),
  );
  surface.drawImage(tools.bitmap(pixels), 0, 0);
}

/** The pixels that others may be made of; undefined where that does not matter, or all may. */
function knownOf(
  pixels: RgbaPixels,
  view: ShotDocument['view'],
  adjust: Adjust,
  masks: () => Mask[],
): Uint8Array | undefined {
  if (!adjust.sharpened) return undefined;
  const hidden = masks();
  if (hidden.length === 0 && !view.shape) return undefined;
  return blotOut(view.crop, pixels, hidden, shows(view)).known;
}
