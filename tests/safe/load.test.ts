import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { join } from 'node:path';
import type { Copy } from '@/core/contracts/folder';
import { sha256 } from '@/server/frames/intake';
import { OwnApp } from './lib/ownApp';
import { busyPng } from '@/tests/lib/pictures';

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
  // Every fourth as large as a screen, so that many large ones are in work at once.
  const large = await busyPng(1920, 1080, 7);
  const small = await busyPng(640, 360, 8);
  const shots = await Promise.all(
    Array.from({ length: SHOTS }, (_, i) => app.addShot(i % 4 ? small : large, `Bed ${i}`)),
  );
  // An idle connection is not closed under the hands of whoever sends on it next.
  const idle = (await fetch(`${app.url}/api/health`)).headers.get('keep-alive');
  expect(idle).toBe('timeout=75');
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
  // Whatever computes beside the event loop gives way to it, as the system counts it.
  const { loop, others } = priorities(app.pid);
  expect(loop).toBe(0);
  expect(others.length).toBeGreaterThan(5);
  expect(new Set(others)).toEqual(new Set([10]));
});

/** How nice the threads of a process are (proc(5), stat: 17 fields after the name). */
function priorities(pid: number): { loop: number; others: number[] } {
  const niceOf = (thread: string | number): number => {
    const [, after = ''] = readFileSync(`/proc/${pid}/task/${thread}/stat`, 'utf8').split(') ');
    return Number(after.split(' ')[16]);
  };
  const threads = readdirSync(`/proc/${pid}/task`).filter((thread) => thread !== String(pid));
  return { loop: niceOf(pid), others: threads.map(niceOf) };
}

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

test('500 uploads that trickle in leave the app answering, and their sum is bounded', async () => {
  const { port } = app;
  const head = (length: number) =>
    `POST /api/shots HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\n` +
    `Content-Type: multipart/form-data; boundary=x\r\nContent-Length: ${length}\r\n\r\n`;
  // In a process of their own, so that whoever asks is not as busy with them as the app.
  const trickling = `
    const { connect } = require('node:net');
    let open = 0;
    for (let i = 0; i < 500; i += 1) {
      const socket = connect(${port}, '127.0.0.1', () => {
        socket.write(${JSON.stringify(head(1_000_000))});
        setInterval(() => socket.write('.'), 1_000);
        if (++open === 500) console.log('open');
      });
      socket.on('error', () => undefined).resume();
    }`;
  const ask = async (): Promise<number> => {
    const begun = performance.now();
    const answer = await fetch(`${app.url}/api/shots?limit=30`);
    expect(answer.status).toBe(200);
    await answer.arrayBuffer();
    return performance.now() - begun;
  };
  /** The lower quarter: whatever else the machine does holds up some, held connections would most. */
  const several = async () => {
    const all: number[] = [];
    for (let i = 0; i < 60; i += 1) all.push(await ask());
    return all.sort((a, b) => a - b)[15] ?? NaN;
  };
  const first = await several();
  const slow = spawn(process.execPath, ['-e', trickling], { stdio: ['ignore', 'pipe', 'ignore'] });
  await once(slow.stdout, 'data');
  const busy = await several();
  slow.kill('SIGKILL');
  await once(slow, 'exit');
  // Before and after, since what else goes on beside it changes.
  const quiet = Math.max(first, await several());
  console.info(`answers: ${quiet.toFixed(1)} ms, with 500 uploads ${busy.toFixed(1)} ms`);
  expect(busy).toBeLessThan(Math.max(100, quiet * 10));

  // Ten of nearly the largest size, none of which ends: more than may be held at once.
  const before = app.memory().now;
  const part = Buffer.alloc(120_000_000, 46);
  const sockets = Array.from({ length: 10 }, () => {
    const socket = connect(port, '127.0.0.1').on('error', () => undefined);
    socket.write(head(part.length + 1));
    socket.write(part);
    return socket;
  });
  const answers = sockets.map(async (socket) => String((await once(socket, 'data'))[0]));
  expect(await Promise.any(answers)).toMatch(/^HTTP\/1\.1 503 /);
  for (const socket of sockets) socket.destroy();
  expect(app.memory().most - before).toBeLessThan(1.5e9);
  expect((await fetch(`${app.url}/api/health`)).status).toBe(200);
});
