import { deskPointer, paintDesk } from '@/core/desk/build';
import { deskBounds, deskDisplays, frontWindow, type Desk } from '@/core/desk/model';
import type { Point } from '@/core/geometry/point';
import { contains } from '@/core/geometry/rect';
import { paintPointer } from '@/core/marks/piece/shapes';
import { loadShaper } from '@/workers/loadShaper';
import type { Filmed } from '../contract';
import { hearHand } from './hand';
import { deskPart, useDesk } from './live';
import { clientOf, windowNamed } from './windows';

/** Pictures a second. */
const RATE = 15;

/** Where the corner of a window of the desk lies, by what is seen of it in a shot; null where it is not seen. */
function cornerOf(desk: Desk, window: number): Point | null {
  const found = windowNamed(desk, window);
  if (!found || found.minimised) return null;
  const { x, y } = clientOf(found.bounds);
  return { x: x - deskBounds.x, y: y - deskBounds.y };
}

interface Asked {
  requestFrame: () => void;
}

/** Who is asked for the next picture: the track of the canvas, in some browsers its stream. */
const isAsked = (one: object | undefined): one is Asked =>
  one !== undefined && 'requestFrame' in one && typeof one.requestFrame === 'function';

/** The desk as it moves: painted anew for every picture, whether or not a view shows it. */
export async function filmDesk({
  display,
  pointer,
}: {
  display: string;
  pointer: boolean;
}): Promise<Filmed> {
  const shaper = await loadShaper();
  const first = useDesk.getState().desk;
  // Of the display that is worked on now, to the end.
  const part = deskPart(display, first);
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width: part.width, height: part.height });
  const surface = canvas.getContext('2d', { alpha: false, willReadFrequently: true });
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  const stream = canvas.captureStream(0);
  const [track] = stream.getVideoTracks();
  const asked: Asked | undefined = [track, stream].find((one) => isAsked(one));
  const { send } = useDesk.getState();
  const looks = new Set<(desk: Desk) => void>();
  const paint = () => {
    send({ type: 'tick', now: Date.now() });
    const { desk } = useDesk.getState();
    paintDesk(surface, desk, shaper, part);
    const seen = pointer ? deskPointer(desk) : null;
    if (seen) {
      const at = { x: seen.at.x - part.x, y: seen.at.y - part.y };
      paintPointer(surface, seen.shape, at, 1);
    }
    // What is told is what this picture shows.
    looks.forEach((look) => look(desk));
    // A canvas that stays the same gives no pictures by itself.
    asked?.requestFrame();
  };
  paint();
  const timer = setInterval(paint, 1000 / RATE);
  const shown = deskDisplays.filter((d) => contains(part, d.bounds));
  const front = frontWindow(first, shown.length === 1 ? shown[0] : undefined);
  return {
    stream,
    title: front?.title ?? 'Practice desk',
    pressed: (heard) =>
      hearHand((what) => {
        if ('key' in what) heard(what);
        else if (contains(part, what)) heard({ x: what.x - part.x, y: what.y - part.y });
      }),
    follows: (window, heard) => {
      let last: Point | null = null;
      const look = (desk: Desk) => {
        const now = cornerOf(desk, window);
        if (!now || (last && now.x === last.x && now.y === last.y)) return;
        last = now;
        heard(now);
      };
      look(useDesk.getState().desk);
      looks.add(look);
      return () => void looks.delete(look);
    },
    letGo: () => {
      clearInterval(timer);
      track?.stop();
    },
    provenance: {
      source: 'desk',
      takenAt: new Date().toISOString(),
      display: shown.length === 1 ? shown[0]?.name : 'Both displays',
      windowTitle: front?.title,
    },
  };
}
