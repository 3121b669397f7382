import type { DisplayClip } from '@/core/contracts/clip';
import type { Point } from '@/core/geometry/point';
import { contains, type Rect } from '@/core/geometry/rect';
import { followWindow } from '../display/followWindow';
import { watchPressed } from '../display/pressed';
import { addFollowed } from './followed';
import { addPressed } from './pressed';
import type { ScreenFilm } from './screenFilm';

/** What is noted beside a film while it is recorded. */
export interface Noting {
  /** What was noted is put with the recording. */
  flush: () => Promise<void>;
  stop: () => void;
}

/**
 * Notes go along some at a time and in order; those that cannot be put there are left, the film is
 * more. Where in the film one belongs, or that it does not, may be known only later.
 */
function notes<T>(put: (some: (T & { at: number })[]) => Promise<void>): {
  add: (what: T, moment: Promise<number | null>) => void;
  flush: () => Promise<void>;
} {
  let waiting: Promise<(T & { at: number }) | null>[] = [];
  let putting = Promise.resolve();
  const putAll = async (now: typeof waiting) => {
    const some = (await Promise.all(now)).filter((one) => one !== null);
    if (some.length > 0) await put(some).catch(() => undefined);
  };
  return {
    add: (what, moment) => {
      waiting.push(moment.then((at) => (at === null ? null : { ...what, at })));
    },
    flush: () => {
      const now = waiting;
      waiting = [];
      putting = putting.then(() => putAll(now));
      return putting;
    },
  };
}

/** Clicks and keys, in time with the film, as far as they are wanted. @param part of the display */
export async function noteHand(
  shot: string,
  film: ScreenFilm,
  part: Rect,
  { pressed: wanted }: DisplayClip,
): Promise<Noting> {
  const { add, flush } = notes<Point | { key: string }>((some) => addPressed(shot, some));
  const stop = await watchPressed(wanted, ({ when, ...what }) => {
    if ('key' in what) add({ key: what.key }, film.momentOf(when));
    else if (contains(part, what))
      add({ x: what.x - part.x, y: what.y - part.y }, film.momentOf(when));
  });
  return { flush, stop };
}

/**
 * Where the window that is followed lies, in time with the film.
 * @param far how far it has been moved since it was chosen
 */
export async function noteWindow(
  shot: string,
  film: ScreenFilm,
  window: number,
  far: Point,
): Promise<Noting> {
  const { add, flush } = notes<Point>((some) => addFollowed(shot, some));
  let first: Point | null = null;
  const stop = await followWindow(window, ({ when, x, y }) => {
    const { recorded } = film;
    // Moved while it paused, it is there when it goes on.
    const moment = first ? film.momentOf(when).then((at) => at ?? recorded) : Promise.resolve(0);
    first ??= { x, y };
    add({ x: far.x + x - first.x, y: far.y + y - first.y }, moment);
  });
  return { flush, stop };
}
