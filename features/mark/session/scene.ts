import type { Mark } from '@/core/marks/registry';
import type { PaintTools } from '@/core/marks/contract';
import { PaintScene, type Sources } from '@/core/paint/scene';
import { sheetView, withRoom } from '@/core/paint/room';
import type { Surface } from '@/core/drawing/surface';
import { bitmap, sheet } from '@/workers/bitmap';
import { shownDocument } from './moment';
import { session } from './session';

type Draw = (surface: Surface) => void;

/** Draws the frame, the same function for the same picture, so that what is cached by it is found. */
const drawers = new WeakMap<ImageBitmap, Draw>();
/** The same through the filter that it was last seen through. */
const filtered = new WeakMap<ImageBitmap, { filter: string; draw: Draw }>();

/** @param filter of the browser; empty for none */
export function frameDrawer(picture: ImageBitmap, filter = ''): Draw {
  const known = drawers.get(picture) ?? ((to: Surface) => to.drawImage(picture, 0, 0));
  drawers.set(picture, known);
  if (!filter) return known;
  const last = filtered.get(picture);
  if (last?.filter === filter) return last.draw;
  const draw = (to: Surface) => {
    if ('filter' in to) to.filter = filter;
    known(to);
    if ('filter' in to) to.filter = 'none';
  };
  filtered.set(picture, { filter, draw });
  return draw;
}

/** What the open shot's marks, or others in their place, are painted of. */
export function sourcesOf(marks?: readonly Mark[]): Sources {
  const { picture, shaper } = session();
  const document = shownDocument(session());
  return {
    marks: marks ?? document.marks,
    view: sheetView(document.view),
    pictures: document.pictures,
    drawFrame: withRoom(document.view, frameDrawer(picture)),
    tools: { shaper, bitmap, sheet },
  };
}

/** What the open shot's marks are painted on. */
export function sceneOf(): { tools: PaintTools; scene: PaintScene } {
  const sources = sourcesOf();
  return { tools: sources.tools, scene: new PaintScene(sources) };
}
