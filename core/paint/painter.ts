import type { ShotDocument } from '../document/document';
import type { PaintTools } from '../marks/contract';
import { kindOf, type Mark } from '../marks/registry';
import { traceView } from '../document/viewShape';
import { paintMark } from './paintMark';
import { PaintScene } from './scene';
import type { Surface } from '../drawing/surface';

/** A Hide mark that is switched off hides all the same in what leaves, until a person agreed. */
const asItLeaves = (mark: Mark): Mark =>
  mark.off && 'area' in mark && !mark.uncovered ? { ...mark, off: undefined } : mark;

/**
 * Paints a shot as it leaves: the view of the frame with all marks on it.
 * @param surface as large as the view, empty
 * @param drawFrame draws the frame as it is turned, at least its view, in the view's coordinates
 */
export function paintShot(
  surface: Surface,
  document: ShotDocument,
  tools: PaintTools,
  drawFrame: (surface: Surface) => void,
): void {
  const { view } = document;
  const marks = document.marks.map(asItLeaves);
  const { crop } = view;
  const scene = new PaintScene({ marks, view, drawFrame, tools, pictures: document.pictures });
  surface.save();
  surface.translate(-crop.x, -crop.y);
  surface.beginPath();
  surface.rect(crop.x, crop.y, crop.width, crop.height);
  surface.clip();
  drawFrame(surface);
  scene.drawHidden(surface);
  // What hides below everything else is drawn already.
  const first = marks.findIndex((mark) => mark.halo || !kindOf(mark).hide);
  for (const mark of first < 0 ? [] : marks.slice(first)) paintMark(surface, mark, tools, scene);
  if (view.shape) {
    // One antialiased cut at the end; clipping to the shape would cut every mark's edge anew.
    surface.globalCompositeOperation = 'destination-in';
    surface.fillStyle = '#000000';
    surface.beginPath();
    traceView(surface, crop, view.shape);
    surface.fill();
  }
  surface.restore();
}
