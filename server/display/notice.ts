import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

const run = promisify(execFile);
const PATIENCE = 2000;

/**
 * A notice on the desktop, where a notification service is there (Desktop Notifications
 * Specification 1.2, method Notify); without one nothing happens.
 */
export async function desktopNotice(title: string, body: string): Promise<boolean> {
  if (!process.env.DBUS_SESSION_BUS_ADDRESS) return false;
  const text = (value: string) => JSON.stringify(value.slice(0, 500));
  const args = [
    ...['call', '--session', '--dest', 'org.freedesktop.Notifications'],
    ...['--object-path', '/org/freedesktop/Notifications'],
    ...['--method', 'org.freedesktop.Notifications.Notify'],
    ...['"Rezzik"', 'uint32 0', '""', text(title), text(body), '@as []', '@a{sv} {}', 'int32 9000'],
  ];
  // In a plain C locale the program refuses letters beyond ASCII.
  const env = { ...process.env, LC_ALL: 'C.UTF-8' };
  return run('gdbus', args, { timeout: PATIENCE, env }).then(
    () => true,
    () => false,
  );
}
