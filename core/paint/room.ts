import type { ShotDocument } from '../document/document';
import { sheetOf } from '../document/view';
import { rimOf } from '../geometry/rect';
import type { Surface } from '../drawing/surface';

type Draw = (this: void, surface: Surface) => void;
type View = ShotDocument['view'];

/** What draws a frame with the room beside it: the same function for the same frame and room. */
const drawers = new WeakMap<Draw, { key: string; draw: Draw }>();

/**
 * Draws the frame within the crop alone, and the room beside it in its colour: nothing of the frame
 * beyond the crop is seen there. The same function where there is no room.
 */
export function withRoom(view: View, drawFrame: Draw): Draw {
  const { crop, room, shape } = view;
  if (!room || shape) return drawFrame;
  const key = JSON.stringify([crop, room]);
  const known = drawers.get(drawFrame);
  if (known?.key === key) return known.draw;
  const sheet = sheetOf(view);
  const draw: Draw = (surface) => {
    surface.save();
    if (room.colour) {
      surface.fillStyle = room.colour;
      for (const bar of rimOf(sheet, crop)) {
        surface.fillRect(bar.x, bar.y, bar.width, bar.height);
      }
    }
    surface.beginPath();
    surface.rect(crop.x, crop.y, crop.width, crop.height);
    surface.clip();
    drawFrame(surface);
    surface.restore();
  };
  drawers.set(drawFrame, { key, draw });
  return draw;
}

/** A view whose crop is all that it shows, room and all. */
export function sheetView({ room, ...view }: View): View {
  return { ...view, crop: sheetOf({ room, ...view }) };
}
