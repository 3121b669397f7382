import type { MessageBus } from 'dbus-native';
import { setTimeout as wait } from 'node:timers/promises';
import { z } from 'zod';
import { openBus, sessionBus } from '../bus/bus';
import { valueOf } from '../bus/request';
import { shared } from '../base/shared';

/** A thing that a program describes: the program's name on the bus, and the thing's path there. */
export const refSchema = z.tuple([z.string(), z.string()]);
export type Ref = z.infer<typeof refSchema>;

/** Where all programs that describe themselves are listed (AT-SPI D-Bus, Registry). */
export const REGISTRY: Ref = ['org.a11y.atspi.Registry', '/org/a11y/atspi/accessible/root'];

/** How long a program may take for one answer, ms. */
const PATIENCE = 600;
const LAUNCHER = { destination: 'org.a11y.Bus', path: '/org/a11y/bus' } as const;
const PROPERTIES = 'org.freedesktop.DBus.Properties';

interface Kept {
  bus: Promise<MessageBus> | null;
  /** How many want windows described now, and whether it was Rezzik that told programs so. */
  wanting: number;
  told: boolean;
  turn: Promise<void>;
}
const kept = shared<Kept>('accessibility', () => ({
  ...{ bus: null, wanting: 0, told: false, turn: Promise.resolve() },
}));

/** The bus on which programs describe their windows. @throws Error where there is none */
export async function accessibilityBus(): Promise<MessageBus> {
  const open = (kept.bus ??= ownAccessibilityBus(() => {
    kept.bus = null;
  }));
  return open.catch((error: unknown) => {
    if (kept.bus === open) kept.bus = null;
    throw error;
  });
}

/** Lets go of it; the next question opens it anew. */
export function closeAccessibilityBus(): void {
  const before = kept.bus;
  kept.bus = null;
  void before?.then((bus) => bus.connection.end()).catch(() => undefined);
}

/** A connection for one purpose alone. @param lost when it ends @throws Error where there is none */
export async function ownAccessibilityBus(lost: () => void): Promise<MessageBus> {
  const session = await sessionBus();
  const asked = { ...LAUNCHER, interface: 'org.a11y.Bus', member: 'GetAddress' };
  const address = z
    .string()
    .min(1)
    .parse(await session.invoke<unknown>(asked, { timeout: 3_000 }));
  return openBus(address, lost);
}

/** How long programs that begin to describe themselves are waited for, ms, and how often looked for. */
const BEGINNING = 400;
const LOOK = 40;

/**
 * Does something while programs know that somebody wants their windows described: some do so only
 * then. Where somebody did before, nothing is changed (org.a11y.Status, IsEnabled); nor is it taken
 * back once a reader of screens has come meanwhile, on which somebody may depend, or before all
 * that go on at once are done.
 */
export async function whileWanted<T>(bus: MessageBus, act: () => Promise<T>): Promise<T> {
  kept.wanting += 1;
  try {
    await inTurn(tellOnce);
    if (kept.told) await untilAllCame(bus);
    return await act();
  } finally {
    kept.wanting -= 1;
    await inTurn(takeBack);
  }
}

/** So that nobody takes back what another counts on. */
function inTurn(step: () => Promise<void>): Promise<void> {
  kept.turn = kept.turn.catch(() => undefined).then(step);
  return kept.turn;
}

async function tellOnce(): Promise<void> {
  if (kept.told || (await status('IsEnabled'))) return;
  await want(true);
  kept.told = true;
}

async function takeBack(): Promise<void> {
  if (kept.wanting > 0 || !kept.told) return;
  kept.told = false;
  if (!(await status('ScreenReaderEnabled'))) await want(false);
}

async function status(property: string): Promise<boolean> {
  const session = await sessionBus();
  return (await propertyAt(session, LAUNCHER, 'org.a11y.Status', property)) === true;
}

async function want(wanted: boolean): Promise<void> {
  const session = await sessionBus();
  const body = ['org.a11y.Status', 'IsEnabled', ['b', wanted]];
  const call = { ...LAUNCHER, interface: PROPERTIES, member: 'Set', signature: 'ssv', body };
  await session.invoke(call, { timeout: PATIENCE });
}

/** Waits until no more programs come to the list. */
async function untilAllCame(bus: MessageBus): Promise<void> {
  const until = Date.now() + BEGINNING;
  let still = 0;
  for (let before = -1; Date.now() < until && still < 4; still += 1) {
    const listed = await askOf(bus, REGISTRY, 'Accessible', 'GetChildren').catch(() => []);
    const count = Array.isArray(listed) ? listed.length : 0;
    if (count !== before) still = 0;
    before = count;
    await wait(LOOK);
  }
}

/** Asks one thing of one thing. */
export async function askOf(
  bus: MessageBus,
  [destination, path]: Ref,
  name: string,
  member: string,
  argument?: [signature: string, value: number],
): Promise<unknown> {
  const call = { destination, path, interface: `org.a11y.atspi.${name}`, member };
  const given = argument && { signature: argument[0], body: [argument[1]] };
  return bus.invoke<unknown>({ ...call, ...given }, { timeout: PATIENCE });
}

/** A property of a thing. */
export const propertyOf = (
  bus: MessageBus,
  [destination, path]: Ref,
  name: string,
  property: string,
): Promise<unknown> => propertyAt(bus, { destination, path }, `org.a11y.atspi.${name}`, property);

async function propertyAt(
  bus: MessageBus,
  place: { destination: string; path: string },
  name: string,
  property: string,
): Promise<unknown> {
  const call = { ...place, interface: PROPERTIES, member: 'Get', signature: 'ss' };
  return valueOf(
    await bus.invoke<unknown>({ ...call, body: [name, property] }, { timeout: PATIENCE }),
  );
}
