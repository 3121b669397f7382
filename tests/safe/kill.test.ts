import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { copiesSchema, folderInputSchema, type Folder } from '@/core/contracts/folder';
import { randomFrom } from '@/core/random/random';
import { sql } from '@/server/db/sql';
import { addFolder } from '@/server/folders/folders';
import { sha256 } from '@/server/frames/intake';
import { mendCopies } from '@/server/keep/mend';
import { storeShot } from '@/server/shots/store';
import { begin, finish } from '@/server/tests/setup';
import { OwnApp } from './lib/ownApp';
import { busyPng } from '@/tests/lib/pictures';

jest.setTimeout(400_000);

const AT_ONCE = 6;
/** Longest wait before a kill, beside what the keeps of a round take. */
const LONGEST = 1.3;
const formats = ['png', 'jpeg', 'bmp', 'webp'] as const;

const data = process.env.REZZIK_DATA ?? '';
const next = randomFrom(20261125);

beforeAll(begin);
afterAll(finish);

/** Every file below a folder, hidden ones too. */
const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name));

/** After a kill and the mending: every file has its row and is whole, and what was promised is there. */
async function expectWhole(folder: Pick<Folder, 'id' | 'path'>, promised: readonly string[]) {
  const rows = await sql()<{ path: string; sha256: string; confirmed: boolean }[]>`
    select path, sha256, confirmed from copies where folder_id = ${folder.id}`;
  expect(rows.filter((row) => !row.confirmed)).toEqual([]);
  expect(rows.map((row) => row.path).sort()).toEqual(filesIn(folder.path).sort());
  for (const row of rows) expect(sha256(readFileSync(row.path))).toBe(row.sha256);
  const listed = new Set(rows.map((row) => row.path));
  expect(promised.filter((path) => !listed.has(path))).toEqual([]);
}

/** What each of a round's keeps asks for. */
const wish = (round: number, i: number) => ({ format: formats[(round + i) % formats.length] });

const loaded = join(data, 'loaded');
const pattern = '{date:yyyy}/{title} {n:3}';

test('a process that keeps, killed at 15 random moments: every file is whole and has its row, or neither is there', async () => {
  const roots = join(data, 'kept');
  mkdirSync(roots, { recursive: true });
  mkdirSync(loaded, { recursive: true });
  process.env.REZZIK_ROOTS = roots;
  const path = join(roots, 'files');
  const folder = await addFolder(
    folderInputSchema.parse({ name: 'Killed', path, pattern, make: true }),
  );
  const shots = await Promise.all(
    [
      { picture: await busyPng(240, 160, 1), title: 'Large' },
      { picture: await busyPng(60, 40, 2), title: 'Small' },
    ].map((shot) => storeShot(shot)),
  );
  const keepSome = (round: number) => {
    const wishes = Array.from({ length: AT_ONCE }, (_, i) => ({
      shot: shots[i % 2]?.id,
      input: { folderId: folder.id, ...wish(round, i) },
    }));
    return startKeeper(JSON.stringify(wishes));
  };
  const first = await keepSome(0);
  const begun = performance.now();
  await first.ended;
  const whole = performance.now() - begun;
  const count = { kept: 0, cutOff: 0 };
  for (let round = 0; round < 15; round += 1) {
    const keeper = await keepSome(round);
    // Every other time soon after the first was kept, however long this machine takes for that.
    if (round % 2) await keeper.keptOne();
    await pause(next() * whole * (round % 2 ? 0.1 : LONGEST));
    keeper.child.kill('SIGKILL');
    await keeper.ended;
    await connectionsGone();
    await mendCopies();
    const promised = keeper.promised();
    count.kept += promised.length;
    count.cutOff += AT_ONCE - promised.length;
    await expectWhole(folder, promised);
  }
  // Both kinds of moment were met, or the test would show nothing.
  expect(Math.min(count.kept, count.cutOff)).toBeGreaterThanOrEqual(5);
});

/** A small process that keeps; it is there once its keeps have begun. */
async function startKeeper(wishes: string) {
  const args = ['--import', './tests/lib/loader/register.mjs', 'tests/safe/lib/keeper.ts', wishes];
  const url = new URL(process.env.DATABASE_URL ?? '');
  url.searchParams.set('application_name', 'keeper');
  const child = spawn(process.execPath, args, {
    env: { ...process.env, DATABASE_URL: url.href, REZZIK_LOADED: loaded },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let told = '';
  const ended = once(child, 'close');
  child.stdout.setEncoding('utf8').on('data', (part: string) => (told += part));
  while (!told.includes('begun\n')) await once(child.stdout, 'data');
  const promised = () =>
    told
      .split('\n')
      .slice(1, -1)
      .map((line) => String(JSON.parse(line)));
  const keptOne = async () => {
    while (promised().length === 0 && child.exitCode === null) {
      await Promise.race([once(child.stdout, 'data'), ended]);
    }
  };
  return { child, ended, promised, keptOne };
}

/** What the database still does for a process that was killed is over. */
async function connectionsGone(): Promise<void> {
  const left = async () => {
    const [row] = await sql()<{ n: number }[]>`
      select count(*)::int as n from pg_stat_activity where application_name = 'keeper'
      and datname = current_database()`;
    return row?.n ?? 0;
  };
  while ((await left()) > 0) await pause(10);
}

test('the whole app, killed three times while it keeps, has mended everything once it answers', async () => {
  const own = join(data, 'killed');
  mkdirSync(own, { recursive: true });
  const start = () => OwnApp.start({ data: own, databaseUrl: process.env.DATABASE_URL ?? '' });
  let app = await start();
  const path = join(app.roots, 'files');
  const folder = await app.addFolder({ name: 'Killed app', path, pattern, make: true });
  const shots = [
    await app.addShot(await busyPng(900, 600, 1), 'Large'),
    await app.addShot(await busyPng(60, 40, 2), 'Small'),
  ];
  const promised: string[] = [];
  for (let round = 0; round < 3; round += 1) {
    const keeps = Array.from({ length: AT_ONCE }, (_, i) =>
      app.keep(shots[i % 2] ?? '', { folderId: folder.id, ...wish(round, i) }).catch(() => null),
    );
    // In the middle: some are promised, the others under way.
    await Promise.race(keeps);
    await app.end('SIGKILL');
    promised.push(...(await Promise.all(keeps)).flatMap((copy) => copy?.path ?? []));
    app = await start();
    await expectWhole(folder, promised);
  }
  const kept = await Promise.all(
    shots.map(async (shot) => {
      const answer = await fetch(`${app.url}/api/shots/${shot}/copies`);
      return copiesSchema.parse(await answer.json()).copies;
    }),
  );
  expect(promised.length).toBeGreaterThanOrEqual(3);
  expect(kept.flat().length).toBeGreaterThanOrEqual(promised.length);
  await app.end();
});
