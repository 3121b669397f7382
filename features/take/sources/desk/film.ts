import { deskPointer, paintDesk } from '@/core/desk/build';
import { deskDisplays, frontWindow } from '@/core/desk/model';
import { contains } from '@/core/geometry/rect';
import { paintPointer } from '@/core/marks/piece/shapes';
import { loadShaper } from '@/workers/loadShaper';
import type { Filmed } from '../contract';
import { deskPart, useDesk } from './live';

/** Pictures a second. */
const RATE = 15;

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
  const { send } = useDesk.getState();
  const paint = () => {
    send({ type: 'tick', now: Date.now() });
    const { desk } = useDesk.getState();
    paintDesk(surface, desk, shaper, part);
    const seen = pointer ? deskPointer(desk) : null;
    if (seen) {
      const at = { x: seen.at.x - part.x, y: seen.at.y - part.y };
      paintPointer(surface, seen.shape, at, 1);
    }
    // A canvas that stays the same gives no pictures by itself.
    if (track instanceof CanvasCaptureMediaStreamTrack) track.requestFrame();
  };
  paint();
  const timer = setInterval(paint, 1000 / RATE);
  const shown = deskDisplays.filter((d) => contains(part, d.bounds));
  const front = frontWindow(first, shown.length === 1 ? shown[0] : undefined);
  return {
    stream,
    title: front?.title ?? 'Practice desk',
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
