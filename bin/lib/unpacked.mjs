// Servers of Debian's that the tests start themselves. They are unpacked beside the npm packages and
// not installed: installing one starts it as a service of the whole computer.

import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { top } from './paths.mjs';
import { run } from './run.mjs';
import { say, Stop } from './say.mjs';

const folder = join(top, 'node_modules', '.cache', 'unpacked');

/** Debian packages by name. */
export const toUnpack = ['nginx'];

/** Unpacks those that are not there yet. @throws Stop when one cannot be had */
export async function needUnpacked(names) {
  for (const name of names) {
    const own = join(folder, name);
    if (existsSync(own)) continue;
    say(`Unpacking ${name} …`);
    const part = `${own}.part`;
    rmSync(part, { recursive: true, force: true });
    mkdirSync(part, { recursive: true });
    const got = await run('apt-get', ['download', name], { cwd: part });
    const file = readdirSync(part).find((one) => one.endsWith('.deb'));
    if (!file)
      throw new Stop(`${got.output}\n${name} could not be fetched: apt-get download ${name}`);
    const done = await run('dpkg-deb', ['-x', join(part, file), part]);
    if (done.code !== 0) throw new Stop(`${file} could not be unpacked.\n${done.output}`);
    rmSync(join(part, file));
    renameSync(part, own);
  }
}
