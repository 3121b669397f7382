import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { Copy } from '@/core/contracts/folder';
import { sha256 } from '@/server/frames/intake';
import { OwnApp } from './lib/ownApp';
import { busyPng } from './lib/pictures';

jest.setTimeout(400_000);

const KEEPS = 200;
const AT_ONCE = 20;
const SHOTS = 20;
/** What docs/architecture.md states for a server under load, bytes. */
const MOST_MEMORY = 1e9;

const data = join(process.env.REZZIK_DATA ?? '', 'load');
let app: OwnApp;
beforeAll(async () => {
  mkdirSync(data, { recursive: true });
  app = await OwnApp.start({ data, databaseUrl: process.env.DATABASE_URL ?? '' });
});
afterAll(async () => {
  await app.end();
  rmSync(data, { recursive: true });
});

/** Asks for small things all the while, as a page that is open does. */
function askAllTheWhile() {
  const waits: number[] = [];
  let on = true;
  const done = (async () => {
    while (on) {
      const start = performance.now();
      const answer = await fetch(`${app.url}/api/shots?limit=30`);
      expect(answer.status).toBe(200);
      await answer.arrayBuffer();
      waits.push(performance.now() - start);
    }
  })();
  return async () => {
    on = false;
    await done;
    return waits;
  };
}

test(`${KEEPS} keeps, ${AT_ONCE} at a time: none is lost, the page is answered, memory stays bounded`, async () => {
  const folder = await app.addFolder({
    name: 'Load',
    path: join(app.roots, 'load'),
    pattern: '{title}-{n}',
    make: true,
  });
  const picture = await busyPng(1920, 1080, 7);
  const shots = await Promise.all(
    Array.from({ length: SHOTS }, (_, i) => app.addShot(picture, `Bed ${i}`)),
  );
  const stop = askAllTheWhile();
  const kept: Copy[] = [];
  let next = 0;
  const work = async () => {
    while (next < KEEPS) {
      const i = next;
      next += 1;
      const format = i % 3 ? 'png' : 'jpeg';
      kept.push(await app.keep(shots[i % SHOTS] ?? '', { folderId: folder.id, format }));
    }
  };
  const begun = performance.now();
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  const took = performance.now() - begun;
  const waits = await stop();

  expect(new Set(kept.map((copy) => copy.path)).size).toBe(KEEPS);
  for (const copy of kept) expect(sha256(readFileSync(copy.path))).toBe(copy.sha256);
  // Far more answers than one: it is not the keeping that decides when the page is answered.
  expect(waits.length).toBeGreaterThan(20);
  expect(Math.max(...waits)).toBeLessThan(took / 5);
  expect(app.memory().most).toBeLessThan(MOST_MEMORY);
});

test('two processes that keep fifty at once under one name never collide', async () => {
  const other = await OwnApp.start({ data, databaseUrl: process.env.DATABASE_URL ?? '' });
  try {
    const shot = await app.addShot(await busyPng(200, 120, 8), 'Twins');
    for (const pattern of ['{title}', '{title} {n:3}']) {
      const name = `twins ${pattern.length}`;
      const path = join(app.roots, name);
      const { id: folderId } = await app.addFolder({ name, path, pattern, make: true });
      const copies = await Promise.all(
        Array.from({ length: 50 }, (_, i) => (i % 2 ? app : other).keep(shot, { folderId })),
      );
      expect(new Set(copies.map((copy) => copy.path)).size).toBe(50);
      expect(readdirSync(path)).toHaveLength(50);
    }
  } finally {
    await other.end();
  }
});
