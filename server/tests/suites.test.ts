import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { suites, type Suite } from '@/tests/suites/manifest';
import { Fault } from '../base/fault';
import { takeIn } from '../frames/intake';

// Pictures that others test their decoders with, as Debian's source packages carry them, held
// against what their own makers' libraries see in them (tests/suites/manifest.ts).

const folder = join(process.cwd(), 'node_modules', '.cache', 'suites');
/** Levels of 255 by which a colour may differ, looked at on black; libraries round differently. */
const TOLERANCE = 2;

interface Seen {
  width: number;
  height: number;
  data: Uint8Array;
}

let work: string;
beforeAll(() => void (work = mkdtempSync(join(tmpdir(), 'rezzik-suites-'))));
afterAll(() => rmSync(work, { recursive: true, force: true }));

/** What the libraries themselves read; null for what they refuse. */
function byLibrary(truth: 'libpng' | 'libtiff', files: readonly string[]): (Seen | null)[] {
  const kind = truth.slice(3);
  const input = files.map((file, i) => `${kind}\t${file}\t${join(work, String(i))}\n`).join('');
  const script = join(process.cwd(), 'tests', 'suites', 'reference.py');
  const told = execFileSync('python3', [script], { input, encoding: 'utf8' }).trim().split('\n');
  return told.map((line, i) => {
    const [width = 0, height = 0] = line.split(' ').map(Number);
    return line === '-' ? null : { width, height, data: readFileSync(join(work, String(i))) };
  });
}

async function pixelsOf(picture: Uint8Array | string): Promise<Seen> {
  const { data, info } = await sharp(picture)
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

/** What the pictures of a suite are held against; undefined for those that nothing is known of. */
async function truthOf(
  suite: Suite,
  names: readonly string[],
): Promise<(Seen | null | undefined)[]> {
  const path = (name: string) => join(folder, suite.from, suite.folder, name);
  if (suite.truth === 'libpng' || suite.truth === 'libtiff')
    return byLibrary(suite.truth, names.map(path));
  return Promise.all(
    names.map(async (name) => {
      const like = suite.beside?.(name);
      return like === undefined ? undefined : await pixelsOf(path(like));
    }),
  );
}

/** The largest difference of a colour, on black. */
function difference({ data: a }: Seen, { data: b }: Seen): number {
  if (Buffer.from(a.buffer, a.byteOffset, a.length).equals(b)) return 0;
  let worst = 0;
  for (let i = 0; i < a.length; i += 4) {
    const [alpha, other] = [a[i + 3] ?? 0, b[i + 3] ?? 0];
    worst = Math.max(worst, Math.abs(alpha - other));
    for (let n = i; n < i + 3; n += 1) {
      worst = Math.max(worst, Math.abs((a[n] ?? 0) * alpha - (b[n] ?? 0) * other) / 255);
    }
  }
  return worst;
}

/** How a picture is taken, in words, so that a difference can be read. */
async function taken(bytes: Uint8Array, truth: Seen | null | undefined): Promise<string> {
  try {
    const got = await pixelsOf((await takeIn(bytes)).bytes);
    if (!truth) return 'read';
    const same = got.width === truth.width && got.height === truth.height;
    if (!same) return `${got.width} × ${got.height} instead of ${truth.width} × ${truth.height}`;
    const worst = difference(got, truth);
    return worst <= TOLERANCE ? 'read' : `${worst.toFixed(1)} levels off`;
  } catch (error) {
    if (error instanceof Fault) return error.code;
    throw error;
  }
}

/** What may come of a file that was made to break a decoder: read, or refused for what it is. */
const answers = new Set([
  'read',
  'damaged',
  'not-read',
  'not-a-picture',
  'too-many-pixels',
  'empty',
]);

/** The pictures of the long run are thousands, ms. */
const LONG = 1_200_000;

const all = process.env.REZZIK_SUITES === 'all';
describe.each(suites.filter(({ short }) => short || all))('$from: $folder', (suite) => {
  test(
    'every picture is read as its makers read it, or refused in true words',
    async () => {
      const path = join(folder, suite.from, suite.folder);
      const names = readdirSync(path)
        .filter((name) => suite.files.test(name))
        .sort();
      expect(names.length).toBeGreaterThan(0);
      const truths = await truthOf(suite, names);
      const got: Record<string, string> = {};
      const wanted: Record<string, string> = {};
      for (const [i, name] of names.entries()) {
        const other = suite.otherwise?.[name] !== undefined;
        got[name] = await taken(readFileSync(join(path, name)), other ? undefined : truths[i]);
        wanted[name] = suite.refused?.[name] ?? 'read';
        // Nobody says whether what was made to break a decoder, or what its own library refuses, can be read.
        const nobody = suite.truth === 'nobody' || truths[i] === null;
        if (nobody && answers.has(got[name])) wanted[name] = got[name];
      }
      expect(got).toEqual(wanted);
    },
    LONG,
  );
});
