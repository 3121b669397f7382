import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { setTimeout as pause } from 'node:timers/promises';
import { pathToFileURL } from 'node:url';
import { createCanvas } from '@napi-rs/canvas';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { z } from 'zod';
import { paintDesk } from '@/core/desk/build';
import { createDesk, deskDisplays } from '@/core/desk/model';
import { markSchema, type Mark } from '@/core/marks/registry';
import { everyMark } from '@/tests/lib/marks';
import { testShaper } from '@/tests/lib/shaper';
import { OwnApp } from '@/tests/safe/lib/ownApp';
import { ms, report } from './measure';

const FRAME = { width: 3840, height: 2160 };
const seenSchema = z.object({ p99: z.number(), max: z.number(), memory: z.number() });

/** Marks of some kinds in turn, strewn over the picture. */
const many = (count: number, kinds: readonly Mark['kind'][], side: number): Mark[] =>
  Array.from({ length: count }, (_, i) => {
    const kind = kinds[i % kinds.length];
    return markSchema.parse({
      ...{ id: `m${i}`, kind, x: (i * 173) % 3400, y: (i * 97) % 1900 },
      ...{ width: side, height: side / 2 },
      ...(kind === 'box' && { colour: '#009E73', outline: 3 }),
    });
  });

let app: OwnApp;
let frame: Buffer;
let watched: string;

beforeAll(async () => {
  const data = join(process.env.REZZIK_ROOTS ?? '', 'loop');
  mkdirSync(data, { recursive: true });
  watched = join(data, 'watched.json');
  const watcher = pathToFileURL(join(process.cwd(), 'bench', 'watchLoop.mjs')).href;
  const env = { NODE_OPTIONS: `--import ${watcher}`, REZZIK_WATCHED: watched };
  app = await OwnApp.start({ data, databaseUrl: process.env.DATABASE_URL ?? '', env });
  const canvas = createCanvas(FRAME.width, FRAME.height);
  const surface = canvas.getContext('2d');
  const { bounds } = deskDisplays[0];
  surface.scale(FRAME.width / bounds.width, FRAME.height / bounds.height);
  paintDesk(surface, createDesk(1, 0), await testShaper(), bounds);
  frame = canvas.toBuffer('image/png');
}, 120_000);
afterAll(() => app.end());

/** What the app saw of itself since it was asked before. */
async function seen(): Promise<z.infer<typeof seenSchema>> {
  rmSync(watched, { force: true });
  process.kill(app.pid, 'SIGUSR2');
  while (!existsSync(watched)) await pause(10);
  await pause(50);
  return seenSchema.parse(JSON.parse(readFileSync(watched, 'utf8')));
}

async function store(title: string, marks: readonly Mark[], angle = 0): Promise<string> {
  const turn = angle ? { turn: { quarters: 0, mirrored: false, angle } } : {};
  const view = { crop: { x: 0, y: 0, ...FRAME }, ...turn };
  return app.addShot(frame, title, { document: JSON.stringify({ version: 4, view, marks }) });
}

async function get(path: string): Promise<ArrayBuffer> {
  const answer = await fetch(app.url + path);
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return answer.arrayBuffer();
}

/** Looks at a page of the Shelf until that is done. */
async function watchShelf(): Promise<{ done: () => Promise<number[]> }> {
  const args = [join('bench', 'askShelf.mjs'), `${app.url}/api/shots?limit=60`];
  const child = spawn(process.execPath, args, { stdio: ['pipe', 'pipe', 'inherit'] });
  const lines = createInterface(child.stdout)[Symbol.asyncIterator]();
  await lines.next();
  return {
    done: async () => {
      child.stdin.end();
      return z.array(z.number()).parse(JSON.parse(z.string().parse((await lines.next()).value)));
    },
  };
}

test('twenty requests of every heavy kind at 3840 × 2160: the loop, the Shelf, the memory', async () => {
  const bare = await store('Bare', []);
  const marked = await store('200 marks', many(200, ['box'], 400));
  const hidden = await store('40 hidden', many(40, ['blur', 'blocks'], 500));
  const straight = await store('Straightened', [], 3);
  const every = await store('Every mark', everyMark);
  const bmp = await get(`/api/shots/${bare}/picture?format=bmp`);
  const asked = [
    ...[`${bare}/picture?format=jpeg`, `${bare}/picture?format=png&palette=true`],
    ...['png', 'svg', 'pdf', 'webp'].map((format) => `${marked}/picture?format=${format}`),
    ...['png', 'bmp'].map((format) => `${hidden}/picture?format=${format}`),
    ...[`${straight}/picture?format=png`, `${straight}/picture?format=jpeg&maxBytes=2000000`],
    ...['png', 'tiff'].map((format) => `${every}/picture?format=${format}`),
    ...[`${bare}/likeness?format=jpeg&quality=80`, `${marked}/likeness?format=webp&quality=80`],
    ...[`${bare}/readable`, `${marked}/readable`, `${hidden}/thumbnail`, `${every}/thumbnail`],
  ].map((path) => () => get(`/api/shots/${path}`));
  const brought = [Buffer.from(bmp), frame].map((bytes) => () => app.addShot(bytes, 'Brought'));
  const all = [...asked, ...brought];
  // All of it was asked before, as in an app that has run for a while.
  for (const ask of all) await ask();
  await seen();
  const watcher = await watchShelf();
  const begun = performance.now();
  const results = await Promise.allSettled(all.map((ask) => ask()));
  const took = performance.now() - begun;
  const shelf = await watcher.done();
  const { p99, max, memory } = await seen();
  const failed = results.flatMap((one) => (one.status === 'rejected' ? [String(one.reason)] : []));
  expect(failed).toEqual([]);
  shelf.sort((a, b) => a - b);
  report('20 heavy requests at 3840 × 2160 at once, all answered after', ms(took));
  report('… loop of the app late, 99th percentile', ms(p99), 'must be ≤ 20 ms');
  report('… at most', ms(max), 'must be ≤ 100 ms');
  report('… a page of the Shelf meanwhile, median', ms(shelf[shelf.length >> 1] ?? NaN));
  report('… the slowest of them', ms(shelf.at(-1) ?? NaN), 'must be ≤ 100 ms');
  report('… memory of the app, at most', `${(memory / 1e6).toFixed(0)} MB`);
}, 300_000);
