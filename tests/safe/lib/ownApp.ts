import { execFileSync, spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { z } from 'zod';
import { freePort } from '@/tests/lib/freePort';
import { copySchema, folderSchema, type Copy, type FolderInput } from '@/core/contracts/folder';

const createdSchema = z.object({ id: z.uuid() });

interface Start {
  data: string;
  databaseUrl: string;
  /** Commands run first, as root among mounts of the app's own: they end with it. */
  mounts?: string;
  /** Where it answers; else a port of its own. */
  port?: number;
  /** Beside what every app is started with. */
  env?: Record<string, string>;
}

/** Whoever may not have mounts of his own becomes root in a user namespace. */
const mapped = (): boolean => spawnSync('unshare', ['--mount', 'true']).status !== 0;

/** A program among mounts of its own, as root there, but one that file permissions hold for. */
function apart(mounts: string, program: readonly string[]): string[] {
  const asRoot = mapped() ? ['--map-root-user'] : [];
  const plain = ['setpriv', '--bounding-set=-dac_override,-dac_read_search', ...program];
  const line = `${mounts}\nexec "$@"`;
  return ['unshare', ...asRoot, '--mount', 'sh', '-ec', line, 'sh', ...plain];
}

/** A Rezzik that a test may fill up, unplug and kill. */
export class OwnApp {
  private constructor(
    readonly port: number,
    readonly url: string,
    readonly roots: string,
    private readonly child: ChildProcess,
  ) {}

  static async start(how: Start): Promise<OwnApp> {
    const { data, databaseUrl, mounts, env: more = {} } = how;
    const port = how.port ?? (await freePort());
    const roots = join(data, 'kept');
    mkdirSync(roots, { recursive: true });
    const served = [process.execPath, join(process.cwd(), 'bin', 'app.mjs'), 'start'];
    const [program = '', ...args] = mounts === undefined ? served : apart(mounts, served);
    const env = {
      ...process.env,
      DATABASE_URL: databaseUrl,
      REZZIK_PORT: String(port),
      REZZIK_DATA: data,
      REZZIK_ROOTS: roots,
      REZZIK_DEMO: '0',
      REZZIK_READING: '0',
      DISPLAY: '',
      NODE_ENV: 'production' as const,
      NEXT_TELEMETRY_DISABLED: '1',
      ...more,
    };
    const child = spawn(program, args, { env, stdio: ['ignore', 'ignore', 'inherit'] });
    const app = new OwnApp(port, `http://127.0.0.1:${port}`, roots, child);
    await app.answers();
    return app;
  }

  private async answers(): Promise<void> {
    for (let i = 0; i < 600; i += 1) {
      if (this.child.exitCode !== null) throw new Error('The app ended at once.');
      const ok = await fetch(`${this.url}/api/health`).then(
        (answer) => answer.ok,
        () => false,
      );
      if (ok) return;
      await sleep(50);
    }
    throw new Error('The app does not answer.');
  }

  get pid(): number {
    const { pid } = this.child;
    if (pid === undefined) throw new Error('The app does not run.');
    return pid;
  }

  /** Ends it: with SIGKILL, nothing of it can finish anything. */
  async end(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM'): Promise<void> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return;
    const gone = once(this.child, 'exit');
    this.child.kill(signal);
    await gone;
  }

  /** What a command among the app's own mounts prints. */
  inside(line: string): string {
    const user = mapped() ? ['--user', '--preserve-credentials'] : [];
    const where = ['--target', String(this.pid), ...user, '--mount'];
    return execFileSync('nsenter', [...where, 'sh', '-ec', line], { encoding: 'utf8' });
  }

  /** Memory it holds and the most it ever held, bytes. */
  memory(): { now: number; most: number } {
    const status = readFileSync(`/proc/${this.pid}/status`, 'utf8');
    const of = (name: string) =>
      Number(new RegExp(`${name}:\\s+(\\d+) kB`).exec(status)?.[1]) * 1024;
    return { now: of('VmRSS'), most: of('VmHWM') };
  }

  async post(path: string, body: unknown): Promise<{ status: number; body: unknown }> {
    const answer = await fetch(this.url + path, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    return { status: answer.status, body: await answer.json() };
  }

  async addFolder(input: FolderInput): Promise<z.infer<typeof folderSchema>> {
    return folderSchema.parse((await this.post('/api/folders', input)).body);
  }

  async addShot(picture: Buffer, title: string, more: { document?: string } = {}): Promise<string> {
    const form = new FormData();
    form.set('frame', new Blob([new Uint8Array(picture)]), 'frame.png');
    form.set('title', title);
    if (more.document) form.set('document', more.document);
    const answer = await fetch(`${this.url}/api/shots`, { method: 'POST', body: form });
    return createdSchema.parse(await answer.json()).id;
  }

  async keep(shot: string, wish: { folderId: string; [more: string]: unknown }): Promise<Copy> {
    const { status, body } = await this.post(`/api/shots/${shot}/copies`, wish);
    if (status !== 201) throw new Error(JSON.stringify(body));
    return copySchema.parse(body);
  }
}
