// What the commands tell the person who started them.

import { existsSync, readFileSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { top } from './paths.mjs';

export const say = (words) => console.log(words);

/** Something that stops a command, in words for the person who started it. */
export class Stop extends Error {}

/** Whether a program is installed. */
export const onPath = (name) =>
  (process.env.PATH ?? '').split(delimiter).some((folder) => existsSync(join(folder, name)));

const numbers = (version) =>
  version
    .replace(/[^\d.]/g, '')
    .split('.')
    .map(Number);

/** @throws Stop where Node.js is too old or npm is missing: before anything else is begun */
function needNode() {
  const { engines } = JSON.parse(readFileSync(join(top, 'package.json'), 'utf8'));
  const [wanted, had] = [numbers(engines.node), numbers(process.versions.node)];
  const at = wanted.findIndex((n, i) => n !== had[i]);
  if (at >= 0 && wanted[at] > (had[at] ?? 0)) {
    throw new Stop(
      `This is Node.js ${process.versions.node}; Rezzik needs ${wanted.join('.')} or newer. Nothing was changed.`,
    );
  }
  if (!onPath('npm')) {
    throw new Stop(
      'npm is missing; it comes with Node.js, or as “apt-get install npm”. Nothing was changed.',
    );
  }
}

/** Runs a command's body; a Stop becomes its words and exit code 1. */
export async function command(body) {
  try {
    needNode();
    await body();
  } catch (error) {
    if (error instanceof Stop) console.error(`\n${error.message}`);
    else console.error(error);
    process.exitCode = 1;
  }
}
