import type { Followed } from '@/core/clip/followed';
import type { Pressed } from '@/core/clip/pressed';
import type { Way } from '@/core/contracts/way';
import { api } from '../../api/client';
import type { Filmed, ShownThere } from '../sources/contract';

/** What was noted is sent so often, ms: a crash takes no more with it. */
const OFTEN = 1_000;

/** Notes what is done while a clip is recorded. */
export interface HandNotes {
  /** All of it is with the server, or cannot be brought there: the clip is more. */
  end: () => Promise<void>;
}

/** Sends notes some at a time; what could not be sent goes with what comes next. */
function notes<T>(put: (some: readonly T[]) => Promise<unknown>): {
  add: (one: T) => void;
  send: () => Promise<void>;
} {
  let waiting: T[] = [];
  return {
    add: (one) => waiting.push(one),
    send: async () => {
      const now = waiting;
      waiting = [];
      if (now.length > 0) await put(now).catch(() => (waiting = [...now, ...waiting]));
    },
  };
}

/** How far a recording is, seconds; null while it pauses. */
type Moment = () => number | null;

/** Clicks and keys, as far as they are wanted. */
function notePressed(
  { pressed: hear }: Filmed,
  wanted: Way['pressed'],
  add: (one: Pressed) => void,
  moment: Moment,
): () => void {
  if (!hear || wanted.length === 0) return () => undefined;
  return hear((what) => {
    const at = moment();
    if (at !== null && wanted.includes('key' in what ? 'keys' : 'clicks')) add({ at, ...what });
  });
}

/** Where the window lies that is followed. */
function noteFollowed(
  { follows }: Filmed,
  follow: ShownThere['follow'],
  add: (one: Followed) => void,
  moment: Moment,
): () => void {
  if (!follows || !follow) return () => undefined;
  let last = 0;
  return follows(follow.window, ({ x, y }) => {
    // Moved while it pauses, it is there when it goes on.
    last = moment() ?? last;
    add({ at: last, x: x - follow.x, y: y - follow.y });
  });
}

/**
 * @param id of what is recorded
 * @param moment how far it is
 */
export function noteHand(
  id: string,
  filmed: Filmed,
  { pressed: wanted, follow }: Pick<Way, 'pressed'> & ShownThere,
  moment: Moment,
): HandNotes {
  const pressed = notes<Pressed>((some) => api.clipPressed(id, some));
  const followed = notes<Followed>((some) => api.clipFollowed(id, some));
  const stops = [
    notePressed(filmed, wanted, pressed.add, moment),
    noteFollowed(filmed, follow, followed.add, moment),
  ];
  const send = () => Promise.all([pressed.send(), followed.send()]);
  const timer = setInterval(() => void send(), OFTEN);
  return {
    end: async () => {
      for (const stop of stops) stop();
      clearInterval(timer);
      await send();
    },
  };
}
