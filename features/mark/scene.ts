import type { Mark } from '@/core/marks/registry';
import type { PaintTools } from '@/core/marks/contract';
import { PaintScene } from '@/core/paint/scene';
import type { Surface } from '@/core/paint/surface';
import { bitmap, sheet } from '@/workers/bitmap';
import { session } from './session';

/** Draws the frame, the same function for the same picture, so that what is cached by it is found. */
const drawers = new WeakMap<ImageBitmap, (surface: Surface) => void>();
export function frameDrawer(picture: ImageBitmap): (surface: Surface) => void {
  const known = drawers.get(picture) ?? ((to: Surface) => to.drawImage(picture, 0, 0));
  drawers.set(picture, known);
  return known;
}

/** What the open shot's marks, or others in their place, are painted on. */
export function sceneOf(marks?: readonly Mark[]): { tools: PaintTools; scene: PaintScene } {
  const { history, picture, shaper } = session();
  const { document } = history;
  const tools = { shaper, bitmap, sheet };
  const scene = new PaintScene({
    marks: marks ?? document.marks,
    view: document.view,
    pictures: document.pictures,
    drawFrame: frameDrawer(picture),
    tools,
  });
  return { tools, scene };
}
