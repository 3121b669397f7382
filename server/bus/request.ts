import { randomBytes } from 'node:crypto';
import { PORTAL, sessionBus } from './bus';

/** How a request ended (org.freedesktop.portal.Request, Response). */
const DONE = 0;
const REFUSED = 1;

export type Answer =
  { state: 'done'; results: Map<string, unknown> } | { state: 'refused' | 'ended' | 'silent' };

/** A value with its type, as the bus writes what may be of any. */
export type Typed = [signature: string, value: unknown];

/** What came of such a value: its type as a tree, and the value in a list. */
export const valueOf = (variant: unknown): unknown =>
  Array.isArray(variant) && Array.isArray(variant[1]) ? variant[1][0] : variant;

/**
 * Asks the desktop for something that a person may have to allow first; the answer comes as a signal
 * at a path that is known before (XDG Desktop Portal, org.freedesktop.portal.Request).
 * @param patience how long a person may take, ms
 * @param given what stands before the options: as a rule no window of ours that a question could lie over
 * @throws Error where there is no bus or no such portal
 */
export async function askPortal(
  name: string,
  member: string,
  options: readonly [key: string, value: Typed][],
  patience: number,
  given: readonly Typed[] = [['s', '']],
): Promise<Answer> {
  const bus = await sessionBus();
  const token = `rezzik${randomBytes(8).toString('hex')}`;
  const sender = (bus.name ?? '').replace(/^:/, '').replaceAll('.', '_');
  const path = `${PORTAL.path}/request/${sender}/${token}`;
  const itsInterface = 'org.freedesktop.portal.Request';
  // Listened to before asking: the answer may come at once.
  const watch = await bus.watch(`type='signal',interface='${itsInterface}',path='${path}'`);
  const signal = bus.mangle(path, itsInterface, 'Response');
  let hear = (_body: unknown[]): void => undefined;
  let late: NodeJS.Timeout | undefined;
  try {
    const answered = new Promise<Answer>((resolve) => {
      hear = ([code, results]) => resolve(answerOf(code, results));
      bus.signals.on(signal, hear);
      late = setTimeout(() => resolve({ state: 'silent' }), patience);
    });
    await bus.invoke(
      {
        ...PORTAL,
        interface: name,
        member,
        signature: `${given.map(([type]) => type).join('')}a{sv}`,
        body: [...given.map(([, value]) => value), [['handle_token', ['s', token]], ...options]],
      },
      { timeout: patience },
    );
    return await answered;
  } finally {
    clearTimeout(late);
    bus.signals.off(signal, hear);
    await watch.remove().catch(() => undefined);
  }
}

function answerOf(code: unknown, results: unknown): Answer {
  if (code === REFUSED) return { state: 'refused' };
  if (code !== DONE) return { state: 'ended' };
  const pairs = Array.isArray(results) ? (results as unknown[]) : [];
  const all = new Map<string, unknown>();
  for (const pair of pairs) {
    if (Array.isArray(pair) && typeof pair[0] === 'string') all.set(pair[0], valueOf(pair[1]));
  }
  return { state: 'done', results: all };
}
