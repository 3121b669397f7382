// npm run bench: figures and ratios, printed; `npm run bench -- keep` takes one file.
// docs/bench.md says how they are taken.

import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { runJest } from './lib/jest.mjs';
import { needModules, needPackages, toTest } from './lib/packages.mjs';
import { command, say } from './lib/say.mjs';
import { withTrial } from './lib/trial.mjs';

await command(async () => {
  await needPackages(toTest);
  await needModules();
  await withTrial({}, async (env, data) => {
    const figures = join(data, 'figures');
    const done = await runJest('bench', ['--runInBand', ...process.argv.slice(2)], {
      ...env,
      REZZIK_BENCH: figures,
    });
    say(existsSync(figures) ? readFileSync(figures, 'utf8') : '');
    if (done.code !== 0) {
      say(done.output);
      process.exitCode = 1;
    }
  });
});
