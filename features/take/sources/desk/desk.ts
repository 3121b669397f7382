import { deskPointer } from '@/core/desk/build';
import { deskBounds, deskDisplays, frontWindow, type Desk } from '@/core/desk/model';
import { bottom, contains, right, type Rect } from '@/core/geometry/rect';
import { shapePiece } from '@/core/take/pointerPiece';
import { filmDesk } from './film';
import { deskHolder, heldDesk } from './held';
import { deskPart, paintPart, useDesk } from './live';
import { clientOf, numberOf, windowNamed } from './windows';
import { onPicture, type Unseen, type Stilled, type StillWindow, type Wanted } from '../contract';

function deskWindows(desk: Desk, part: Rect): StillWindow[] {
  return desk.windows
    .filter((w) => !w.minimised && overlaps(w.bounds, part))
    .map((w) => ({
      id: numberOf(w),
      title: w.title,
      type: 'window',
      bounds: onPicture(clientOf(w.bounds), part),
      frameBounds: onPicture(w.bounds, part),
    }));
}

const overlaps = (a: Rect, b: Rect): boolean =>
  a.x < right(b) && b.x < right(a) && a.y < bottom(b) && b.y < bottom(a);

/** The desk with one window raised above the others. */
function raised(desk: Desk, id: number): Desk {
  const window = windowNamed(desk, id);
  if (!window) return desk;
  return { ...desk, windows: [...desk.windows.filter((w) => w !== window), window] };
}

async function still({ display, moment }: Wanted): Promise<Stilled> {
  const held = moment ? heldDesk(moment.id) : null;
  const desk = held?.desk ?? useDesk.getState().desk;
  const part = deskPart(display, desk);
  const shown = deskDisplays.filter((d) => contains(part, d.bounds));
  const front = frontWindow(desk, shown.length === 1 ? shown[0] : undefined);
  const pointer = deskPointer(desk);
  const windows = deskWindows(desk, part);
  const at = pointer && { x: pointer.at.x - part.x, y: pointer.at.y - part.y };
  const seen = pointer && at && { at, piece: shapePiece(pointer.shape, at) };
  return {
    picture: await paintPart(desk, part),
    title: front?.title ?? 'Practice desk',
    origin: { x: part.x - deskBounds.x, y: part.y - deskBounds.y },
    windows,
    focused: windows.at(-1)?.id ?? null,
    pointer: seen,
    ofWindow: async (id) => ({
      picture: await paintPart(raised(desk, id), part),
      origin: { x: 0, y: 0 },
      // The desk ends where its displays do.
      whole: false,
      pointer: seen,
    }),
    provenance: {
      source: 'desk',
      takenAt: new Date(held?.since ?? Date.now()).toISOString(),
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
  can: {
    ...{ windows: true, pointer: 'piece', long: true, series: true, back: true, clip: true },
    sounds: { microphone: true },
    ...{ pressed: true, follows: true },
  },
  displays: () => [
    ...deskDisplays.map(({ name, bounds }) => ({ id: name, label: `${name} display`, bounds })),
    { id: 'all', label: 'Both displays', bounds: deskBounds },
  ],
  still,
  holder: deskHolder,
  film: filmDesk,
  scroll: ({ clicks }) => {
    useDesk.getState().send({ type: 'wheel', by: clicks * CLICK });
    return Promise.resolve();
  },
};
