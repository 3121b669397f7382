import dbus, { defineInterface, type MessageBus } from 'dbus-native';
import { startSessionBus, type SessionBus } from './sessionBus';

/** A thing that the program describes. */
export interface Thing {
  role: string;
  name: string;
  /** x, y, width, height on the screen. */
  box: readonly [number, number, number, number];
  children?: readonly Thing[];
  /** How many children it says it has, where that is not the truth. */
  claims?: number;
  /** Never answers when asked for it. */
  silent?: boolean;
}

const ROOT = '/org/a11y/atspi/accessible/root';
const PROGRAM = '/org/a11y/atspi/accessible/program';

/**
 * A bus on which one program describes its windows, and tells what it is told to tell (AT-SPI D-Bus:
 * Registry, Accessible, Application, Component; org.a11y.Bus).
 */
export class StandInProgram {
  /** Whether programs know that somebody wants it, each time that changed. */
  readonly wanted: boolean[] = [];
  private count = 0;

  private constructor(
    private readonly session: SessionBus,
    private readonly bus: MessageBus,
  ) {}

  get address(): string {
    return this.session.address;
  }

  /** @param tops its windows */
  static async open(tops: readonly Thing[]): Promise<StandInProgram> {
    const session = await startSessionBus();
    const bus = dbus.sessionBus({ busAddress: session.address });
    const program = new StandInProgram(session, bus);
    await bus.ownName('org.a11y.atspi.Registry');
    await program.launcher();
    const own = bus.name ?? '';
    const paths = await Promise.all(tops.map((top) => program.show(top)));
    await program.list(paths.map((path) => [own, path]));
    await bus.ownName('org.a11y.Bus');
    return program;
  }

  private async launcher(): Promise<void> {
    const { address, wanted } = this;
    const method = { out: { address: 's' }, handler: () => address };
    await this.bus.export(
      '/org/a11y/bus',
      defineInterface({ name: 'org.a11y.Bus', methods: { GetAddress: method } }),
    );
    await this.bus.export(
      '/org/a11y/bus',
      defineInterface({
        name: 'org.a11y.Status',
        properties: {
          IsEnabled: {
            type: 'b',
            get: () => wanted.at(-1) ?? false,
            set: (value) => void wanted.push(value === true),
          },
          ScreenReaderEnabled: { type: 'b', get: () => false },
        },
      }),
    );
  }

  /** The list of programs, of which this is the only one. */
  private async list(tops: readonly (readonly [string, string])[]): Promise<void> {
    const nothing = { role: 'application', name: 'Stand-in', box: [0, 0, 0, 0] } as const;
    await this.bus.export(
      PROGRAM,
      defineInterface({
        name: 'org.a11y.atspi.Application',
        properties: {
          ToolkitName: { type: 's', get: () => 'stand-in' },
          Version: { type: 's', get: () => '1' },
        },
      }),
    );
    await this.accessible(PROGRAM, nothing, () => tops);
    await this.accessible(ROOT, nothing, () => [[this.bus.name, PROGRAM]]);
  }

  /** Puts a thing and all in it on the bus. @returns its path */
  private async show(thing: Thing): Promise<string> {
    this.count += 1;
    const path = `/org/a11y/atspi/accessible/${this.count}`;
    const own = this.bus.name ?? '';
    const children: [string, string][] = [];
    for (const child of thing.children ?? []) children.push([own, await this.show(child)]);
    await this.accessible(path, thing, () => children);
    await this.bus.export(
      path,
      defineInterface({
        name: 'org.a11y.atspi.Component',
        methods: {
          GetExtents: {
            in: { coord: 'u' },
            out: { box: '(iiii)' },
            handler: () => (thing.silent ? new Promise(() => undefined) : thing.box),
          },
          GetAccessibleAtPoint: {
            in: { x: 'i', y: 'i', coord: 'u' },
            out: { thing: '(so)' },
            handler: ({ x, y }: { x: number; y: number }) => {
              const at = (thing.children ?? []).findIndex(
                ({ box: [left, top, width, height] }) =>
                  x >= left && y >= top && x < left + width && y < top + height,
              );
              return children[at] ?? [own, path];
            },
          },
        },
      }),
    );
    return path;
  }

  private async accessible(path: string, thing: Thing, children: () => unknown): Promise<void> {
    await this.bus.export(
      path,
      defineInterface({
        name: 'org.a11y.atspi.Accessible',
        methods: {
          GetChildren: { out: { children: 'a(so)' }, handler: children },
          GetRoleName: { out: { name: 's' }, handler: () => thing.role },
        },
        properties: {
          Name: { type: 's', get: () => thing.name },
          ChildCount: { type: 'i', get: () => thing.claims ?? thing.children?.length ?? 0 },
        },
      }),
    );
  }

  async close(): Promise<void> {
    this.bus.connection.end();
    await this.session.end();
  }
}
