// A Rezzik to ask something of: the one that runs on a data folder, or one that is started for it.

import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { needBuild } from './build.mjs';
import { freePort, startDatabase } from './database.mjs';
import { needModules, needPackages, toServe } from './packages.mjs';
import { end } from './run.mjs';
import { say, Stop } from './say.mjs';
import { answers, isServed, runningFile, startApp } from './serve.mjs';
import { isStopped, onStop } from './stopping.mjs';

/** Where the Rezzik that works on a data folder answers; null where none does. */
async function running(data) {
  if (!isServed(data)) return null;
  const { port } = JSON.parse(readFileSync(runningFile(data), 'utf8'));
  const url = `http://127.0.0.1:${port}`;
  const health = await fetch(`${url}/api/health`).catch(() => null);
  if (!health?.ok)
    throw new Stop('Rezzik is starting or stopping just now. Try again in a moment.');
  return url;
}

/** Calls `work` with the address of a Rezzik; one that is started for it is ended again. */
export async function withRezzik(data, work) {
  const url = await running(data);
  if (url) return work(url);
  const given = process.env.DATABASE_URL;
  if (!given && !existsSync(join(data, 'postgres', 'PG_VERSION')))
    throw new Stop(`There is no Rezzik in ${data} yet. Start it once: npm start`);
  if (!given) await needPackages(toServe);
  await needModules();
  await needBuild(process.env.REZZIK_DIST);
  process.umask(0o077);
  say('Starting Rezzik for this …');
  const database = given ? null : await startDatabase(data);
  const port = await freePort();
  const app = startApp({
    port,
    databaseUrl: database?.url ?? given,
    data,
    // Nothing but what is asked of it.
    env: { REZZIK_DEMO: '0', REZZIK_READING: '0' },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const forget = onStop(() => void end(app));
  try {
    if (!(await answers(port, app))) throw new Stop('Rezzik did not start.');
    return await work(`http://127.0.0.1:${port}`);
  } catch (error) {
    // Whatever was asked of it then has no answer.
    throw isStopped() ? new Stop('It was stopped.') : error;
  } finally {
    forget();
    await end(app);
    await database?.stop();
  }
}
