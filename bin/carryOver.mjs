// npm run carry-over: the database to the newest PostgreSQL that is installed; the old one is kept.

import { join } from 'node:path';
import { carryOver } from './lib/carryOver.mjs';
import { clusterVersion } from './lib/database.mjs';
import { needPackages, postgresFolders, toServe } from './lib/packages.mjs';
import { dataDir } from './lib/paths.mjs';
import { command, say, Stop } from './lib/say.mjs';
import { isServed } from './lib/serve.mjs';
import { heedStops } from './lib/stopping.mjs';

await command(async () => {
  if (process.env.DATABASE_URL)
    throw new Stop('DATABASE_URL names a database of somebody else’s, who carries it over.');
  const data = dataDir();
  const version = clusterVersion(join(data, 'postgres'));
  if (version === null) throw new Stop(`There is no database in ${data}. Nothing was changed.`);
  if (isServed(data)) throw new Stop('Rezzik is running on this data. Stop it first.');
  await needPackages(toServe);
  const all = postgresFolders();
  const from = all.find((programs) => programs.version === version);
  const [to] = all;
  if (!from)
    throw new Stop(
      `PostgreSQL ${version} is needed once more to read what it made. Nothing was changed. Install it:\n\n  apt-get install postgresql-${version}\n`,
    );
  if (to === from) return say(`The database is one of PostgreSQL ${version}, the newest here.`);
  heedStops(say);
  process.umask(0o077);
  const aside = await carryOver(data, from, to);
  say(`Done. The database as it was is kept in ${aside}; delete that once all is well.`);
});
