// What the desktop starts at login: npm start, started anew after a crash, three times.

import { spawn } from 'node:child_process';
import { appendFileSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { dataDir, top } from './lib/paths.mjs';
import { end, run, sleep } from './lib/run.mjs';
import { command, say, Stop } from './lib/say.mjs';
import { heedStops, isStopped, onStop } from './lib/stopping.mjs';

const MOST = 3;
/** Whoever ran for so long, ms, may crash three times more. */
const LONG = 600_000;
const PAUSE = 1_000;

const log = () => join(dataDir(), 'at-login.log');

function note(words) {
  say(words);
  appendFileSync(log(), `${new Date().toISOString()} ${words}\n`);
}

/** On the desktop too, where it shows notices: nobody looks at what this prints. */
const notice = (words) =>
  run(
    'gdbus',
    [
      ...['call', '--session', '--dest', 'org.freedesktop.Notifications'],
      ...['--object-path', '/org/freedesktop/Notifications', '--timeout', '2'],
      ...['--method', 'org.freedesktop.Notifications.Notify', '"Rezzik"', 'uint32 0', '""'],
      ...['"Rezzik has stopped"', JSON.stringify(words), '@as []', '@a{sv} {}', 'int32 0'],
    ],
    { env: { ...process.env, LC_ALL: 'C.UTF-8' } },
  );

/** Runs Rezzik to its end. @returns true where it was ended as it should be */
async function once() {
  const child = spawn(process.execPath, [join(top, 'bin', 'start.mjs')], {
    cwd: top,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  const forget = onStop(() => void end(child));
  await new Promise((resolve) => child.once('close', resolve));
  forget();
  return child.exitCode === 0 || isStopped();
}

const isServed = (port) =>
  fetch(`http://127.0.0.1:${port}/api/health`)
    .then((answer) => answer.json())
    .then(({ name }) => name === 'Rezzik')
    .catch(() => false);

async function keepRunning() {
  mkdirSync(dataDir(), { recursive: true, mode: 0o700 });
  writeFileSync(log(), '', { mode: 0o600 });
  if (await isServed(process.env.REZZIK_PORT ?? '4310'))
    return note('Rezzik is running already, and is left alone.');
  note('Started.');
  for (let crashes = 0; ;) {
    const begun = Date.now();
    if (await once()) return note('Ended.');
    if (Date.now() - begun > LONG) crashes = 0;
    crashes += 1;
    if (crashes > MOST) break;
    note(`It ended by itself, and is started anew (${crashes} of ${MOST}).`);
    await sleep(PAUSE);
    if (isStopped()) return note('Ended.');
  }
  const words = `It ended by itself again after being started ${MOST} times more. “npm start” says why.`;
  note(words);
  await notice(words);
  throw new Stop(words);
}

heedStops(say);
await command(keepRunning);
