import { execFile } from 'node:child_process';
import { appendFile, cp, mkdtemp, rm, symlink, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { afterAll, beforeAll, expect, test } from '@jest/globals';

const run = promisify(execFile);
/** What the proof and all it is about lie in; the rest of the app is not asked. */
const copied = [
  'core',
  'features',
  'server',
  'workers',
  'tests',
  'jest.config.mjs',
  'tsconfig.json',
];
const linked = ['node_modules', 'public', 'package.json'];
let folder: string;

/** A copy of the app with one kind of mark more: its folder, its one line in the list. */
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'rezzik-kind-'));
  const top = process.cwd();
  for (const name of copied) await cp(join(top, name), join(folder, name), { recursive: true });
  for (const name of linked) await symlink(join(top, name), join(folder, name));
  await cp(join(top, 'tests/kinds/wedge'), join(folder, 'core/marks/wedge'), { recursive: true });
  await appendFile(join(folder, 'core/marks/kinds.ts'), "export * as wedge from './wedge';\n");
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** What a program of the copy says; its errors too. */
const said = (program: string, args: string[]): Promise<string> =>
  run(process.execPath, ['--experimental-vm-modules', join('node_modules', program), ...args], {
    cwd: folder,
  }).then(
    ({ stdout, stderr }) => stdout + stderr,
    (error: { stdout: string; stderr: string }) => error.stdout + error.stderr,
  );

test('a kind in a folder of its own and one line is drawn, kept, described and listed', async () => {
  const config = join(folder, 'jest.config.mjs');
  const report = await said('jest/bin/jest.js', ['--config', config, '--selectProjects', 'proof']);
  expect(report).toContain('4 passed, 4 total');
});

test('nothing that knows the kinds by name fails to be written for it', async () => {
  const config = join(folder, 'tsconfig.wedge.json');
  const include = ['core', 'features/mark', 'features/keys', 'tests/untyped.d.ts'];
  const exclude = ['**/*.test.ts', '**/tests'];
  const own = { extends: './tsconfig.json', include, exclude };
  await writeFile(config, JSON.stringify(own));
  expect(
    await said('typescript/bin/tsc', ['--noEmit', '--incremental', 'false', '-p', config]),
  ).toBe('');
}, 300_000);
