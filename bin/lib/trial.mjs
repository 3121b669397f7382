// A Rezzik of its own for tests, measuring and pictures: its own data folder, database and port.

import { chmodSync, existsSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { needBuild } from './build.mjs';
import { freePort, startDatabase } from './database.mjs';
import { end } from './run.mjs';
import { Stop } from './say.mjs';
import { answers, startApp } from './serve.mjs';

/** Built apart from .next, so that a running Rezzik is not disturbed. */
export const TEST_DIST = '.next-test';

/** Behind the browsers of other lanes a film would be starved, and its test with it. */
export const FILMS = { REZZIK_FILM_NICENESS: '0' };

/** A throw-away data folder that the database's user can enter; of a given name for pictures. */
export function trialData(name) {
  const data = name ? join(tmpdir(), name) : mkdtempSync(join(tmpdir(), 'rezzik-trial-'));
  if (name && existsSync(data)) throw new Stop(`${data} is in the way. Remove it first.`);
  mkdirSync(data, { recursive: true });
  chmodSync(data, 0o755);
  return { data, remove: () => rmSync(data, { recursive: true, force: true }) };
}

/** Starts the app on a database; calls `work` with what a client needs to know; ends the app. */
export async function withApp({ data, databaseUrl, demo = false, display }, work) {
  await needBuild(TEST_DIST);
  const port = await freePort();
  const kept = join(data, 'kept');
  mkdirSync(kept, { recursive: true });
  const app = startApp({
    port,
    databaseUrl,
    data,
    env: {
      // Only the demo's pictures need words; whoever tests the reading asks for it.
      REZZIK_READING: demo ? '1' : '0',
      ...FILMS,
      REZZIK_DIST: TEST_DIST,
      REZZIK_DEMO: demo ? '1' : '0',
      REZZIK_ROOTS: kept,
      ...(display && { DISPLAY: display }),
    },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  try {
    if (!(await answers(port, app))) throw new Stop('The app to be tried did not start.');
    return await work({
      REZZIK_URL: `http://127.0.0.1:${port}`,
      REZZIK_ROOTS: kept,
      REZZIK_DATA: data,
      DATABASE_URL: databaseUrl,
      ...(display && { REZZIK_DISPLAY: display }),
    });
  } finally {
    await end(app);
  }
}

/** The same with a database of its own around it. */
export async function withTrial({ demo = false, name, display }, work) {
  const { data, remove } = trialData(name);
  const database = await startDatabase(data);
  try {
    return await withApp({ data, databaseUrl: database.url, demo, display }, (env) =>
      work(env, data),
    );
  } finally {
    await database.stop();
    remove();
  }
}
