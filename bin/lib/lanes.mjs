// The lanes of the tests: what each of Jest's workers has for itself, so that they run side by side.

import { mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { needBuild } from './build.mjs';
import { freePort } from './database.mjs';
import { withDisplay } from './display.mjs';
import { FILMS, TEST_DIST, withApp } from './trial.mjs';

/** More than there are cores: a test in a browser waits most of its time. */
export const LANES = 3;

/** The file that tells a worker what is its own; it appears once that is ready. */
const laneFile = (data, name) => join(data, `${name}.lane.json`);

function tell(data, name, env) {
  const file = laneFile(data, name);
  writeFileSync(`${file}.part`, JSON.stringify(env));
  renameSync(`${file}.part`, file);
}

/** For tests of the server alone: folders and a port number; each file makes its own database. */
async function serverLane(data, database, n) {
  const own = join(data, `server-${n}`);
  const roots = join(own, 'kept');
  mkdirSync(roots, { recursive: true });
  tell(data, `server-${n}`, {
    REZZIK_CLUSTER: database.url,
    REZZIK_DATA: own,
    ...FILMS,
    REZZIK_PORT: String(await freePort()),
    REZZIK_ROOTS: roots,
  });
}

/** An app with its database, port, data folder and X display, for as long as the tests run. */
function appLane(data, database, n, until) {
  const own = join(data, `app-${n}`);
  mkdirSync(own, { recursive: true });
  return withDisplay(async (display) => {
    const databaseUrl = await database.make(`rezzik_app_${n}`);
    await withApp({ data: own, databaseUrl, display }, async (env) => {
      tell(data, `app-${n}`, env);
      await until;
    });
  });
}

/**
 * Sets the lanes up beside whatever else goes on; a lane that cannot be had fails the whole.
 * @param until resolves when the tests are done
 * @param apps whether the tests need the app itself
 */
export async function openLanes({ data, database, apps, until }) {
  const numbers = Array.from({ length: LANES }, (_, i) => i + 1);
  await Promise.all(numbers.map((n) => serverLane(data, database, n)));
  if (!apps) return;
  await needBuild(TEST_DIST);
  for (const n of numbers) {
    const own = join(data, `safe-${n}`);
    mkdirSync(own, { recursive: true });
    tell(data, `safe-${n}`, {
      REZZIK_CLUSTER: database.url,
      REZZIK_DATA: own,
      ...FILMS,
      REZZIK_DIST: TEST_DIST,
    });
  }
  await Promise.all(numbers.map((n) => appLane(data, database, n, until)));
}
