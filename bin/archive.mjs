// npm run archive -- FILE: everything out into a file; with --in, what is in a file in again.

import { createReadStream, existsSync, rmSync, statSync } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { basename, dirname, join, resolve } from 'node:path';
import { Readable } from 'node:stream';
import { dataDir } from './lib/paths.mjs';
import { sleep } from './lib/run.mjs';
import { command, say, Stop } from './lib/say.mjs';
import { heedStops, isStopped, onStop } from './lib/stopping.mjs';
import { withRezzik } from './lib/withRezzik.mjs';

const USAGE = `Everything out:               npm run archive -- FILE
Only what a search finds:     npm run archive -- FILE --only "tag:seeds"
In again:                     npm run archive -- --in FILE`;

/** @returns the file, whether it comes in, and what it is about */
function readArguments(all) {
  const rest = [...all];
  const isIn = rest.includes('--in');
  if (isIn) rest.splice(rest.indexOf('--in'), 1);
  const at = rest.indexOf('--only');
  const only = at < 0 ? '' : rest[at + 1];
  if (at >= 0) rest.splice(at, 2);
  if (rest.length !== 1 || rest[0].startsWith('-') || only === undefined || (isIn && only))
    throw new Stop(USAGE);
  return { file: resolve(rest[0]), isIn, only };
}

/** Said before anything is started. */
function check(file, isIn) {
  if (isIn && !existsSync(file)) throw new Stop(`${file} is not there.`);
  if (!isIn && existsSync(file)) throw new Stop(`${file} is there already. Choose another name.`);
  if (!isIn && !existsSync(dirname(file)))
    throw new Stop(`The folder ${dirname(file)} is not there.`);
}

const mb = (bytes) => `${(bytes / 1e6).toFixed(1)} MB`;

const asked = (...request) =>
  fetch(...request).catch(() => {
    throw new Stop('Rezzik does not answer any more.');
  });

async function words(answer) {
  const body = await answer.json().catch(() => null);
  return body?.error?.message ?? `Rezzik answered ${answer.status}.`;
}

async function out(url, file, only) {
  const query = new URLSearchParams({ as: file, ...(only && { q: only }) });
  const answer = await asked(`${url}/api/archive?${query}`);
  if (!answer.ok) throw new Stop(await words(answer));
  const part = join(dirname(file), `.${basename(file)}.part`);
  const to = await open(part, 'w', 0o600);
  const forget = onStop(() => rmSync(part, { force: true }));
  let bytes = 0;
  try {
    let said = Date.now();
    for await (const piece of answer.body) {
      if (isStopped()) throw new Error('it was stopped.');
      await to.appendFile(piece);
      bytes += piece.length;
      if (Date.now() - said > 2_000) {
        say(`${mb(bytes)} …`);
        said = Date.now();
      }
    }
    await to.sync();
  } catch (error) {
    await rm(part, { force: true });
    throw new Stop(`The archive was broken off, and nothing is left of it: ${error.message}`);
  } finally {
    await to.close();
    forget();
  }
  // Somebody may have put a file there meanwhile.
  check(file, false);
  await rename(part, file);
  say(`${file}, ${mb(bytes)}`);
}

const GOING = ['waiting', 'going on'];

async function bringIn(url, file) {
  const answer = await asked(`${url}/api/archive?${new URLSearchParams({ as: file })}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/zip', 'Content-Length': String(statSync(file).size) },
    body: Readable.toWeb(createReadStream(file)),
    duplex: 'half',
  });
  if (!answer.ok) throw new Stop(await words(answer));
  let archive = await answer.json();
  let said = '';
  while (GOING.includes(archive.state) && !isStopped()) {
    await sleep(500);
    archive = await (await asked(`${url}/api/archives/${archive.id}`)).json();
    const now = archive.progress ? `${archive.progress.done} of ${archive.progress.all} …` : said;
    if (now !== said) say((said = now));
  }
  if (GOING.includes(archive.state))
    return say('It goes on in Rezzik, or when that is started again.');
  if (archive.state !== 'done') throw new Stop(archive.problem ?? 'It was stopped.');
  const { brought = {}, told, damaged, more } = archive.report;
  for (const [kind, { added, here, beside }] of Object.entries(brought))
    say(`${kind}: ${added} new, ${here} here already, ${beside} kept beside another one`);
  for (const line of told) say(line);
  for (const { entry, why } of damaged) say(`Left out: ${entry}: ${why}`);
  if (more > 0) say(`… and ${more} more.`);
}

await command(async () => {
  const { file, isIn, only } = readArguments(process.argv.slice(2));
  check(file, isIn);
  heedStops(say);
  await withRezzik(dataDir(), (url) => (isIn ? bringIn(url, file) : out(url, file, only)));
});
