import type { MessageBus } from 'dbus-native';
import { z } from 'zod';
import {
  askOf,
  ownAccessibilityBus,
  propertyOf,
  REGISTRY,
  refSchema,
  whileWanted,
  type Ref,
} from './bus';

/** Whether what is typed now goes into a field for a password. */
export interface SecretWatch {
  isSecret: () => boolean;
  stop: () => void;
}

/** As programs tell of it (AT-SPI2, Event.Object; AtspiRole and AtspiStateType in atspi-constants.h). */
const EVENT = 'org.a11y.atspi.Event.Object';
const CHANGED = 'StateChanged';
const FOCUSED = 12;
/** By number: GTK 4 names it as it does every other field. */
const PASSWORD = 40;
/** So many things are looked at for the one that has the focus at first. */
const MOST = 1_500;

const stateSchema = z.tuple([z.int(), z.int()]);

/**
 * Follows where the focus is, as programs tell of it by AT-SPI. Of one that tells nothing it cannot
 * be known. Until it is known what has the focus, or that nobody tells, it counts as secret.
 */
export function watchSecret(): SecretWatch {
  let isSecret = true;
  let focused: Ref | null = null;
  let isTold = false;
  let stop = (): void => undefined;
  const stopped = new Promise<void>((resolve) => (stop = resolve));
  const look = async (bus: MessageBus, ref: Ref): Promise<void> => {
    focused = ref;
    isSecret = true;
    const role = await askOf(bus, ref, 'Accessible', 'GetRole').catch(() => null);
    if (focused === ref) isSecret = role === PASSWORD;
  };
  const leave = (ref: Ref): void => {
    if (focused?.join() !== ref.join()) return;
    focused = null;
    isSecret = false;
  };
  const follow = async (bus: MessageBus): Promise<void> => {
    bus.connection.on('message', ({ interface: name, member, sender, path, body = [] }) => {
      if (name !== EVENT || member !== CHANGED || body[0] !== 'focused' || !sender || !path) return;
      isTold = true;
      if (body[1] === 1) void look(bus, [sender, path]);
      else leave([sender, path]);
    });
    await bus.addMatch(`type='signal',interface='${EVENT}',member='${CHANGED}',arg0='focused'`);
    await register(bus);
    // What is told meanwhile is newer than what is found.
    const first = await findFocused(bus);
    if (first && !isTold) await look(bus, first);
    else if (!focused) isSecret = false;
    await stopped;
  };
  void ownAccessibilityBus(stop)
    .then(async (bus) => {
      await whileWanted(bus, () => follow(bus)).finally(() => bus.connection.end());
    })
    // Without such a bus nothing can be known.
    .catch(() => (isSecret = false));
  return { isSecret: () => isSecret, stop };
}

/** Programs tell of what nobody has asked for only once somebody has. */
const register = async (bus: MessageBus): Promise<unknown> =>
  bus.invoke({
    ...{ destination: REGISTRY[0], path: '/org/a11y/atspi/registry' },
    ...{ interface: REGISTRY[0], member: 'RegisterEvent' },
    ...{ signature: 's', body: ['object:state-changed:focused'] },
  });

/** What has the focus before anything is told of it. */
async function findFocused(bus: MessageBus): Promise<Ref | null> {
  let looked = 0;
  const search = async (ref: Ref): Promise<Ref | null> => {
    if ((looked += 1) > MOST) return null;
    const told = stateSchema.safeParse(
      await askOf(bus, ref, 'Accessible', 'GetState').catch(() => null),
    );
    if (told.success && told.data[0] & (1 << FOCUSED)) return ref;
    const count = await propertyOf(bus, ref, 'Accessible', 'ChildCount').catch(() => 0);
    return Number(count) > 0 ? among(ref) : null;
  };
  const among = async (ref: Ref): Promise<Ref | null> => {
    const asked = await askOf(bus, ref, 'Accessible', 'GetChildren').catch(() => []);
    const found = await Promise.all((z.array(refSchema).safeParse(asked).data ?? []).map(search));
    return found.find((one) => one !== null) ?? null;
  };
  return among(REGISTRY);
}
