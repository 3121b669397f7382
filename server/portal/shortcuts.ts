import { randomBytes } from 'node:crypto';
import { z } from 'zod';
import { keysymName } from '../base/keyNames';
import { PORTAL, sessionBus } from '../bus/bus';
import { askPortal, valueOf, type Typed } from '../bus/request';

const NAME = 'org.freedesktop.portal.GlobalShortcuts';
/** A person may be asked which keys shall be given, ms. */
const PATIENCE = 120_000;
const SOON = 3_000;

export interface Shortcut {
  id: string;
  /** What it does, for the person who is asked. */
  words: string;
  /** As routines write keys: mod+alt+r. */
  key: string;
}

export interface Bound {
  /** Those that the desktop gave, each with the keys it says it has. */
  given: Map<string, string>;
  close: () => void;
}

const modifiers: Record<string, string> = { mod: 'CTRL', alt: 'ALT', shift: 'SHIFT' };
/** A key as the desktop is told of it (XDG shortcuts specification: modifiers, then a keysym's name). */
export function triggerOf(key: string): string {
  const parts = key.split('+');
  const name = keysymName(parts.at(-1) ?? '');
  return [...parts.slice(0, -1).map((part) => modifiers[part] ?? part.toUpperCase()), name].join(
    '+',
  );
}

/**
 * Asks the desktop for keys that are heard wherever the person is (XDG Desktop Portal,
 * org.freedesktop.portal.GlobalShortcuts). It may ask the person, who may choose other keys.
 * @param pressed is told the id of a shortcut
 * @throws Error in words where it gives none
 */
export async function bindShortcuts(
  shortcuts: readonly Shortcut[],
  pressed: (id: string) => void,
): Promise<Bound> {
  const bus = await sessionBus();
  const token: Typed = ['s', `rezzik${randomBytes(8).toString('hex')}`];
  const made = await askPortal(NAME, 'CreateSession', [['session_handle_token', token]], SOON, []);
  const session = made.state === 'done' ? made.results.get('session_handle') : null;
  if (typeof session !== 'string') throw new Error('This desktop gives no keys to programs.');
  const watch = await bus.watch(`type='signal',interface='${NAME}',member='Activated'`);
  const signal = bus.mangle(PORTAL.path, NAME, 'Activated');
  const hear = ([from, id]: unknown[]) => {
    if (from === session && typeof id === 'string') pressed(id);
  };
  bus.signals.on(signal, hear);
  const close = () => {
    bus.signals.off(signal, hear);
    void watch.remove().catch(() => undefined);
    const call = { ...PORTAL, path: session, interface: 'org.freedesktop.portal.Session' };
    bus.invoke({ ...call, member: 'Close' }, { timeout: SOON }).then(
      () => undefined,
      () => undefined,
    );
  };
  const wanted = shortcuts.map(({ id, words, key }) => [
    id,
    [
      ['description', ['s', words]],
      ['preferred_trigger', ['s', triggerOf(key)]],
    ],
  ]);
  const before: Typed[] = [
    ['o', session],
    ['a(sa{sv})', wanted],
    ['s', ''],
  ];
  try {
    const answer = await askPortal(NAME, 'BindShortcuts', [], PATIENCE, before);
    if (answer.state === 'refused') throw new Error('The desktop was told to give Rezzik no keys.');
    if (answer.state !== 'done') throw new Error('The desktop did not answer about keys.');
    return { given: givenIn(answer.results.get('shortcuts')), close };
  } catch (error) {
    close();
    throw error;
  }
}

const givenSchema = z.array(z.tuple([z.string(), z.array(z.tuple([z.string(), z.unknown()]))]));

function givenIn(told: unknown): Bound['given'] {
  const read = givenSchema.safeParse(told);
  if (!read.success) return new Map();
  return new Map(
    read.data.map(([id, facts]) => {
      const words = facts.find(([name]) => name === 'trigger_description')?.[1];
      const said = valueOf(words);
      return [id, typeof said === 'string' ? said : ''];
    }),
  );
}
