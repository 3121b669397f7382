import { execFile, spawn, type ChildProcess } from 'node:child_process';
import { promisify } from 'node:util';
import { z } from 'zod';

const run = promisify(execFile);

/** What a very busy machine may need to start a program, ms. */
const PATIENCE = 60_000;

/** Programs describe themselves to nobody unless a test asks for it: a bus of the machine's may hang. */
const quiet = { NO_AT_BRIDGE: '1', GTK_A11Y: 'none' };

/** How window managers are started that need more than their name. */
const managers: Record<string, string[]> = {
  xfwm4: ['dbus-run-session', '--', 'xfwm4', '--compositor=on'],
};

/** An X display of its own, with a window manager, for as long as a test runs. */
export class XDisplay {
  private readonly children: ChildProcess[] = [];
  private constructor(readonly name: string) {}

  /** @param options more arguments of the X server, such as an extension to go without */
  static async open(
    width: number,
    height: number,
    manager = 'openbox',
    ...options: string[]
  ): Promise<XDisplay> {
    // -displayfd lets the server choose a number that nobody uses.
    const server = spawn(
      'Xvfb',
      [
        ...['-displayfd', '3', '-screen', '0', `${width}x${height}x24`],
        ...['-noreset', '-nolisten', 'tcp', ...options],
      ],
      { stdio: ['ignore', 'ignore', 'ignore', 'pipe'] },
    );
    const number = await new Promise<string>((resolve, reject) => {
      server.stdio[3]?.once('data', (data: Buffer) => resolve(data.toString().trim()));
      server.once('exit', () => reject(new Error('Xvfb did not start')));
    });
    const display = new XDisplay(`:${number}`);
    display.children.push(server);
    if (manager) await display.manage(manager);
    return display;
  }

  /** A display that is there already, with a window manager of our own on it. */
  static async join(name: string, manager = 'openbox'): Promise<XDisplay> {
    const display = new XDisplay(name);
    await display.manage(manager);
    return display;
  }

  /** Starts a window manager and waits until it manages: a client mapped before is left in limbo. */
  private async manage(manager: string): Promise<void> {
    const [program = '', ...args] = managers[manager] ?? [manager];
    this.start(program, ...args);
    const patience = Date.now() + PATIENCE;
    while (Date.now() < patience) {
      const words = await this.run('xprop', '-root', '_NET_SUPPORTING_WM_CHECK');
      if (words.includes('0x')) return;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    throw new Error(`${manager} did not start.`);
  }

  /** Runs a program on this display to its end. */
  async run(program: string, ...args: string[]): Promise<string> {
    const env = { ...quiet, ...process.env, DISPLAY: this.name };
    return (await run(program, args, { env, maxBuffer: 1 << 26 })).stdout;
  }

  /** What a program on this display writes, as bytes. */
  async bytes(program: string, ...args: string[]): Promise<Buffer> {
    const env = { ...quiet, ...process.env, DISPLAY: this.name };
    return (await run(program, args, { env, encoding: 'buffer', maxBuffer: 1 << 28 })).stdout;
  }

  /** Waits for a window and says its number. */
  async windowId(title: string): Promise<number> {
    const patience = Date.now() + PATIENCE;
    while (Date.now() < patience) {
      if (await this.window(title)) {
        const words = await this.run('xwininfo', '-name', title);
        return Number(/Window id: (0x[0-9a-f]+)/.exec(words)?.[1]);
      }
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    throw new Error(`No window ${title} came up.`);
  }

  /** Starts a client on this display. @returns what ends it before the display is closed */
  start(program: string, ...args: string[]): () => Promise<void> {
    const env = { ...quiet, ...process.env, DISPLAY: this.name };
    const child = spawn(program, args, { stdio: 'ignore', env });
    this.children.push(child);
    return () => ended(child);
  }

  /** Where a window's own pixels are on the screen, by xwininfo; null until it is shown. */
  async window(
    title: string,
  ): Promise<{ x: number; y: number; width: number; height: number } | null> {
    const asked = await run('xwininfo', ['-display', this.name, '-name', title]).catch(() => null);
    if (!asked || !/Map State: IsViewable/.test(asked.stdout)) return null;
    const read = (label: string) =>
      Number(new RegExp(`${label}:\\s+(-?\\d+)`).exec(asked.stdout)?.[1]);
    return z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() }).parse({
      x: read('Absolute upper-left X'),
      y: read('Absolute upper-left Y'),
      width: read('Width'),
      height: read('Height'),
    });
  }

  /** The whole screen, or one window, as the X server reports it, by xwd: RGBA, opaque. */
  async pixels(window?: string): Promise<{ data: Buffer; width: number; height: number }> {
    const which = window === undefined ? ['-root'] : ['-id', window];
    const { stdout } = await run('xwd', [...which, '-silent', '-display', this.name], {
      encoding: 'buffer',
      maxBuffer: 1 << 28,
    });
    // X Window Dump, version 7: a header of big-endian words, a colour table, then BGRX rows.
    const word = (i: number) => stdout.readUInt32BE(i * 4);
    const [start, width, height, perRow] = [word(0) + word(19) * 12, word(4), word(5), word(12)];
    const data = Buffer.alloc(width * height * 4);
    for (let y = 0; y < height; y += 1) {
      for (let x = 0; x < width; x += 1) {
        const from = start + y * perRow + x * 4;
        const to = (y * width + x) * 4;
        data[to] = stdout[from + 2] ?? 0;
        data[to + 1] = stdout[from + 1] ?? 0;
        data[to + 2] = stdout[from] ?? 0;
        data[to + 3] = 255;
      }
    }
    return { data, width, height };
  }

  /** Of the X server, where it was started here. */
  get serverPid(): number {
    return this.children[0]?.pid ?? 0;
  }

  /** Stops the X server where it is, or lets it go on. */
  signal(signal: 'SIGSTOP' | 'SIGCONT'): void {
    this.children[0]?.kill(signal);
  }

  /** Ends what was started here, the server last. */
  async close(): Promise<void> {
    for (const child of [...this.children].reverse()) await ended(child);
  }
}

async function ended(child: ChildProcess): Promise<void> {
  const exit = new Promise((resolve) => child.once('exit', resolve));
  const isOver = child.exitCode !== null || child.signalCode !== null;
  if (!isOver && child.kill('SIGTERM')) await exit;
}
