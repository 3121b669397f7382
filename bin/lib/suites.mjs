// Pictures that other makers test their decoders with, from Debian's source packages: fetched once
// and kept beside the npm packages.

import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { top } from './paths.mjs';
import { run } from './run.mjs';
import { say, Stop } from './say.mjs';

/** Where they lie, one folder a package. */
export const suitesFolder = join(top, 'node_modules', '.cache', 'suites');

const packages = {
  libpng: {
    archive: 'pool/main/libp/libpng1.6/libpng1.6_1.6.39.orig.tar.gz',
    sha256: 'a00e9d2f2f664186e4202db9299397f851aea71b36a35e74910b8820e380d441',
    take: ['*/contrib/pngsuite/*', '*/contrib/testpngs/*'],
  },
  libtiff: {
    archive: 'pool/main/t/tiff/tiff_4.5.0.orig.tar.bz2',
    sha256: '638f43d7dea33948d5dee7f39572fc0194d9cc3c74195de9dd26a4388a1f880a',
    take: ['*/test/images/*'],
  },
  netsurf: {
    archive: 'pool/main/n/netsurf/netsurf_3.10.orig.tar.gz',
    sha256: '495adf6b6614ce36fca6c605f7c321f9cb4a3df838043158122678ce2b3325b7',
    take: ['*/libnsbmp/test/*', '*/libnsgif/test/*'],
  },
  pillow: {
    archive: 'pool/main/p/pillow/pillow_9.4.0.orig.tar.xz',
    sha256: '0a58ccfbd002838b32e21773bfdaa954a2de08d1f04b87b63d14e751fec3264d',
    take: ['*/Tests/images/*'],
  },
  imagemagick: {
    archive: 'pool/main/i/imagemagick/imagemagick_6.9.11.60+dfsg.orig.tar.xz',
    sha256: '472fb516df842ee9c819ed80099c188463b9e961303511c36ae24d0eaa8959c4',
    take: ['*/PerlMagick/t/*'],
  },
};

/** Those that every run of the tests looks at; the others are for the long run. */
export const shortSuites = ['libpng', 'libtiff', 'netsurf'];
export const allSuites = Object.keys(packages);

const HELPER = '/usr/lib/apt/apt-helper';

/** The places that Debian packages come from on this machine. */
async function mirrors() {
  const told = await run('apt-get', ['indextargets', '--format', '$(REPO_URI)']);
  return [...new Set(told.output.split('\n').filter((line) => /^https?:\/\/\S+$/.test(line)))];
}

async function fetch(archive, sha256, into) {
  for (const mirror of await mirrors()) {
    const from = new URL(archive, mirror).href;
    const done = await run(HELPER, ['download-file', from, into, `SHA256:${sha256}`]);
    if (done.code === 0) return;
  }
  const name = archive.split('/').at(-1);
  throw new Stop(
    `The pictures of ${name} could not be fetched from where Debian's packages come from. With a copy of it:\n\n  put it at ${into}\n`,
  );
}

/** Fetches the suites that are not there yet. @throws Stop when one cannot be had */
export async function needSuites(names) {
  mkdirSync(suitesFolder, { recursive: true });
  for (const name of names) {
    const { archive, sha256, take } = packages[name];
    const folder = join(suitesFolder, name);
    if (existsSync(folder)) continue;
    say(`Fetching the test pictures of ${name} …`);
    const file = join(suitesFolder, archive.split('/').at(-1));
    if (!existsSync(file)) await fetch(archive, sha256, file);
    const part = `${folder}.part`;
    rmSync(part, { recursive: true, force: true });
    mkdirSync(part);
    const how = ['-xf', file, '-C', part, '--strip-components=1', '--wildcards', '--no-same-owner'];
    const done = await run('tar', [...how, ...take]);
    if (done.code !== 0) throw new Stop(`${file} could not be unpacked.\n${done.output}`);
    renameSync(part, folder);
    rmSync(file);
  }
}
