import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import {
  chmodSync,
  mkdirSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { env } from '../base/env';
import { addFolder } from '../folders/folders';
import { holdFolder } from '../folders/held';
import { allowedPath } from '../folders/place';
import { keepCopy } from '../keep/copies';
import { encodeShot } from '../keep/encode';
import { renameCopies } from '../keep/renameCopies';
import { storeShot } from '../shots/store';
import { getPaintable } from '../shots/rows';
import { begin, finish, gradientPng, testFolder } from './setup';

jest.setTimeout(90_000);

let shot: string;
beforeAll(async () => {
  await begin();
  shot = (await storeShot({ picture: await gradientPng(20, 20), title: 'Held' })).id;
});
afterAll(finish);

/** Puts a link in a folder's place and the folder back, over and over, and counts how often. */
const swapping = (path: string, outside: string): string => `
  const { renameSync, symlinkSync, unlinkSync } = require('node:fs');
  const [path, outside] = ${JSON.stringify([path, outside])};
  let n = 0;
  process.on('message', () => { process.send(n); process.exit(0); });
  const round = () => {
    for (let i = 0; i < 20; i += 1) {
      try {
        renameSync(path, path + '-away');
        symlinkSync(outside, path);
        unlinkSync(path);
        renameSync(path + '-away', path);
        n += 1;
      } catch {
        // It was made anew meanwhile; that one is put away, and the first comes back.
        try { renameSync(path, path + '-' + (n += 1)); } catch {}
        try { renameSync(path + '-away', path); } catch {}
      }
    }
    setImmediate(round);
  };
  round();`;

describe('a folder that is swapped for a link while copies are kept in it', () => {
  test.each([
    ['the folder', '{title}', ''],
    ['the folder above', 'deep/{title}', ''],
    ['the subfolder', 'deep/{title}', 'deep'],
  ])('%s, %s: nothing is ever written or opened elsewhere', async (name, pattern, swapped) => {
    const path = testFolder(`swap ${name}`);
    const outside = testFolder(`outside ${name}`);
    mkdirSync(join(outside, 'deep'), { recursive: true });
    mkdirSync(join(path, swapped), { recursive: true });
    chmodSync(path, 0o755);
    for (const closed of [outside, join(outside, 'deep')]) chmodSync(closed, 0o700);
    const { id: folderId } = await addFolder({ name: 'Swapped', path, pattern });
    const child = spawn(process.execPath, ['-e', swapping(join(path, swapped), outside)], {
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    const done = { kept: 0, refused: 0 };
    const until = Date.now() + 20_000;
    while (done.kept + done.refused < 150 && Date.now() < until) {
      await keepCopy(shot, { folderId }).then(
        () => (done.kept += 1),
        () => (done.refused += 1),
      );
      if (done.kept % 20 === 1) await renameCopies(shot, `Held ${done.kept}`);
    }
    const counted = once(child, 'message') as Promise<[number]>;
    child.send('stop');
    const [swaps] = await counted;
    expect(swaps).toBeGreaterThan(1_000);
    expect(done.kept).toBeGreaterThan(0);
    expect(readdirSync(outside)).toEqual(['deep']);
    expect(readdirSync(join(outside, 'deep'))).toEqual([]);
    for (const closed of [outside, join(outside, 'deep')])
      expect(statSync(closed).mode & 0o777).toBe(0o700);
    expect(
      readdirSync(path, { recursive: true }).filter((name) => /part$/.test(String(name))),
    ).toEqual([]);
  });

  test('a folder held open stays itself when its name leads elsewhere', async () => {
    const path = testFolder('itself');
    const outside = testFolder('itself-outside');
    const folder = await holdFolder(path);
    renameSync(path, `${path}-moved`);
    symlinkSync(outside, path);
    writeFileSync(folder.at('a'), 'x');
    expect(readdirSync(outside)).toEqual([]);
    expect(readdirSync(`${path}-moved`)).toEqual(['a']);
    await folder.close();
    await expect(holdFolder(path)).rejects.toMatchObject({ code: 'through-link' });
    rmSync(path);
  });
});

describe('hidden folders', () => {
  test('are refused, unless their owner lists them where the web cannot write', async () => {
    const root = env().roots[0] ?? '';
    const hidden = join(root, '.config', 'autostart');
    mkdirSync(hidden, { recursive: true });
    const refused = { status: 400, code: 'hidden' };
    await expect(allowedPath(hidden)).rejects.toMatchObject(refused);
    await expect(addFolder({ name: 'No', path: hidden, pattern: '{title}' })).rejects.toMatchObject(
      refused,
    );
    writeFileSync(join(env().dataDir, 'hidden-folders'), `${hidden}\n`);
    expect(await allowedPath(hidden)).toBe(hidden);
    await expect(allowedPath(join(root, '.ssh'))).rejects.toMatchObject(refused);
    rmSync(join(env().dataDir, 'hidden-folders'));
  });
});

describe('a picture that would be larger than any that comes in', () => {
  test.each([
    { width: 16_000 },
    { width: 32_767, height: 32_767, fit: 'pad' as const },
    { width: 20_000, height: 20_000, fit: 'fill' as const },
  ])('%j is refused in words, before anything is made', async (size) => {
    const before = process.memoryUsage().rss;
    await expect(
      encodeShot(await getPaintable(shot), { format: 'png', ...size }),
    ).rejects.toMatchObject({
      status: 400,
      message: expect.stringContaining('134 megapixels') as unknown as string,
    });
    expect(process.memoryUsage().rss - before).toBeLessThan(200e6);
  });
});
