import { expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';

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
