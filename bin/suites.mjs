// npm run suites: every picture that the suites of other makers hold, the damaged ones too.

import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { top } from './lib/paths.mjs';
import { command } from './lib/say.mjs';

await command(async () => {
  const tests = spawn(process.execPath, [join(top, 'bin', 'test.mjs'), 'server', 'suites'], {
    stdio: 'inherit',
    env: { ...process.env, REZZIK_SUITES: 'all' },
  });
  process.exitCode = await new Promise((resolve) => tests.on('exit', (code) => resolve(code ?? 1)));
});
