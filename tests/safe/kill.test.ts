import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import postgres from 'postgres';
import { copiesSchema, type Copy } from '@/core/contracts/folder';
import { randomFrom } from '@/core/random/random';
import { sha256 } from '@/server/frames/intake';
import { OwnApp } from './lib/ownApp';
import { busyPng } from './lib/pictures';

jest.setTimeout(400_000);

const ROUNDS = 25;
const AT_ONCE = 6;
/** Longest wait before a kill, beside what the keeps of a round take. */
const LONGEST = 1.3;

const databaseUrl = process.env.DATABASE_URL ?? '';
const data = join(process.env.REZZIK_DATA ?? '', 'killed');
const sql = postgres(databaseUrl, { onnotice: () => undefined });
const start = () => OwnApp.start({ data, databaseUrl });

let app: OwnApp;
beforeAll(async () => {
  mkdirSync(data, { recursive: true });
  app = await start();
});
afterAll(async () => {
  await app.end();
  await sql.end();
  rmSync(data, { recursive: true });
});

/** Every file below a folder, hidden ones too. */
const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name));

test(`killed at ${ROUNDS} random moments of keeping: every file is whole and has its row, or neither is there`, async () => {
  const folder = await app.addFolder({
    name: 'Killed',
    path: join(app.roots, 'files'),
    pattern: '{date:yyyy}/{title} {n:3}',
    make: true,
  });
  const shots = [
    await app.addShot(await busyPng(900, 600, 1), 'Large'),
    await app.addShot(await busyPng(60, 40, 2), 'Small'),
  ];
  const next = randomFrom(20261125);
  const keepSome = (round: number) => {
    const formats = ['png', 'jpeg', 'bmp', 'webp'];
    return Array.from({ length: AT_ONCE }, (_, i) =>
      app
        .keep(shots[i % 2] ?? '', { folderId: folder.id, format: formats[(round + i) % 4] })
        .catch(() => null),
    );
  };
  // How long a round takes on an app that was just started, as every one below is.
  await app.end();
  app = await start();
  const begun = performance.now();
  await Promise.all(keepSome(0));
  const whole = performance.now() - begun;
  const count = { answered: 0, cutOff: 0 };
  for (let round = 0; round < ROUNDS; round += 1) {
    const keeps = keepSome(round);
    await sleep(next() * LONGEST * whole);
    await app.end('SIGKILL');
    const promised = (await Promise.all(keeps)).filter((copy) => copy !== null);
    count.answered += promised.length;
    count.cutOff += AT_ONCE - promised.length;
    app = await start();

    const rows = await sql<{ path: string; sha256: string; confirmed: boolean }[]>`
      select path, sha256, confirmed from copies where folder_id = ${folder.id}`;
    const files = filesIn(folder.path);
    expect(rows.filter((row) => !row.confirmed)).toEqual([]);
    expect(rows.map((row) => row.path).sort()).toEqual(files.sort());
    for (const row of rows) expect(sha256(readFileSync(row.path))).toBe(row.sha256);
    const listed = new Set(rows.map((row) => row.path));
    expect(promised.filter((copy) => !listed.has(copy.path))).toEqual([]);
  }
  // Both kinds of moment were met, or the test would show nothing.
  expect(Math.min(count.answered, count.cutOff)).toBeGreaterThanOrEqual(5);
  const all: Copy[] = [];
  for (const shot of shots) {
    const answer = await fetch(`${app.url}/api/shots/${shot}/copies`);
    all.push(...copiesSchema.parse(await answer.json()).copies);
  }
  expect(all.length).toBeGreaterThanOrEqual(count.answered);
});
