// From nothing to a served app, and everything down again with it.

import { spawn } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { needBuild } from './build.mjs';
import { lesserUser, startDatabase } from './database.mjs';
import {
  browsers,
  needModules,
  needPackages,
  offerPackages,
  toServe,
  wished,
} from './packages.mjs';
import { dataDir, top } from './paths.mjs';
import { absent, ownHosts } from './front.mjs';
import { makePrivate } from './private.mjs';
import { end, sleep } from './run.mjs';
import { say, Stop } from './say.mjs';

const isFreeAt = (port, host) =>
  new Promise((resolve) => {
    const server = createServer();
    server.on('error', (error) => resolve(absent.includes(error.code)));
    server.listen(port, host, () => server.close(() => resolve(true)));
  });

const portIsFree = async (port) =>
  (await Promise.all(ownHosts.map((host) => isFreeAt(port, host)))).every(Boolean);

async function needPort(port, name) {
  if (await portIsFree(port)) return;
  const health = await fetch(`http://127.0.0.1:${port}/api/health`)
    .then((answer) => answer.json())
    .catch(() => null);
  if (health?.name === 'Rezzik')
    throw new Stop(`Rezzik is running already: http://127.0.0.1:${port}`);
  throw new Stop(
    `Port ${port} is taken by another program. Choose another one, for example:\n\n  REZZIK_PORT=${port + 1} npm ${name}\n`,
  );
}

/** The app writes under this name which processes run it, so that a later start can tell. */
export const runningFile = (data) => join(data, 'running.json');

const alive = (pid) => existsSync(`/proc/${pid}`);

/** True while an app works on a data folder. */
export function isServed(data) {
  const file = runningFile(data);
  if (!existsSync(file)) return false;
  const { starter, app } = JSON.parse(readFileSync(file, 'utf8'));
  return [starter, app].some((pid) => runs(pid, /\/(app|demo|start|dev)\.mjs/));
}

/** True when a process of such a command line is alive: its number may be another's by now. */
const runs = (pid, command) =>
  alive(pid) && command.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8'));

/** Ends an app whose starter was killed: nothing else would ever stop it. */
async function endLeftOver(data) {
  const file = runningFile(data);
  if (!existsSync(file)) return;
  const { starter, app } = JSON.parse(readFileSync(file, 'utf8'));
  if (alive(starter) || !runs(app, /app\.mjs/)) return;
  say('A Rezzik whose start was cut off is still running; it is stopped first.');
  process.kill(app, 'SIGTERM');
  for (let i = 0; i < 80 && alive(app); i += 1) await sleep(100);
}

function readPort() {
  const wanted = process.env.REZZIK_PORT ?? '4310';
  const port = Number(wanted);
  if (!Number.isInteger(port) || port < 1 || port > 65_534) {
    throw new Stop(`REZZIK_PORT is “${wanted}”. It must be a number from 1 to 65534.`);
  }
  return port;
}

const hasEnded = (child) => child.exitCode !== null || child.signalCode !== null;

/** Waits until the app answers. */
export async function answers(port, child) {
  for (let i = 0; i < 1200; i += 1) {
    if (hasEnded(child)) return false;
    const ok = await fetch(`http://127.0.0.1:${port}/api/health`)
      .then((a) => a.ok)
      .catch(() => false);
    if (ok) return true;
    await sleep(150);
  }
  return false;
}

/** Starts the app itself (bin/app.mjs) on a database that is there. */
export function startApp({ port, databaseUrl, data, mode = 'start', env = {}, stdio = 'inherit' }) {
  return spawn(process.execPath, [join(top, 'bin', 'app.mjs'), mode], {
    cwd: top,
    // Its own group, so that Ctrl-C comes to us first and we end things in order.
    detached: true,
    stdio,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      REZZIK_PORT: String(port),
      REZZIK_DATA: data,
      NEXT_TELEMETRY_DISABLED: '1',
      NODE_ENV: mode === 'dev' ? 'development' : 'production',
      ...env,
    },
  });
}

/** A first list of programs that open copies, for its owner to change: the file manager. */
function offerPrograms(data) {
  const file = join(data, 'programs.json');
  const command = '/usr/bin/xdg-open';
  if (existsSync(file) || !existsSync(command)) return;
  const list = [{ name: 'Open the place', command, opensFolder: true }];
  writeFileSync(file, `${JSON.stringify(list, null, 2)}\n`, { mode: 0o600 });
}

/**
 * The whole way for `npm run demo`, `npm start` and `npm run dev`.
 * @param name the npm command, for what is said
 */
export async function serve({ name, demo = false, mode = 'start' }) {
  const port = readPort();
  const data = dataDir();
  await endLeftOver(data);
  await needPort(port, name);
  const own = !process.env.DATABASE_URL;
  if (own) await needPackages(toServe);
  // The demo takes a web page, and has clips.
  const offered = demo ? ['ffmpeg', ...browsers()] : [];
  await offerPackages(offered);
  await needModules();
  if (mode === 'start') await needBuild(process.env.REZZIK_DIST);
  process.umask(0o077);
  makePrivate(data, own ? await lesserUser() : null);
  offerPrograms(data);
  const database = own ? await startDatabase(data) : null;
  const databaseUrl = database?.url ?? process.env.DATABASE_URL;
  if (demo) say('Starting; the first time, the demo data is made, which takes a moment …');
  const app = startApp({
    port,
    databaseUrl,
    data,
    mode,
    env: { REZZIK_DEMO: demo ? '1' : '0' },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  const lastWords = heard(app.stderr);
  let asked = false;
  let stopping = null;
  const stop = () =>
    (stopping ??= (async () => {
      await end(app);
      await database?.stop();
    })());
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
    process.on(signal, () => {
      if (!asked) say('\nStopping …');
      asked = true;
      void stop();
    });
  }
  // Only now: whoever reads who is running may end us at once.
  writeFileSync(runningFile(data), JSON.stringify({ starter: process.pid, app: app.pid, port }));
  const ended = new Promise((resolve) => app.once('close', resolve));
  void ended.then(stop);
  let withoutDatabase = false;
  database?.child.once('close', () => {
    withoutDatabase = !stopping;
    void stop();
  });
  if (await answers(port, app)) {
    say(`\nRezzik is at http://127.0.0.1:${port}   (Ctrl-C stops it)\n`);
    // Beside what is served, which does without.
    void offerPackages(wished().filter((name) => !offered.includes(name)));
  } else if (!hasEnded(app)) {
    await stop();
    throw new Stop('Rezzik did not answer, and was stopped.');
  }
  await ended;
  await stop();
  if (asked) return;
  if (withoutDatabase) throw new Stop('The database ended, and Rezzik with it.');
  // Whoever ended it by its number did so as it should be done.
  if (app.exitCode !== 0) throw new Stop(whyEnded(app, lastWords()));
}

/** Passes on what a program says to people, and keeps the last of it. */
function heard(stream) {
  let last = '';
  stream.setEncoding('utf8').on('data', (text) => {
    process.stderr.write(text);
    last = (last + text).slice(-LAST_WORDS);
  });
  return () => last.trim();
}
const LAST_WORDS = 1_500;

function whyEnded({ exitCode, signalCode }, words) {
  const how = signalCode
    ? `was ended from outside (${signalCode})`
    : `stopped with an error (${exitCode})`;
  return `Rezzik ${how}. ${words ? `Its last words:\n\n${words}` : 'It said nothing about why.'}`;
}
