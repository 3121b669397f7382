import type { Followed } from '@/core/clip/followed';
import type { Pressed } from '@/core/clip/pressed';
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

/** Notes go along some at a time; those that cannot be put there are left, the film is more. */
function notes<T>(put: (some: T[]) => Promise<void>): {
  add: (one: T) => void;
  flush: () => Promise<void>;
} {
  let waiting: T[] = [];
  return {
    add: (one) => waiting.push(one),
    flush: async () => {
      const now = waiting;
      waiting = [];
      if (now.length > 0) await put(now).catch(() => undefined);
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
  const { add, flush } = notes<Pressed>((some) => addPressed(shot, some));
  const stop = await watchPressed(wanted, ({ when, ...what }) => {
    const at = film.momentOf(when);
    if (at === null) return;
    if ('key' in what) add({ at, key: what.key });
    else if (contains(part, what)) add({ at, x: what.x - part.x, y: what.y - part.y });
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
  const { add, flush } = notes<Followed>((some) => addFollowed(shot, some));
  let first: Point | null = null;
  const stop = await followWindow(window, ({ when, x, y }) => {
    // Moved while it paused, it is there when it goes on.
    const at = first ? (film.momentOf(when) ?? film.recorded) : 0;
    first ??= { x, y };
    add({ at, x: far.x + x - first.x, y: far.y + y - first.y });
  });
  return { flush, stop };
}
