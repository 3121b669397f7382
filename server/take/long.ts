import { setTimeout as pause } from 'node:timers/promises';
import { longShotSchema, type LongShot, type ScreenWindow } from '@/core/contracts/display';
import type { Provenance } from '@/core/contracts/provenance';
import { centre, type Rect } from '@/core/geometry/rect';
import { cutPixels, type RgbaPixels } from '@/core/raster/pixels';
import type { Progress } from '@/core/stitch/longPage';
import { Turns } from '@/core/stitch/turns';
import { Fault } from '../base/fault';
import { byPortal, checkAllowed, stillNow } from '../display/access';
import { turnWheel } from '../display/wheel';
import { ownThread, type OwnThread } from '../pool/pool';
import { storeShot } from '../shots/store';
import { addSlow, slowTakes } from './slow';
import { framed, placeOf, provenanceOf } from './takeDisplay';
import { thenSaid } from './then';

const LONG = 'long';
/** All of it, ms. */
const LONGEST = 180_000;
/** Between two looks, ms. */
const EVERY = 40;

const said = {
  still: 'Nothing moved there: it is what is seen of it.',
  full: 'It is as much as fits into a picture. There may be more.',
  late: 'It was scrolled for three minutes, and this is what was had. There may be more.',
  size: 'It had another size at last, or was out of sight: this is what was had before.',
  gone: 'The window was closed: this is what was had of it.',
} as const;

/** Asks for something longer than it is seen. @throws Fault 403, 409 */
export async function addLong(wish: LongShot): Promise<string> {
  await checkAllowed();
  if (await byPortal())
    throw new Fault(
      409,
      'no-wheel',
      'This desktop gives one picture at a time, each after being asked, so nothing can be followed.',
    );
  return addSlow(LONG, wish, wish.id);
}

/** What is seen of it now. */
interface Look {
  pixels: RgbaPixels;
  /** Where that is on the screen. */
  place: Rect;
  window: ScreenWindow | undefined;
  provenance: Provenance;
}

async function look({ region }: LongShot, windowId: number | undefined): Promise<Look> {
  const still = await stillNow();
  try {
    const kind = region ? 'region' : 'window';
    const { place, window } = await placeOf(still, { kind, region, windowId });
    const { pixels, crop } = await framed(still, place, window);
    const seen = cutPixels(pixels, crop);
    return { pixels: seen, place, window, provenance: provenanceOf(still, place, window) };
  } finally {
    still.letGo();
  }
}

/** What was had, and why it ended before its end. */
interface Had {
  first: Provenance;
  until: string;
  progress: Progress;
  why: keyof typeof said | null;
}

/** Scrolls it to its end, and lays each look where it belongs. */
async function scrolled(
  wish: LongShot,
  thread: OwnThread,
  tell: (words: string) => void,
  signal: AbortSignal,
): Promise<Had> {
  const turns = new Turns();
  const across = wish.direction === 'left' || wish.direction === 'right';
  const sign = wish.direction === 'up' || wish.direction === 'left' ? -1 : 1;
  const turn = (clicks: number, place: Rect, part: Rect) => {
    const { x, y } = centre({ ...part, x: place.x + part.x, y: place.y + part.y });
    return turnWheel({ x: Math.round(x), y: Math.round(y), clicks: sign * clicks, across });
  };
  const begun = Date.now();
  const beginning = await look(wish, wish.windowId);
  const first = beginning.provenance;
  const { progress } = await thread.run('scrolled', beginning.pixels);
  const had: Had = { first, until: first.takenAt, progress, why: 'still' };
  const { width, height } = beginning.pixels;
  await turn(turns.next(null), beginning.place, { x: 0, y: 0, width, height });
  for (;;) {
    await pause(EVERY, undefined, { signal });
    const seen = await look(wish, beginning.window?.id).catch((error: unknown) => {
      if (error instanceof Fault && error.status === 404) return null;
      throw error;
    });
    if (!seen) return { ...had, why: 'gone' };
    if (seen.pixels.width !== width || seen.pixels.height !== height)
      return { ...had, why: 'size' };
    const laid = await thread.run('scrolled', seen.pixels);
    had.progress = laid.progress;
    const moved = laid.added === 'joined' || laid.added === 'apart';
    if (moved) Object.assign(had, { until: seen.provenance.takenAt, why: null });
    tell(wordsOf(laid.progress));
    if (laid.added === 'full') return { ...had, why: 'full' };
    const next = turns.saw(laid.added, laid.progress);
    if (next === 'end') return had;
    if (Date.now() - begun > LONGEST) return { ...had, why: 'late' };
    if (next !== 'wait') await turn(next.clicks, seen.place, laid.progress.part);
  }
}

function wordsOf({ pieces }: Progress): string {
  const frames = pieces.reduce((sum, piece) => sum + piece.frames, 0);
  const { width, height } = pieces.at(-1)?.size ?? { width: 0, height: 0 };
  return `Scrolls: ${frames === 1 ? 'one picture' : `${frames} pictures`}, ${width} × ${height} px …`;
}

async function take(
  wish: LongShot,
  id: string,
  tell: (words: string) => void,
  signal: AbortSignal,
): Promise<string[]> {
  tell('Waits for the delay …');
  await pause(wish.delay * 1000, undefined, { signal });
  const thread = ownThread();
  signal.addEventListener('abort', thread.end, { once: true });
  try {
    const { first, until, progress, why } = await scrolled(wish, thread, tell, signal);
    tell('Joins it …');
    const pieces = await thread.run('scrolledPieces', undefined);
    signal.throwIfAborted();
    for (const [i, picture] of pieces.entries()) {
      const named = wish.title ?? first.windowTitle;
      const title = pieces.length > 1 ? `${named ?? 'Long page'}, piece ${i + 1}` : wish.title;
      await storeShot({
        ...{ picture, title, titleMade: wish.title === undefined },
        // What was asked for is the first; the others are beside it.
        ...(i === 0 && { id }),
        provenance: { ...first, until, frames: progress.pieces[i]?.frames },
      });
    }
    const gap = `Somewhere it went too far to be joined: it is ${pieces.length} shots, all on the Shelf.`;
    const done = await thenSaid(wish.then, { id, leaves: { format: null, size: null } });
    return [...(why ? [said[why]] : []), ...(pieces.length > 1 ? [gap] : []), ...done];
  } finally {
    thread.end();
  }
}

slowTakes({ kind: LONG, wish: longShotSchema, take, once: true });
