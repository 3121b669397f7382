import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFile, spawn } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { promisify } from 'node:util';
import { z } from 'zod';
import { freePort } from '@/tests/lib/freePort';

const run = promisify(execFile);

/** A person's own folders; the names hold what a line of Exec must not be broken by. */
let home = '';
let env: NodeJS.ProcessEnv;
let data = '';

beforeAll(async () => {
  home = mkdtempSync(join(process.env.REZZIK_DATA ?? '', 'login-'));
  // Whoever the database runs as must pass.
  chmodSync(home, 0o755);
  data = join(home, 'own "data" 100% $HOME');
  mkdirSync(data);
  const { DATABASE_URL: _, ...rest } = process.env;
  env = {
    ...rest,
    ...{ XDG_CONFIG_HOME: join(home, 'config'), REZZIK_DATA: data },
    ...{ REZZIK_PORT: String(await freePort()), REZZIK_DIST: '.next-test' },
  };
});
afterAll(() => rmSync(home, { recursive: true, force: true }));

const atLogin = async (...wish: string[]) =>
  (await run(process.execPath, ['bin/atLogin.mjs', ...wish], { env })).stdout;
/** As a desktop does at login; what is started holds on to nothing of ours. */
async function launched(): Promise<void> {
  const desktop = spawn('gio', ['launch', entry()], { env, stdio: 'ignore' });
  await once(desktop, 'exit');
  expect(desktop.exitCode).toBe(0);
}
const entry = (): string => join(home, 'config', 'autostart', 'rezzik.desktop');
const log = (): string => {
  const file = join(data, 'at-login.log');
  return existsSync(file) ? readFileSync(file, 'utf8') : '';
};

/** Which process answers now, by what the start wrote down; null while none does. */
async function running(): Promise<number | null> {
  const answers = await fetch(`http://127.0.0.1:${env.REZZIK_PORT}/api/health`).then(
    ({ ok }) => ok,
    () => false,
  );
  const file = join(data, 'running.json');
  if (!answers || !existsSync(file)) return null;
  return z.object({ app: z.int() }).parse(JSON.parse(readFileSync(file, 'utf8'))).app;
}

const PATIENCE = 60_000;

async function until(what: string, test: () => Promise<boolean> | boolean): Promise<void> {
  const late = Date.now() + PATIENCE;
  while (!(await test())) {
    if (Date.now() > late) throw new Error(`Not so after a minute: ${what}. ${log()}`);
    await pause(50);
  }
}

/** Waits for one that is another than before. */
async function runs(before: number | null): Promise<number> {
  let pid: number | null = null;
  await until('another runs', async () => {
    pid = await running();
    return pid !== null && pid !== before;
  });
  return pid ?? 0;
}

// Source: GLib launches the entry as the Desktop Entry Specification says, quoting and all.
test('the desktop starts Rezzik; killed, it is there again three times, and then that is said', async () => {
  expect(await atLogin()).toContain(entry());
  await launched();
  let pid: number | null = null;
  for (let kill = 0; kill < 4; kill += 1) {
    pid = await runs(pid);
    process.kill(pid, 'SIGKILL');
  }
  await until('it is given up', () => log().includes('3 times more'));
  expect(log().match(/is started anew/g)).toHaveLength(3);
  expect(await running()).toBeNull();
}, 180_000);

test('one that runs already is left alone, and the entry is taken away again', async () => {
  await atLogin();
  await launched();
  const pid = await runs(null);
  const second = await run(process.execPath, ['bin/keepRunning.mjs'], { env });
  expect(second.stdout).toContain('running already');
  expect(await running()).toBe(pid);
  const { starter } = z
    .object({ starter: z.int() })
    .parse(JSON.parse(readFileSync(join(data, 'running.json'), 'utf8')));
  process.kill(starter, 'SIGTERM');
  await until('it has ended', async () => (await running()) === null && log().includes('Ended.'));
  expect(await atLogin('off')).toContain(entry());
  expect(existsSync(entry())).toBe(false);
  expect(await atLogin('off')).toContain('was not started at login');
  await expect(atLogin('sometimes')).rejects.toMatchObject({
    stderr: expect.stringContaining('at-login -- off'),
  });
}, 120_000);
