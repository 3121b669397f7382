import { create } from 'zustand';
import { deskPointer, looksSame, paintDesk } from '@/core/desk/build';
import { deskEvent, type DeskEvent } from '@/core/desk/events';
import {
  createDesk,
  deskBounds,
  deskDisplays,
  displayOf,
  frontWindow,
  type Desk,
} from '@/core/desk/model';
import { TITLE_HEIGHT } from '@/core/desk/windows';
import { bottom, contains, right, type Rect } from '@/core/geometry/rect';
import { shapePiece } from '@/core/take/pointerPiece';
import { loadShaper } from '@/workers/loadShaper';
import { onPicture, type Unseen, type Stilled, type StillWindow, type Wanted } from '../contract';

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

/** Windows have no numbers of their own on the desk. */
const names = ['register', 'exchange', 'sensors', 'notes', 'map'] as const;

function deskWindows(desk: Desk, part: Rect): StillWindow[] {
  return desk.windows
    .filter((w) => !w.minimised && overlaps(w.bounds, part))
    .map((w) => {
      const title = TITLE_HEIGHT * displayOf(w.bounds).scale;
      const client = { ...w.bounds, y: w.bounds.y + title, height: w.bounds.height - title };
      return {
        id: names.indexOf(w.name) + 1,
        title: w.title,
        type: 'window',
        bounds: onPicture(client, part),
        frameBounds: onPicture(w.bounds, part),
      };
    });
}

const overlaps = (a: Rect, b: Rect): boolean =>
  a.x < right(b) && b.x < right(a) && a.y < bottom(b) && b.y < bottom(a);

/** The desk with one window raised above the others. */
function raised(desk: Desk, id: number): Desk {
  const name = names[id - 1];
  const window = desk.windows.find((w) => w.name === name);
  if (!window) return desk;
  return { ...desk, windows: [...desk.windows.filter((w) => w !== window), window] };
}

async function paint(desk: Desk, part: Rect): Promise<ImageBitmap> {
  const shaper = await loadShaper();
  const canvas = new OffscreenCanvas(part.width, part.height);
  const surface = canvas.getContext('2d', { willReadFrequently: true });
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  paintDesk(surface, desk, shaper, part);
  return createImageBitmap(canvas);
}

async function still({ display }: Wanted): Promise<Stilled> {
  const { desk } = useDesk.getState();
  const part = deskPart(display, desk);
  const shown = deskDisplays.filter((d) => contains(part, d.bounds));
  const front = frontWindow(desk, shown.length === 1 ? shown[0] : undefined);
  const pointer = deskPointer(desk);
  const windows = deskWindows(desk, part);
  const at = pointer && { x: pointer.at.x - part.x, y: pointer.at.y - part.y };
  const seen = pointer && at && { at, piece: shapePiece(pointer.shape, at) };
  return {
    picture: await paint(desk, part),
    title: front?.title ?? 'Practice desk',
    origin: { x: part.x - deskBounds.x, y: part.y - deskBounds.y },
    windows,
    focused: windows.at(-1)?.id ?? null,
    pointer: seen,
    ofWindow: async (id) => ({
      picture: await paint(raised(desk, id), part),
      origin: { x: 0, y: 0 },
      // The desk ends where its displays do.
      whole: false,
      pointer: seen,
    }),
    provenance: {
      source: 'desk',
      takenAt: new Date().toISOString(),
      display: shown.length === 1 ? shown[0]?.name : 'Both displays',
      windowTitle: front?.title,
    },
  };
}

/** How far a click of the wheel scrolls, as in many programs; desk pixels. */
const CLICK = 50;

export const deskSource: Unseen = {
  name: 'desk',
  label: 'Practice desk',
  can: { windows: true, pointer: 'piece', long: true },
  displays: () => [
    ...deskDisplays.map(({ name, bounds }) => ({ id: name, label: `${name} display`, bounds })),
    { id: 'all', label: 'Both displays', bounds: deskBounds },
  ],
  still,
  scroll: ({ clicks }) => {
    useDesk.getState().send({ type: 'wheel', by: clicks * CLICK });
    return Promise.resolve();
  },
};
