// Carries the private cluster over to another major version of PostgreSQL: a new one beside it, filled
// by a dump, compared with the old one, and put in its place. The old one stays as it was.

import { spawn } from 'node:child_process';
import { existsSync, readFileSync, renameSync, rmSync, statfsSync } from 'node:fs';
import { join } from 'node:path';
import {
  clearLock,
  initCluster,
  lesserUser,
  makeDatabase,
  startCluster,
  USER,
} from './database.mjs';
import { run } from './run.mjs';
import { say, Stop } from './say.mjs';
import { isStopped, onStop } from './stopping.mjs';

const NAME = 'rezzik';
const at = (port) => ['-h', '127.0.0.1', '-p', String(port), '-U', USER];

/** Everything of one database into the other, without a file between. */
function pipeDump(dump, restore, env) {
  const options = { env, stdio: ['ignore', 'pipe', 'pipe'] };
  const from = spawn(dump[0], dump[1], options);
  // Ctrl-C ends both; what was begun is then taken back as after any failure.
  const forget = onStop(() => from.kill('SIGTERM'));
  const to = spawn(restore[0], restore[1], { ...options, stdio: [from.stdout, 'ignore', 'pipe'] });
  from.stdout.destroy();
  const ended = (child) =>
    new Promise((resolve) => {
      let said = '';
      child.stderr.setEncoding('utf8').on('data', (text) => (said += text));
      child.on('error', (error) => resolve({ code: 127, said: String(error) }));
      child.on('close', (code) => resolve({ code, said }));
    });
  return Promise.all([ended(from), ended(to)]).finally(forget);
}

/** How many rows each table has, and what the frames are: the same before and after. */
async function countsOf(programs, port, env) {
  const ask = async (query) => {
    const args = [...at(port), '-d', NAME, '-At', '-c', query];
    const { code, output } = await run(join(programs.bin, 'psql'), args, { env });
    if (code !== 0) throw new Stop(`${output}\nThe database could not be asked.`);
    return output.trim();
  };
  const tables = await ask(
    `select tablename from pg_tables where schemaname = 'public' order by 1`,
  );
  const names = tables.split('\n').filter(Boolean);
  const counts = await Promise.all(names.map((name) => ask(`select count(*) from "${name}"`)));
  const frames = names.includes('frames')
    ? await ask(`select md5(string_agg(encode(sha256(bytes), 'hex'), '' order by id)) from frames`)
    : '';
  return JSON.stringify([names, counts, frames]);
}

async function needRoom(data, cluster) {
  const { output } = await run('du', ['-sB1', cluster]);
  const bytes = Number(output.split(/\s/)[0]);
  const { bavail, bsize } = statfsSync(data);
  if (bavail * bsize > bytes * 1.2 + 100_000_000) return;
  const mb = (n) => Math.ceil(n / 1e6);
  throw new Stop(
    `The new database needs about ${mb(bytes * 1.2)} MB beside the old one; ${mb(bavail * bsize)} MB are free. Nothing was changed.`,
  );
}

/**
 * @param from the programs that the cluster was made by, and `to` those it shall be carried over to
 * @returns where the old cluster lies now
 */
export async function carryOver(data, from, to) {
  const cluster = join(data, 'postgres');
  const fresh = join(data, 'postgres.carried');
  rmSync(fresh, { recursive: true, force: true });
  await needRoom(data, cluster);
  await clearLock(cluster);
  const user = await lesserUser();
  const passwordFile = join(data, 'database-password');
  const env = { ...process.env, PGPASSWORD: readFileSync(passwordFile, 'utf8').trim() };
  const log = join(data, 'postgres.log');
  const running = [];
  const start = async (place, programs, settings) => {
    const started = await startCluster({ cluster: place, programs, user, log, settings });
    running.push(started);
    return started.port;
  };
  const stopAll = async () => {
    for (const one of running.splice(0)) await one.stop();
  };
  try {
    // Nothing is written to the old one from here on.
    const old = await start(cluster, from, ['default_transaction_read_only=on']);
    await initCluster(fresh, passwordFile, to, user);
    const next = await start(fresh, to, []);
    await makeDatabase(to, next, env.PGPASSWORD, NAME);
    say(`Carrying the database over from PostgreSQL ${from.version} to ${to.version} …`);
    const [dumped, restored] = await pipeDump(
      [join(to.bin, 'pg_dump'), [...at(old), '-Fc', '-Z0', NAME]],
      [join(to.bin, 'pg_restore'), [...at(next), '-d', NAME, '--exit-on-error']],
      env,
    );
    if (isStopped()) throw new Stop('It was stopped.');
    if (dumped.code !== 0 || restored.code !== 0)
      throw new Stop(`${dumped.said}${restored.said}\nIt could not be carried over.`);
    if ((await countsOf(to, old, env)) !== (await countsOf(to, next, env)))
      throw new Stop('What was carried over is not the same as what was there.');
  } catch (error) {
    await stopAll();
    rmSync(fresh, { recursive: true, force: true });
    if (error instanceof Stop) throw new Stop(`${error.message} The database is as it was.`);
    throw error;
  }
  await stopAll();
  let aside = `${cluster}.of-${from.version}`;
  for (let n = 2; existsSync(aside); n += 1) aside = `${cluster}.of-${from.version}-${n}`;
  renameSync(cluster, aside);
  renameSync(fresh, cluster);
  return aside;
}
