import { Fault } from '../base/fault';
import { stillNow } from './access';
import type { Still } from './still';
import { shared } from '../base/shared';

/** Stilled screens wait here while a person chooses; few, and not for ever. */
const MOST = 3;
const STAYS = 10 * 60_000;

// Route handlers may be loaded more than once; what they hold must be the same.
const held = shared('stills', () => new Map<string, Still>());

/** Stills the screen, or goes by a picture of it that is still already, and holds it. @throws Fault 403, 503 */
export async function holdStill(given?: Still): Promise<Still> {
  const still = given ?? (await stillNow());
  held.set(still.id, still);
  for (const id of [...held.keys()].slice(0, -MOST)) dropStill(id);
  setTimeout(() => dropStill(still.id), STAYS).unref();
  return still;
}

/** @throws Fault 410 when it was let go */
export function heldStill(id: string): Still {
  const still = held.get(id);
  if (!still) throw new Fault(410, 'gone', 'This stilled picture is no longer held. Take again.');
  return still;
}

export function dropStill(id: string): void {
  held.get(id)?.letGo();
  held.delete(id);
}
