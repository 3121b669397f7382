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
    ...['"Rezzik"', '0', '""', text(title), text(body), '[]', '{}', '9000'],
  ];
  return run('gdbus', args, { timeout: PATIENCE }).then(
    () => true,
    () => false,
  );
}
