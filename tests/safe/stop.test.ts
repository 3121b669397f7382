import { describe, expect, test } from '@jest/globals';
import { execFile, spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { promisify } from 'node:util';
import { z } from 'zod';
import { freePort } from '@/tests/lib/freePort';

/** The command lines of all processes that were started below a run with this temporary folder. */
function startedBelow(folder: string): string[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((pid) => {
      try {
        const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ');
        const surroundings = readFileSync(`/proc/${pid}/environ`, 'utf8');
        return line.includes(folder) || surroundings.includes(folder) ? [line] : [];
      } catch {
        // It ended meanwhile, or is not ours to look at.
        return [];
      }
    });
}

test('Ctrl-C ends all that a run of the tests started, its database too', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'rezzik-stop-'));
  chmodSync(folder, 0o755);
  const child = spawn(process.execPath, ['bin/test.mjs', 'server', 'display'], {
    env: { ...process.env, TMPDIR: folder },
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  let said = '';
  child.stdout.setEncoding('utf8').on('data', (part: string) => (said += part));
  const runs = (program: string) => startedBelow(folder).some((line) => line.includes(program));
  try {
    while (child.exitCode === null && !(runs('postgres') && runs('Xvfb'))) await pause(50);
    expect(said).toContain('Making the database');
    child.kill('SIGINT');
    await once(child, 'close');
    expect(said).toMatch(/Stopping …[\s\S]*failed\n$/);
    expect(child.exitCode).toBe(1);
    expect(startedBelow(folder)).toEqual([]);
  } finally {
    child.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
}, 120_000);

describe('the start command', () => {
  interface Started {
    child: ChildProcess;
    said: () => string;
    complained: () => string;
    /** Its last word, and how it ended. */
    ended: Promise<number | null>;
    data: string;
  }

  async function start(): Promise<Started> {
    const data = mkdtempSync(join(process.env.REZZIK_DATA ?? '', 'stop-'));
    const child = spawn(process.execPath, ['bin/start.mjs'], {
      env: { ...process.env, REZZIK_DATA: data, REZZIK_PORT: String(await freePort()) },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let [said, complained] = ['', ''];
    child.stdout.setEncoding('utf8').on('data', (part: string) => (said += part));
    child.stderr.setEncoding('utf8').on('data', (part: string) => (complained += part));
    const ended = once(child, 'close').then(() => child.exitCode);
    return { child, said: () => said, complained: () => complained, ended, data };
  }

  async function served(started: Started): Promise<void> {
    while (started.child.exitCode === null && !started.said().includes('Rezzik is at')) {
      await pause(50);
    }
    expect(started.said()).toContain('Rezzik is at');
  }

  test.each(['SIGINT', 'SIGTERM'] as const)('%s is no error', async (signal) => {
    const started = await start();
    await served(started);
    started.child.kill(signal);
    expect(await started.ended).toBe(0);
    expect(started.said()).toContain('Stopping …');
    expect(started.complained()).not.toMatch(/error/i);
  });

  test('a stop before it answers is none either', async () => {
    const started = await start();
    while (!existsSync(join(started.data, 'running.json'))) await pause(20);
    started.child.kill('SIGINT');
    expect(await started.ended).toBe(0);
    expect(started.complained()).not.toMatch(/error/i);
  });

  test('an app that is ended from outside is told of as that', async () => {
    const started = await start();
    await served(started);
    const running = z
      .object({ app: z.int() })
      .parse(JSON.parse(readFileSync(join(started.data, 'running.json'), 'utf8')));
    process.kill(running.app, 'SIGKILL');
    expect(await started.ended).toBe(1);
    expect(started.complained()).toContain('Rezzik was ended from outside (SIGKILL)');
  });

  test('says its last words when it cannot start', async () => {
    const child = spawn(process.execPath, ['bin/start.mjs'], {
      env: {
        ...process.env,
        REZZIK_DATA: mkdtempSync(join(process.env.REZZIK_DATA ?? '', 'stop-')),
        REZZIK_PORT: String(await freePort()),
        DATABASE_URL: 'postgres://nobody@127.0.0.1:1/none',
      },
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    let complained = '';
    child.stderr.setEncoding('utf8').on('data', (part: string) => (complained += part));
    await once(child, 'close');
    expect(child.exitCode).toBe(1);
    expect(complained).toMatch(/Its last words:[\s\S]*ECONNREFUSED/);
  });
});

describe('where Node.js or npm will not do', () => {
  const commands = ['start', 'demo', 'dev', 'test', 'bench', 'fuzz', 'suites', 'screenshots'];
  test.each(commands)('%s says so before anything is begun', async (name) => {
    const folder = mkdtempSync(join(tmpdir(), 'rezzik-path-'));
    const run = await promisify(execFile)(process.execPath, [`bin/${name}.mjs`], {
      env: { ...process.env, PATH: folder },
    }).catch((error: { code: number; stderr: string; stdout: string }) => error);
    rmSync(folder, { recursive: true });
    expect(run.stderr).toContain('npm is missing');
    expect('code' in run && run.code).toBe(1);
  });

  test('an older Node.js is told which one it needs', async () => {
    const script = `Object.defineProperty(process.versions, 'node', { value: '18.19.0' });
      await import('./bin/start.mjs');`;
    const run = await promisify(execFile)(process.execPath, [
      '--input-type=module',
      '-e',
      script,
    ]).catch((error: { code: number; stderr: string }) => error);
    expect(run.stderr).toContain('This is Node.js 18.19.0; Rezzik needs 20.15 or newer.');
  });
});
