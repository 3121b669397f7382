import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { top } from './paths.mjs';
import { onStop } from './stopping.mjs';

/**
 * Runs projects of jest.config.mjs; what they print is handed to `hear` as it comes.
 * @returns the exit code
 */
export function runJest(projects, args, env, hear) {
  const jest = join(top, 'node_modules', 'jest', 'bin', 'jest.js');
  // The server's threads are TypeScript, too; the app has them bundled.
  const loader = pathToFileURL(join(top, 'tests', 'lib', 'loader', 'register.mjs')).href;
  const options = ['--experimental-vm-modules', '--no-warnings', '--import', loader, jest];
  const all = [...options, ...args, '--selectProjects', ...projects];
  return new Promise((resolve) => {
    // A group of its own: with it end its workers, their browsers and displays.
    const child = spawn(process.execPath, all, {
      cwd: top,
      env: { ...process.env, ...env },
      detached: true,
      // Its report goes to a file; what it prints for people comes on stderr.
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    const forget = onStop(() => endGroup(child.pid));
    child.stderr.setEncoding('utf8').on('data', hear);
    child.on('error', (error) => hear(String(error)));
    child.on('close', (code) => {
      forget();
      // A worker that was cut off may have left its browser behind.
      endGroup(child.pid);
      resolve(code ?? 1);
    });
  });
}

function endGroup(pid) {
  try {
    if (pid) process.kill(-pid, 'SIGKILL');
  } catch {
    // Nobody of it is left.
  }
}
