import type { Mark } from '@/core/marks/registry';
import { PaintScene } from '@/core/paint/scene';
import type { Surface } from '@/core/paint/surface';
import { contrastBelow, withHalo } from '@/core/shot/standsOut';
import { bitmap, sheet } from '@/workers/bitmap';
import { session } from './session';

/** Draws the frame, the same function for the same picture, so that what is cached by it is found. */
const drawers = new WeakMap<ImageBitmap, (surface: Surface) => void>();
export function frameDrawer(picture: ImageBitmap): (surface: Surface) => void {
  const known = drawers.get(picture) ?? ((to: Surface) => to.drawImage(picture, 0, 0));
  drawers.set(picture, known);
  return known;
}

function sceneWith(mark: Mark) {
  const { history, picture, shaper } = session();
  const { marks, view } = history.document;
  const known = marks.some(({ id }) => id === mark.id);
  const tools = { shaper, bitmap, sheet };
  const scene = new PaintScene({
    marks: known ? marks.map((m) => (m.id === mark.id ? mark : m)) : [...marks, mark],
    view,
    drawFrame: frameDrawer(picture),
    tools,
  });
  return { tools, scene };
}

/** The contrast of a mark with what is below it; null where that means nothing. */
export function contrastOf(mark: Mark): number | null {
  const { tools, scene } = sceneWith(mark);
  return contrastBelow(mark, tools, scene);
}

/** The mark with a halo where it needs one. Tests without a canvas leave it as it is. */
export function standingOut(mark: Mark): Mark {
  if (typeof OffscreenCanvas === 'undefined') return mark;
  const { tools, scene } = sceneWith(mark);
  return withHalo(mark, tools, scene);
}
