import dbus, { defineInterface, type MessageBus } from 'dbus-native';
import { startSessionBus, type SessionBus } from './sessionBus';

/** How a desktop answers when it is asked for a picture of its screens. */
export type Manner =
  | { code: 0; uri: string }
  | { code: 1 | 2 }
  /** Nobody says yes or no. */
  | null;

const PATH = '/org/freedesktop/portal/desktop';

const SHORTCUTS = 'org.freedesktop.portal.GlobalShortcuts';

type Options = [string, [unknown, [unknown]]][];

/**
 * A desktop's portal for pictures of its screens and for keys, on a session bus of its own (XDG
 * Desktop Portal, org.freedesktop.portal.Screenshot, version 2, and GlobalShortcuts), which answers
 * as it is told.
 */
export class StandInPortal {
  /** What it answers, worked out when it is asked. */
  manner: () => Manner = () => ({ code: 2 });
  /** The options of each asking, by name. */
  readonly asked: Record<string, unknown>[] = [];
  /** How it answers when it is asked for keys, and which of them it does not give. */
  keyCode = 0;
  withheld: readonly string[] = [];
  /** What was said on the desktop (Desktop Notifications Specification 1.2). */
  readonly notices: string[] = [];
  /** The keys that were asked for, by the session: ids with the trigger that was preferred. */
  readonly keys = new Map<string, Map<string, string>>();

  private constructor(
    private readonly session: SessionBus,
    private readonly bus: MessageBus,
  ) {}

  get address(): string {
    return this.session.address;
  }

  /** @param name another than the portal's for a bus on which there is none */
  static async open(name = 'org.freedesktop.portal.Desktop'): Promise<StandInPortal> {
    const session = await startSessionBus();
    const bus = dbus.sessionBus({ busAddress: session.address });
    const portal = new StandInPortal(session, bus);
    await bus.export(
      PATH,
      defineInterface({
        name: 'org.freedesktop.portal.Screenshot',
        methods: {
          Screenshot: {
            in: { parent_window: 's', options: 'a{sv}' },
            out: { handle: 'o' },
            handler: ({ options }: { options: [string, [unknown, [unknown]]][] }, { sender }) =>
              portal.answer(options, sender ?? ''),
          },
        },
      }),
    );
    await portal.giveKeys();
    await portal.hearNotices();
    await bus.ownName(name);
    return portal;
  }

  private async hearNotices(): Promise<void> {
    const given = { app: 's', replaces: 'u', icon: 's', title: 's', body: 's', actions: 'as' };
    await this.bus.export(
      '/org/freedesktop/Notifications',
      defineInterface({
        name: 'org.freedesktop.Notifications',
        methods: {
          Notify: {
            in: { ...given, hints: 'a{sv}', stays: 'i' },
            out: { id: 'u' },
            handler: ({ body }: { body: string }) => this.notices.push(body),
          },
        },
      }),
    );
    await this.bus.ownName('org.freedesktop.Notifications');
  }

  private async giveKeys(): Promise<void> {
    await this.bus.export(
      PATH,
      defineInterface({
        name: SHORTCUTS,
        methods: {
          CreateSession: {
            in: { options: 'a{sv}' },
            out: { handle: 'o' },
            handler: ({ options }: { options: Options }, { sender }) => {
              const { session_handle_token: token } = valuesOf(options);
              const session = `${PATH}/session/${named(sender)}/${String(token)}`;
              return this.respond(options, sender, 0, [['session_handle', ['s', session]]]);
            },
          },
          BindShortcuts: {
            in: { session: 'o', shortcuts: 'a(sa{sv})', parent: 's', options: 'a{sv}' },
            out: { handle: 'o' },
            handler: (args: Binding, { sender }) => this.bind(args, sender),
          },
        },
      }),
    );
  }

  private async bind({ session, shortcuts, options }: Binding, sender?: string): Promise<string> {
    const triggers = shortcuts.map(([id, facts]): [string, string] => [
      id,
      String(valuesOf(facts).preferred_trigger),
    ]);
    this.keys.set(session, new Map(triggers));
    const close = { Close: { handler: () => void this.keys.delete(session) } };
    await this.bus.export(
      session,
      defineInterface({ name: 'org.freedesktop.portal.Session', methods: close }),
    );
    const given = triggers
      .filter(([, trigger]) => !this.withheld.includes(trigger))
      .map(([id, trigger]) => [id, [['trigger_description', ['s', trigger]]]]);
    return this.respond(options, sender, this.keyCode, [['shortcuts', ['a(sa{sv})', given]]]);
  }

  /** Presses what was asked for under that trigger. @returns how many heard of it */
  press(trigger: string): number {
    let heard = 0;
    for (const [session, keys] of this.keys) {
      for (const [id, preferred] of keys) {
        if (preferred !== trigger) continue;
        this.bus.sendSignal(PATH, SHORTCUTS, 'Activated', 'osta{sv}', [session, id, 0, []]);
        heard += 1;
      }
    }
    return heard;
  }

  private answer(options: Options, sender: string): string {
    this.asked.push(valuesOf(options));
    const manner = this.manner();
    const results = manner && 'uri' in manner ? [['uri', ['s', manner.uri]]] : [];
    return this.respond(options, sender, manner && manner.code, results);
  }

  /** @param code null for somebody who never answers @returns where the answer comes */
  private respond(
    options: Options,
    sender: string | undefined,
    code: number | null,
    results: readonly unknown[],
  ): string {
    const handle = `${PATH}/request/${named(sender)}/${String(valuesOf(options).handle_token)}`;
    if (code !== null) {
      const body = [code, results];
      setImmediate(() =>
        this.bus.sendSignal(handle, 'org.freedesktop.portal.Request', 'Response', 'ua{sv}', body),
      );
    }
    return handle;
  }

  async close(): Promise<void> {
    this.bus.connection.end();
    await this.session.end();
  }
}

interface Binding {
  session: string;
  shortcuts: [string, Options][];
  options: Options;
}

const valuesOf = (options: Options): Record<string, unknown> =>
  Object.fromEntries(options.map(([key, [, [value]]]) => [key, value]));

/** A name on the bus as it stands in paths. */
const named = (sender = ''): string => sender.slice(1).replaceAll('.', '_');
