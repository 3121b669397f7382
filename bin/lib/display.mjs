// An X display of its own for tests of this computer's screen.

import { spawn } from 'node:child_process';
import { end } from './run.mjs';
import { Stop } from './say.mjs';

/** Starts a display with a number that nobody uses; calls `work` with its name; ends it. */
export async function withDisplay(work) {
  const args = ['-displayfd', '3', '-screen', '0', '1600x900x24', '-noreset', '-nolisten', 'tcp'];
  const server = spawn('Xvfb', args, { stdio: ['ignore', 'ignore', 'ignore', 'pipe'] });
  try {
    const number = await new Promise((resolve, reject) => {
      server.stdio[3].once('data', (data) => resolve(data.toString().trim()));
      server.once('exit', () => reject(new Stop('Xvfb did not start.')));
    });
    return await work(`:${number}`);
  } finally {
    await end(server);
  }
}
