// npm run bench: figures and ratios, printed; `npm run bench -- keep` takes one file.
// docs/bench.md says how they are taken.

import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { runJest } from './lib/jest.mjs';
import { needModules, needPackages, toMeasure, toTest } from './lib/packages.mjs';
import { command, say } from './lib/say.mjs';
import { heedStops } from './lib/stopping.mjs';
import { TEST_DIST, withTrial } from './lib/trial.mjs';

await command(async () => {
  heedStops(say);
  const asked = process.argv.slice(2);
  const measures =
    asked.length === 0 || asked.some((file) => ['parts', 'words', 'longWindows'].includes(file));
  await needPackages([...toTest, ...(measures ? toMeasure : [])]);
  await needModules();
  await withTrial({}, async (env, data) => {
    const figures = join(data, 'figures');
    const told = { ...env, REZZIK_BENCH: figures, REZZIK_DIST: TEST_DIST };
    let output = '';
    const hear = (text) => (output += text);
    const code = await runJest(['bench'], ['--runInBand', ...asked], told, hear);
    say(existsSync(figures) ? readFileSync(figures, 'utf8') : '');
    if (code !== 0) {
      say(output);
      process.exitCode = 1;
    }
  });
});
