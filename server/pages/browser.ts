import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { chown, lstat, mkdtemp, readdir, rm } from 'node:fs/promises';
import { Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { env } from '../base/env';
import { Fault } from '../base/fault';
import { onPath } from '../base/onPath';
import { openPipe, type Pipe } from './pipe';

/** The one without windows of its own starts quicker; both are Debian's Chromium. */
const PROGRAMS = ['chromium-headless-shell', 'chromium'];
/** Users that nobody is, of whom service managers lend some (systemd: DynamicUser). */
const FIRST_UID = 61_184;
const UIDS = 4_000;
/** Of the browser and all that it starts, bytes that they share with nobody. */
const MOST_MEMORY = 1_200_000_000;
const LOOK = 500;
const PAGE_SIZE = 4096;

/** Where a browser is that pages can be taken with; null where there is none. */
export const browserProgram = (): Promise<string | null> => onPath(...PROGRAMS);

/** As whom the browser runs: as oneself, with its full sandbox; where that is root, as nobody else. */
export function browserUser(): number {
  const uid = process.getuid?.() ?? 0;
  return uid === 0 ? FIRST_UID + (env().port % UIDS) : uid;
}

const options = (proxyPort: number, profile: string): string[] => [
  '--headless=new',
  '--remote-debugging-pipe',
  `--user-data-dir=${profile}`,
  `--proxy-server=http://127.0.0.1:${proxyPort}`,
  // Also what is on this computer goes that way.
  '--proxy-bypass-list=<-loopback>',
  '--disable-quic',
  '--force-webrtc-ip-handling-policy=disable_non_proxied_udp',
  '--no-first-run',
  '--no-default-browser-check',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-extensions',
  '--disable-dev-shm-usage',
  '--disable-gpu',
  '--hide-scrollbars',
  '--mute-audio',
  '--password-store=basic',
  '--force-color-profile=srgb',
  '--lang=en-GB',
  'about:blank',
];

export interface Browser extends Pipe {
  /** Why it ended by itself; null while it runs. */
  ended: () => 'memory' | 'crash' | null;
  /** Rejects as soon as it has ended by itself. */
  crashed: Promise<never>;
  /** Ends it and all that it started, and removes what it wrote. */
  close: () => Promise<void>;
}

/** The processes of a group, by /proc (proc(5): the fifth field after the name is the group). */
function groupOf(pgid: number): number[] {
  return readdirSync('/proc')
    .filter((name) => {
      if (!/^\d+$/.test(name)) return false;
      try {
        const stat = readFileSync(`/proc/${name}/stat`, 'latin1');
        return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[2]) === pgid;
      } catch {
        return false;
      }
    })
    .map(Number);
}

/** Bytes that the processes of a group have to themselves. */
function memoryOf(pgid: number): number {
  return groupOf(pgid).reduce((sum, pid) => {
    try {
      const [, resident = 0, shared = 0] = readFileSync(`/proc/${pid}/statm`, 'latin1')
        .split(' ')
        .map(Number);
      return sum + (resident - shared) * PAGE_SIZE;
    } catch {
      return sum;
    }
  }, 0);
}

function killGroup(child: ChildProcess): void {
  try {
    if (child.pid) process.kill(-child.pid, 'SIGKILL');
  } catch {
    // It is gone already.
  }
}

const PROFILE = 'rezzik-page-';
/** No page takes as long as that: what lies there longer was left by a Rezzik that was killed, ms. */
const LEFT = 3_600_000;

/** Removes profiles that nobody removed, of the user who runs browsers here. */
async function sweep(uid: number): Promise<void> {
  for (const name of await readdir(tmpdir()).catch(() => [])) {
    if (!name.startsWith(PROFILE)) continue;
    const path = join(tmpdir(), name);
    const found = await lstat(path).catch(() => null);
    if (found?.isDirectory() && found.uid === uid && Date.now() - found.mtimeMs > LEFT)
      await rm(path, { recursive: true, force: true });
  }
}

/** A browser of its own for one page: a new profile, no port, every way out through the proxy. @throws Fault 503 */
export async function openBrowser(proxyPort: number): Promise<Browser> {
  const program = await browserProgram();
  if (!program) throw new Fault(503, 'no-browser', NO_BROWSER);
  const uid = browserUser();
  await sweep(uid);
  const profile = await mkdtemp(join(tmpdir(), PROFILE));
  const lesser = uid !== process.getuid?.();
  if (lesser) await chown(profile, uid, uid);
  const drop = ['setpriv', `--reuid=${uid}`, `--regid=${uid}`, '--clear-groups', '--no-new-privs'];
  const [command = program, ...args] = [
    ...(lesser ? drop : []),
    program,
    ...options(proxyPort, profile),
  ];
  const child = spawn(command, args, {
    // Nothing of Rezzik's own surroundings: no address of the database, no display.
    env: {
      ...{ HOME: profile, TMPDIR: profile, LANG: 'C.UTF-8' },
      ...{ PATH: process.env.PATH, NODE_ENV: process.env.NODE_ENV },
    },
    cwd: profile,
    stdio: ['ignore', 'ignore', 'ignore', 'pipe', 'pipe'],
    // A group of its own, so that all of it can be ended.
    detached: true,
  });
  let ended: 'memory' | 'crash' | null = null;
  let closing = false;
  const gone = new Promise<void>((resolve) => {
    const over = () => {
      if (!closing) ended ??= 'crash';
      resolve();
    };
    child.once('exit', over).once('error', over);
  });
  const crashed = gone.then(() => {
    if (ended) throw new Error('The browser is gone.');
    // One that was closed has not crashed.
    return new Promise<never>(() => undefined);
  });
  crashed.catch(() => undefined);
  const watching = setInterval(() => {
    if (!child.pid || memoryOf(child.pid) < MOST_MEMORY) return;
    ended = 'memory';
    killGroup(child);
  }, LOOK);
  const [, , , to, from] = child.stdio;
  if (!(to instanceof Socket) || !(from instanceof Socket)) throw new Error('It has no pipes.');
  const pipe = openPipe(to, from);
  // What it has started may hold the other end for a while: whoever waits hears of it now.
  child.once('exit', () => from.destroy());
  return {
    ...pipe,
    ended: () => ended,
    crashed,
    close: async () => {
      closing = true;
      clearInterval(watching);
      killGroup(child);
      await gone;
      await rm(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 100 });
    },
  };
}

export const NO_BROWSER =
  'Pages are taken with Debian’s Chromium, which is not on this computer. It comes with: apt-get install chromium';
