import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { randomFrom } from '@/core/random/random';
import {
  everyPicture,
  document,
  painted,
  pattern,
  picture,
  request,
  searched,
} from './lib/fuzz/targets';
import type { Ask, Target, There } from './lib/fuzz/targets';
import { OwnApp } from './lib/ownApp';
import { busyPng } from '@/tests/lib/pictures';

/** `npm run fuzz -- seconds seed` sets both; here they are the same in every run. */
const SECONDS = Number(process.env.REZZIK_FUZZ_SECONDS ?? 20);
const SEED = Number(process.env.REZZIK_FUZZ_SEED ?? 12);
/** Longer than this nothing may keep somebody waiting, ms. */
const STALL = 60_000;
const AT_ONCE = 3;

jest.setTimeout((SECONDS + 300) * 1_000);

const data = join(process.env.REZZIK_DATA ?? '', 'fuzz');
let app: OwnApp;
let there: There;
beforeAll(async () => {
  mkdirSync(data, { recursive: true });
  app = await OwnApp.start({ data, databaseUrl: process.env.DATABASE_URL ?? '' });
  const frame = await busyPng(640, 400, 3);
  const shots = await Promise.all(['Pond', 'Beds'].map((title) => app.addShot(frame, title)));
  const add = (name: string) =>
    app.addFolder({ name, path: join(app.roots, name), pattern: '{title}', make: true });
  const folders = [(await add('One')).id, (await add('Two')).id];
  const others = ['00000000-0000-4000-8000-000000000000'];
  there = { shots, folders, others, pictures: await everyPicture(), revisions: new Map() };
});
afterAll(async () => {
  await app.end();
  rmSync(data, { recursive: true });
});

const targets: readonly Target[] = [
  picture,
  document,
  document,
  painted,
  pattern,
  request,
  request,
  searched,
];

const told = z.object({
  revision: z.int().optional(),
  error: z.object({ code: z.string() }).optional(),
  current: z.object({ id: z.string(), revision: z.int() }).optional(),
});

/** Keeps up with what shots have become. */
function learn(path: string, words: string): void {
  const read = told.safeParse(parsed(words));
  const id = /^\/api\/shots\/([0-9a-f-]{36})$/.exec(path)?.[1];
  if (!read.success || !id) return;
  const revision = read.data.current?.revision ?? read.data.revision;
  if (revision !== undefined) there.revisions.set(id, revision);
}

function parsed(words: string): unknown {
  try {
    return JSON.parse(words);
  } catch {
    return null;
  }
}

const statuses = new Map<number, number>();

/** Says what is wrong with an answer; null when nothing is. */
async function problemOf({ method, path, headers, body }: Ask): Promise<string | null> {
  const begun = performance.now();
  const answer = await fetch(app.url + path, {
    method,
    redirect: 'manual',
    signal: AbortSignal.timeout(STALL),
    ...(headers && { headers }),
    ...(body !== undefined && { body }),
  }).catch((error: unknown) => `no answer: ${String(error)}`);
  const took = performance.now() - begun;
  if (typeof answer === 'string') return `${answer} after ${took.toFixed(0)} ms`;
  const words = await answer.text();
  statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
  learn(path, words);
  // 503 says that the app has its hands full, or that something would take too long.
  if (answer.status >= 500 && answer.status !== 503) return `${answer.status} ${words}`;
  return null;
}

const listed = (all: ReadonlyMap<string | number, number>): string =>
  [...all].map(([name, n]) => `${name} × ${n}`).join(', ');

const shown = ({ method, path, body }: Ask): string =>
  `${method} ${path} ${typeof body === 'string' ? body.slice(0, 4_000) : (body?.constructor.name ?? '')}`;

test(`what nobody would send, for ${SECONDS} s: each is answered, in words, and nothing stays`, async () => {
  const finds: string[] = [];
  const count = new Map<string, number>();
  const until = performance.now() + SECONDS * 1_000;
  let done = 0;
  const work = async () => {
    while (performance.now() < until && finds.length < 20) {
      if (half === 0 && performance.now() > until - SECONDS * 500) half = app.memory().now;
      const number = done;
      done += 1;
      // Each from a seed of its own: any of them can be tried again alone.
      const next = randomFrom(SEED * 1_000_003 + number);
      const target = targets[number % targets.length];
      if (!target) throw new Error('no target');
      const ask = target(there, next);
      count.set(target.name, (count.get(target.name) ?? 0) + 1);
      const problem = await problemOf(ask);
      if (problem)
        finds.push(`seed ${SEED}, number ${number}: ${problem.slice(0, 300)}\n${shown(ask)}`);
    }
  };
  let half = 0;
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  console.info(
    `${done} asked: ${listed(count)}; answers: ${listed(statuses)}; ` +
      `memory ${(half / 1e6).toFixed(0)} MB at half time, ${(app.memory().now / 1e6).toFixed(0)} MB after`,
  );
  expect(finds).toEqual([]);
  // Slow machines ask less, but never nothing.
  expect(done).toBeGreaterThan(SECONDS);
  // It fills up to what large pictures at once need, and then stays.
  expect(app.memory().now).toBeLessThan(half * 1.5 + 300e6);
  expect((await fetch(`${app.url}/api/health`)).status).toBe(200);
});
