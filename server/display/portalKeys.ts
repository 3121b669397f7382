import type { MessageBus } from 'dbus-native';
import type { Routine } from '@/core/contracts/way';
import { sessionBus } from '../bus/bus';
import { bindShortcuts, type Bound } from '../portal/shortcuts';
import { shared } from '../base/shared';

interface Keys {
  bus: MessageBus;
  /** What was asked for, to be asked again only when it changes: the person may be asked each time. */
  wanted: string;
  bound: Promise<Bound | null>;
  problems: Map<string, string>;
}

const kept = shared<{ keys: Keys | null }>('portalKeys', () => ({ keys: null }));

const ASKING = 'The desktop is being asked for this key.';
const NOT_GIVEN = 'The desktop did not give this key.';

/** Lets go of the keys that a desktop gave. */
export function dropPortalKeys(): void {
  const before = kept.keys;
  kept.keys = null;
  void before?.bound.then((bound) => bound?.close());
}

/**
 * Asks the desktop for the routines' system keys, unless it was asked for just these before. Nobody
 * waits for the answer: a person may have to think about it.
 * @returns why a routine's key does not work, by the routine's id; filled in as the answer comes
 */
export async function takePortalKeys(
  routines: readonly Routine[],
  pressed: (routine: string) => void,
): Promise<Map<string, string>> {
  const bus = await sessionBus();
  const wanted = JSON.stringify(routines.map(({ id, name, systemKey }) => [id, name, systemKey]));
  const before = kept.keys;
  if (before && before.bus === bus && before.wanted === wanted) return before.problems;
  dropPortalKeys();
  const problems = new Map(routines.map(({ id }) => [id, ASKING]));
  const bound = routines.length === 0 ? Promise.resolve(null) : ask(routines, pressed, problems);
  kept.keys = { bus, wanted, bound, problems };
  return problems;
}

async function ask(
  routines: readonly Routine[],
  pressed: (routine: string) => void,
  problems: Map<string, string>,
): Promise<Bound | null> {
  const shortcuts = routines.map(({ id, name, systemKey }) => ({
    ...{ id, words: name, key: systemKey ?? '' },
  }));
  try {
    const bound = await bindShortcuts(shortcuts, pressed);
    for (const { id } of routines) {
      if (bound.given.has(id)) problems.delete(id);
      else problems.set(id, NOT_GIVEN);
    }
    return bound;
  } catch (error) {
    const words = error instanceof Error ? error.message : String(error);
    for (const { id } of routines) problems.set(id, words);
    return null;
  }
}
