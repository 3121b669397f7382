import { setTimeout as wait } from 'node:timers/promises';
import type { Message, MessageBus } from 'dbus-native';
import { openBus } from '../../bus/bus';
import { shared } from '../../base/shared';

/** Where the system's own bus is, unless the environment says otherwise (D-Bus specification). */
const SYSTEM_BUS = 'unix:path=/var/run/dbus/system_bus_socket';

/** How long a bus may take to answer, ms. */
const PATIENCE = 4_000;

/** What says that a screen is locked: where, the rule that lets it be heard, and what it is. */
const signals = {
  /** Every desktop's own service for that: org.freedesktop.ScreenSaver, org.gnome.ScreenSaver and so on. */
  session: {
    rule: "type='signal',member='ActiveChanged'",
    means: ({ interface: of = '', body }: Message) =>
      of.endsWith('.ScreenSaver') && body?.[0] === true,
  },
  /** The session manager's, by which a desktop is told to lock (org.freedesktop.login1). */
  system: {
    rule: "type='signal',interface='org.freedesktop.login1.Session',member='Lock'",
    means: ({ interface: of, member }: Message) =>
      of === 'org.freedesktop.login1.Session' && member === 'Lock',
  },
};

interface Kept {
  heard: Set<() => void>;
  /** On which buses is listened, and whether there is one. */
  listening: { on: string; isHeard: Promise<boolean> } | null;
}
const kept = shared<Kept>('locked', () => ({ heard: new Set(), listening: null }));

async function listenOn(
  address: string | undefined,
  { rule, means }: (typeof signals)['session'],
): Promise<boolean> {
  if (!address) return false;
  const lost = () => (kept.listening = null);
  const bus: MessageBus = await openBus(address, lost);
  bus.connection.on('message', (message: Message) => {
    if (means(message)) for (const hear of kept.heard) hear();
  });
  await bus.watch(rule);
  return true;
}

async function listen(session: string | undefined, system: string): Promise<boolean> {
  const heard = await Promise.all([
    listenOn(session, signals.session).catch(() => false),
    listenOn(system, signals.system).catch(() => false),
  ]);
  return heard.includes(true);
}

/**
 * Hears whenever the screen of this computer is locked.
 * @returns false where no desktop would tell
 */
export async function hearLock(hear: () => void): Promise<boolean> {
  kept.heard.add(hear);
  const { DBUS_SESSION_BUS_ADDRESS, DBUS_SYSTEM_BUS_ADDRESS = SYSTEM_BUS } = process.env;
  const on = `${DBUS_SESSION_BUS_ADDRESS} ${DBUS_SYSTEM_BUS_ADDRESS}`;
  if (kept.listening?.on !== on)
    kept.listening = { on, isHeard: listen(DBUS_SESSION_BUS_ADDRESS, DBUS_SYSTEM_BUS_ADDRESS) };
  // A bus may take the call and never answer; nobody waits for it.
  const late = wait(PATIENCE, false, { ref: false });
  const isHeard = await Promise.race([kept.listening.isHeard, late]);
  // Asked again with the next one who wants to know: a bus may come later.
  if (!isHeard) kept.listening = null;
  return isHeard;
}
