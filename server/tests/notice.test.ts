import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { desktopNotice } from '../display/notice';

/** A bus of its own with a stand-in for the notification service, and somebody who listens. */
const running: ChildProcess[] = [];
let heard = '';
const before = process.env.DBUS_SESSION_BUS_ADDRESS;

async function start(program: string, ...args: string[]): Promise<string> {
  const child = spawn(program, args, { stdio: ['ignore', 'pipe', 'ignore'] });
  running.push(child);
  const [first] = (await once(child.stdout, 'data')) as [Buffer];
  return first.toString();
}

beforeAll(async () => {
  const address = await start('dbus-daemon', '--session', '--nofork', '--print-address');
  process.env.DBUS_SESSION_BUS_ADDRESS = address.trim();
}, 20_000);

afterAll(() => {
  for (const child of running.reverse()) child.kill();
  if (before === undefined) delete process.env.DBUS_SESSION_BUS_ADDRESS;
  else process.env.DBUS_SESSION_BUS_ADDRESS = before;
});

test('without a service nothing happens, and nothing fails', async () => {
  expect(await desktopNotice('Bed list', 'On the Shelf')).toBe(false);
});

test('a service is given title and words as they are, quotes, lines and other scripts too', async () => {
  const service = 'org.freedesktop.Notifications';
  const env = { ...process.env };
  running.push(spawn('dbus-test-tool', ['echo', `--name=${service}`], { env, stdio: 'ignore' }));
  // Each line at once, not when a block is full.
  const monitor = spawn('stdbuf', ['-oL', 'dbus-monitor', '--session', `interface='${service}'`], {
    env,
  });
  running.push(monitor);
  monitor.stdout.on('data', (bytes: Buffer) => (heard += bytes.toString()));
  let shown = false;
  // Service and listener come up in their own time.
  for (let i = 0; i < 40 && !(shown && heard.includes('int32 9000')); i += 1) {
    shown = await desktopNotice('Bed "north" $HOME', 'Kept: /tmp/Ørsted’s bed.png\nCopied');
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  expect(shown).toBe(true);
  expect(heard).toContain('member=Notify');
  expect(heard).toContain('string "Rezzik"');
  expect(heard).toContain('string "Bed "north" $HOME"');
  expect(heard).toContain('string "Kept: /tmp/Ørsted’s bed.png\nCopied"');
  expect(heard).toContain('int32 9000');
}, 30_000);
