import { spawn } from 'node:child_process';

/** A session bus of a test's own. */
export interface SessionBus {
  address: string;
  end: () => Promise<void>;
}

/** @param env what is started by the bus itself is started with */
export async function startSessionBus(env: NodeJS.ProcessEnv = process.env): Promise<SessionBus> {
  const daemon = spawn('dbus-daemon', ['--session', '--nofork', '--print-address=1'], {
    stdio: ['ignore', 'pipe', 'ignore'],
    env,
  });
  const address = await new Promise<string>((resolve, reject) => {
    daemon.stdout.once('data', (words: Buffer) => resolve(words.toString().trim()));
    daemon.once('exit', () => reject(new Error('dbus-daemon did not start')));
  });
  const end = async () => {
    const ended = new Promise((resolve) => daemon.once('exit', resolve));
    daemon.kill('SIGTERM');
    await ended;
  };
  return { address, end };
}
