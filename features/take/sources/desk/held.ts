import type { Desk } from '@/core/desk/model';
import { LOOK_BACK } from '@/core/held/held';
import { useSettings } from '../../../settings/settingsStore';
import type { HeldMoment, Holder } from '../contract';
import { GONE, narrowed } from '../held';
import { deskPart, paintPart, useDesk } from './live';

interface DeskMoment extends HeldMoment {
  desk: Desk;
}

/** A desk can be painted again at any time: nothing but what was on it is held. */
let moments: readonly DeskMoment[] = [];
let next = 1;
let stop: (() => void) | null = null;
let stilled = false;

/** @throws with words when it is gone */
export function heldDesk(id: number): DeskMoment {
  const found = moments.find((moment) => moment.id === id);
  if (!found) throw new Error(GONE);
  return found;
}

function forget(now: number): void {
  moments = moments.filter(({ until }) => (until ?? Infinity) > now - LOOK_BACK.longest);
}

/** The desk as it looks now becomes a moment, where it looks different. */
function note(): void {
  if (stilled) return;
  const { look: desk } = useDesk.getState();
  const now = Date.now();
  const last = moments.at(-1);
  if (last?.desk !== desk) {
    const before = last ? [...moments.slice(0, -1), { ...last, until: now }] : [];
    moments = [...before, { id: next, since: now, until: null, desk }];
    next += 1;
  }
  forget(now);
}

export const deskHolder: Holder = {
  begin: () => {
    deskHolder.end();
    note();
    const timer = setInterval(note, LOOK_BACK.every);
    stop = () => clearInterval(timer);
    return Promise.resolve();
  },
  end: () => {
    stop?.();
    stop = null;
    moments = [];
    stilled = false;
  },
  facts: () => {
    const [oldest] = moments;
    const reach = oldest ? Math.min(LOOK_BACK.longest, Date.now() - oldest.since) : 0;
    return Promise.resolve({ reach, bytes: 0, shortened: false });
  },
  moments: () => {
    note();
    stilled = true;
    return Promise.resolve([...moments]);
  },
  goOn: () => {
    stilled = false;
  },
  look: async (id, width) => {
    const { desk } = heldDesk(id);
    return narrowed(
      await paintPart(desk, deskPart(useSettings.getState().settings.way.display, desk)),
      width,
    );
  },
};
