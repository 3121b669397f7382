import { spawn, type ChildProcess } from 'node:child_process';
import dbus, { defineInterface, type MessageBus } from 'dbus-native';

/** How a desktop answers when it is asked for a picture of its screens. */
export type Manner =
  | { code: 0; uri: string }
  | { code: 1 | 2 }
  /** Nobody says yes or no. */
  | null;

const PATH = '/org/freedesktop/portal/desktop';

/**
 * A desktop's portal for pictures of its screens, on a session bus of its own (XDG Desktop Portal,
 * org.freedesktop.portal.Screenshot, version 2), which answers as it is told.
 */
export class StandInPortal {
  /** What it answers, worked out when it is asked. */
  manner: () => Manner = () => ({ code: 2 });
  /** The options of each asking, by name. */
  readonly asked: Record<string, unknown>[] = [];

  private constructor(
    readonly address: string,
    private readonly daemon: ChildProcess,
    private readonly bus: MessageBus,
  ) {}

  /** @param name another than the portal's for a bus on which there is none */
  static async open(name = 'org.freedesktop.portal.Desktop'): Promise<StandInPortal> {
    const daemon = spawn('dbus-daemon', ['--session', '--nofork', '--print-address=1'], {
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    const address = await new Promise<string>((resolve, reject) => {
      daemon.stdout.once('data', (words: Buffer) => resolve(words.toString().trim()));
      daemon.once('exit', () => reject(new Error('dbus-daemon did not start')));
    });
    const bus = dbus.sessionBus({ busAddress: address });
    const portal = new StandInPortal(address, daemon, bus);
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
    await bus.ownName(name);
    return portal;
  }

  private answer(options: [string, [unknown, [unknown]]][], sender: string): string {
    const told = Object.fromEntries(options.map(([key, [, [value]]]) => [key, value]));
    this.asked.push(told);
    const from = sender.slice(1).replaceAll('.', '_');
    const handle = `${PATH}/request/${from}/${String(told.handle_token)}`;
    const manner = this.manner();
    const results = manner && 'uri' in manner ? [['uri', ['s', manner.uri]]] : [];
    if (manner) {
      const body = [manner.code, results];
      setImmediate(() =>
        this.bus.sendSignal(handle, 'org.freedesktop.portal.Request', 'Response', 'ua{sv}', body),
      );
    }
    return handle;
  }

  async close(): Promise<void> {
    this.bus.connection.end();
    const ended = new Promise((resolve) => this.daemon.once('exit', resolve));
    this.daemon.kill('SIGTERM');
    await ended;
  }
}
