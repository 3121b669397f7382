import { join } from 'node:path';
import { top } from './paths.mjs';
import { run } from './run.mjs';

/** Runs one project of jest.config.mjs. */
export function runJest(project, args, env) {
  const jest = join(top, 'node_modules', 'jest', 'bin', 'jest.js');
  const all = [
    '--experimental-vm-modules',
    '--no-warnings',
    jest,
    '--selectProjects',
    project,
    ...args,
  ];
  return run(process.execPath, all, { cwd: top, env: { ...process.env, ...env } });
}
