import { api } from '../../../api/client';
import type { Holder } from '../contract';

/** Hears that holding is over by itself. */
let ended: ((why: string) => void) | null = null;

/** The server holds no more, for whatever reason: told by its events. */
export function displayHoldingEnded(why: string): void {
  ended?.(why);
  ended = null;
}

/** The server holds the last seconds of this computer's screen: it goes on with every page hidden. */
/** Another page has begun it, or this one before a reload. */
export function joinDisplayHolding(over: (why: string) => void): void {
  ended = over;
}

export const displayHolder: Holder = {
  begin: async (_most, over) => {
    await api.hold({ on: true });
    ended = over;
  },
  end: () => {
    ended = null;
    void api.hold({ on: false }).catch(() => undefined);
  },
  facts: async () => {
    const { on, reach = 0, bytes = 0, shortened = false, locks, why } = await api.held();
    if (!on) displayHoldingEnded(why ?? 'It was switched off elsewhere.');
    return { reach, bytes, shortened, locks };
  },
  moments: async () => {
    const { moments, now } = await api.heldMoments();
    // By the clock of this page, which may go otherwise.
    const by = Date.now() - now;
    return moments.map(({ id, since, until }) => ({
      ...{ id, since: since + by, until: until === null ? null : until + by },
    }));
  },
  goOn: () => void api.hold({ goOn: true }).catch(() => undefined),
  look: async (id, width) => createImageBitmap(await api.heldPicture(id, width)),
};
