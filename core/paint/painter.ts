import type { ShotDocument } from '../contracts/document';
import type { PaintTools } from '../marks/contract';
import { kindOf, type Mark } from '../marks/registry';
import { traceView } from '../shot/viewShape';
import type { Surface } from './surface';

/** Paints one mark in frame coordinates; a mark that is switched off leaves nothing. */
export function paintMark(surface: Surface, mark: Mark, tools: PaintTools): void {
  if (mark.off) return;
  surface.save();
  kindOf(mark).paint(surface, mark, tools);
  surface.restore();
}

/**
 * Paints a shot as it leaves: the view of the frame with all marks on it.
 * @param surface as large as the view, empty
 * @param drawFrame draws the whole frame with its top left corner at 0, 0
 */
export function paintShot(
  surface: Surface,
  document: ShotDocument,
  tools: PaintTools,
  drawFrame: () => void,
): void {
  const { crop } = document.view;
  surface.save();
  surface.translate(-crop.x, -crop.y);
  surface.beginPath();
  surface.rect(crop.x, crop.y, crop.width, crop.height);
  surface.clip();
  drawFrame();
  for (const mark of document.marks) paintMark(surface, mark, tools);
  if (document.view.shape) {
    // One antialiased cut at the end; clipping to the shape would cut every mark's edge anew.
    surface.globalCompositeOperation = 'destination-in';
    surface.fillStyle = '#000000';
    surface.beginPath();
    traceView(surface, crop, document.view.shape);
    surface.fill();
  }
  surface.restore();
}
