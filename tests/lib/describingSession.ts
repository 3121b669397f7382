import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startSessionBus, type SessionBus } from './sessionBus';

/** What programs need to know to describe themselves on it. */
const names = [
  ...['DBUS_SESSION_BUS_ADDRESS', 'XDG_RUNTIME_DIR', 'NO_AT_BRIDGE', 'GTK_A11Y'],
  'QT_LINUX_ACCESSIBILITY_ALWAYS_ON',
];

/**
 * A session bus with the desktop's own launcher of the bus on which programs describe their windows.
 * What is started while it is open, of this process, uses it.
 */
export class DescribingSession {
  private constructor(
    private readonly bus: SessionBus,
    private readonly folder: string,
    private readonly before: readonly [string, string | undefined][],
  ) {}

  static async open(): Promise<DescribingSession> {
    const folder = mkdtempSync(join(tmpdir(), 'rezzik-session-'));
    const before = names.map((name): [string, string | undefined] => [name, process.env[name]]);
    process.env.XDG_RUNTIME_DIR = folder;
    // Turned off for all other tests.
    Object.assign(process.env, { NO_AT_BRIDGE: '0', GTK_A11Y: 'atspi' });
    // Qt 5 describes itself only so, or when a reader of screens runs.
    process.env.QT_LINUX_ACCESSIBILITY_ALWAYS_ON = '1';
    // Without a display, the launcher does not write its address there for others to find; what it
    // is told stays in its memory.
    const { DISPLAY: _, ...rest } = process.env;
    const env = { ...rest, GSETTINGS_BACKEND: 'memory' };
    const bus = await startSessionBus(env);
    process.env.DBUS_SESSION_BUS_ADDRESS = bus.address;
    return new DescribingSession(bus, folder, before);
  }

  async close(): Promise<void> {
    for (const [name, value] of this.before) {
      if (value === undefined) Reflect.deleteProperty(process.env, name);
      else process.env[name] = value;
    }
    await this.bus.end();
    rmSync(this.folder, { recursive: true, force: true });
  }
}
