// npm run screenshots: docs/screenshots from the demo data.

import { withDisplay } from './lib/display.mjs';
import { runJest } from './lib/jest.mjs';
import { needModules, needPackages, toTest } from './lib/packages.mjs';
import { command, say, Stop } from './lib/say.mjs';
import { heedStops } from './lib/stopping.mjs';
import { withTrial } from './lib/trial.mjs';

await command(async () => {
  heedStops(say);
  await needPackages(toTest);
  await needModules();
  await withDisplay((display) =>
    withTrial({ demo: true, name: 'fernhollow', display }, async (env) => {
      let output = '';
      const code = await runJest(['screenshots'], ['--runInBand'], env, (text) => (output += text));
      if (code !== 0) throw new Stop(`${output}\nThe pictures could not be made.`);
    }),
  );
  say('docs/screenshots is up to date.');
});
