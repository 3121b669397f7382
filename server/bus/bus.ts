import dbus, { type MessageBus } from 'dbus-native';
import { shared } from '../base/shared';

/** How long a service may take to answer, ms. */
const PATIENCE = 3_000;

/** The name under which a desktop does things for programs that may not do them themselves. */
export const PORTAL = {
  destination: 'org.freedesktop.portal.Desktop',
  path: '/org/freedesktop/portal/desktop',
} as const;

interface Kept {
  bus: { address: string; opening: Promise<MessageBus> } | null;
}
const kept = shared<Kept>('bus', () => ({ bus: null }));

/** The session's message bus. @throws Error where there is none */
export function sessionBus(): Promise<MessageBus> {
  const address = process.env.DBUS_SESSION_BUS_ADDRESS ?? '';
  if (!address) return Promise.reject(new Error('There is no session bus.'));
  if (kept.bus?.address === address) return kept.bus.opening;
  closeSessionBus();
  const forget = () => {
    if (kept.bus?.opening === opening) kept.bus = null;
  };
  const opening = openBus(address, forget);
  opening.catch(forget);
  kept.bus = { address, opening };
  return opening;
}

/** Lets go of the bus; the next question opens it anew. */
export function closeSessionBus(): void {
  const before = kept.bus;
  kept.bus = null;
  void before?.opening.then((bus) => bus.connection.end()).catch(() => undefined);
}

/**
 * A connection to the bus at an address.
 * @param lost called when it ends, or could not be made
 */
export function openBus(busAddress: string, lost: () => void): Promise<MessageBus> {
  return new Promise((resolve, reject) => {
    const bus = dbus.sessionBus({ busAddress });
    const fail = (error: Error) => {
      reject(error);
      lost();
    };
    bus.connection.on('error', fail);
    bus.connection.on('end', () => fail(new Error('The bus went away.')));
    // Any answer tells that the greeting is over and that we have a name.
    askBus(bus, 'GetId').then(
      () => resolve(bus),
      (error: Error) => {
        bus.connection.end();
        reject(error);
      },
    );
  });
}

/** Asks the bus itself (D-Bus specification, Message Bus Messages). */
async function askBus<T>(bus: MessageBus, member: string): Promise<T> {
  const name = 'org.freedesktop.DBus';
  const call = { destination: name, path: '/org/freedesktop/DBus', interface: name, member };
  return bus.invoke<T>(call, { timeout: PATIENCE });
}

/** True where the desktop has a portal, running or to be started by being asked. */
export async function hasPortal(): Promise<boolean> {
  const bus = await sessionBus().catch(() => null);
  if (!bus) return false;
  const names = await Promise.all(
    ['ListNames', 'ListActivatableNames'].map((member) =>
      askBus<string[]>(bus, member).catch(() => []),
    ),
  );
  return names.flat().includes(PORTAL.destination);
}
