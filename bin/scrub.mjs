// npm run scrub: rewrites the tables and the log of the database, so that nothing erased is left in
// its files. docs/security.md says what is promised.

import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { startDatabase } from './lib/database.mjs';
import { needModules, needPackages, toServe } from './lib/packages.mjs';
import { dataDir } from './lib/paths.mjs';
import { command, say, Stop } from './lib/say.mjs';
import { isServed } from './lib/serve.mjs';

/** Old segments of the log are removed, never used again under another name. */
const settings = ['wal_recycle=off', 'min_wal_size=32MB', 'wal_keep_size=0', 'autovacuum=off'];

async function rewrite(url) {
  const { default: postgres } = await import('postgres');
  const sql = postgres(url, { max: 1, onnotice: () => undefined });
  try {
    // Statistics hold values, too.
    await sql`vacuum (full, analyze)`;
    // What the first checkpoint still needs of the log, the second lets go.
    for (let i = 0; i < 2; i += 1) {
      await sql`select pg_switch_wal()`;
      await sql`checkpoint`;
    }
  } finally {
    await sql.end();
  }
}

await command(async () => {
  if (process.env.DATABASE_URL) {
    throw new Stop(
      'DATABASE_URL names a database of somebody else’s. Its tables are rewritten by VACUUM (FULL, ANALYZE); its log is for whoever runs it.',
    );
  }
  const data = dataDir();
  if (!existsSync(join(data, 'postgres', 'PG_VERSION'))) {
    throw new Stop(`There is no database in ${data}. Nothing was changed.`);
  }
  if (isServed(data)) throw new Stop('Rezzik is running on this data. Stop it first, then scrub.');
  await needPackages(toServe);
  await needModules();
  process.umask(0o077);
  const database = await startDatabase(data, settings);
  try {
    await rewrite(database.url);
  } finally {
    await database.stop();
  }
  say(
    'Tables and log are rewritten: nothing that was erased is left in the files of the database.',
  );
});
