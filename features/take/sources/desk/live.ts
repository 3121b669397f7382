import { create } from 'zustand';
import { looksSame, paintDesk } from '@/core/desk/build';
import { deskEvent, type DeskEvent } from '@/core/desk/events';
import {
  createDesk,
  deskBounds,
  deskDisplays,
  displayOf,
  frontWindow,
  type Desk,
} from '@/core/desk/model';
import { contains, type Rect } from '@/core/geometry/rect';
import { loadShaper } from '@/workers/loadShaper';

interface DeskStore {
  desk: Desk;
  /** The desk for whoever shows it: another one only when it looks different. */
  look: Desk;
  send: (event: DeskEvent) => void;
}

const SEED = 2026;

const firstDesk = createDesk(SEED, Date.now(), -new Date().getTimezoneOffset());

/** The live practice desk of this tab. */
export const useDesk = create<DeskStore>((set) => ({
  desk: firstDesk,
  look: firstDesk,
  send: (event) =>
    set(({ desk, look }) => {
      const next = deskEvent(desk, event);
      return { desk: next, look: looksSame(look, next) ? look : next };
    }),
}));

/** The display that is being worked on: where the pointer is, else where the front window is. */
function currentDisplay(desk: Desk) {
  const { pointer } = desk;
  const front = frontWindow(desk);
  return (
    (pointer && deskDisplays.find((d) => contains(d.bounds, pointer))) ??
    (front ? displayOf(front.bounds) : deskDisplays[0])
  );
}

/** The part of the desk that a choice of display means. */
export function deskPart(display: string, desk: Desk = useDesk.getState().desk): Rect {
  if (display === 'current') return currentDisplay(desk).bounds;
  return deskDisplays.find((d) => d.name === display)?.bounds ?? deskBounds;
}

/** @returns the part of the desk, pixel for pixel */
export async function paintPart(desk: Desk, part: Rect): Promise<ImageBitmap> {
  const shaper = await loadShaper();
  const canvas = new OffscreenCanvas(part.width, part.height);
  const surface = canvas.getContext('2d', { willReadFrequently: true });
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  paintDesk(surface, desk, shaper, part);
  return createImageBitmap(canvas);
}
