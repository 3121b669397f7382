import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createReadStream, existsSync, readdirSync, statSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { setTimeout as pause } from 'node:timers/promises';
import { archiveSchema, archivesSchema, type Archive } from '@/core/contracts/archive';
import { GET as handedOut, POST as broughtByPost } from '@/app/api/archive/route';
import { DELETE as stop, GET as one } from '@/app/api/archives/[id]/route';
import { GET as list, PATCH as plan, POST as intoFolder } from '@/app/api/archives/route';
import { archiveWhenDue, dropOlder } from '../archive/plan';
import { mendArchives } from '../archive/fromFile';
import { env } from '../base/env';
import { sql } from '../db/sql';
import { besides, dropTheRest } from '../erase/dropRest';
import { addFolder } from '../folders/folders';
import { binShot, eraseShot, storeShot } from '../shots/store';
import { untouched } from '@/core/document/view';
import { archived } from './archived';
import { cover, run } from './seeds';
import { at, begin, finish, gradientPng, jsonRequest, request, testFolder } from './setup';

let folderId = '';
let place = '';
let shot = '';

beforeAll(async () => {
  await begin();
  place = testFolder('archives');
  ({ id: folderId } = await addFolder({ name: 'Archives', path: place }));
  const size = { width: 240, height: 160 };
  ({ id: shot } = await storeShot({
    picture: await gradientPng(size.width, size.height),
    title: 'Beds',
    document: { ...untouched(size), marks: [cover] },
  }));
});
afterAll(async () => {
  await finish();
});

const context = at({});
const read = async (answer: Response): Promise<Archive> => archiveSchema.parse(await answer.json());
const stateOf = async (id: string): Promise<Archive> =>
  read(await one(request(`/api/archives/${id}`), at({ id })));

/** Waits until nothing goes on with it. */
async function ended(id: string): Promise<Archive> {
  for (;;) {
    const now = await stateOf(id);
    if (now.state !== 'waiting' && now.state !== 'going on') return now;
    await pause(20);
  }
}

async function into(body: object): Promise<Archive> {
  const answer = await intoFolder(jsonRequest('/api/archives', 'POST', body), context);
  expect(answer.status).toBe(202);
  return ended((await read(answer)).id);
}

const upload = (body: BodyInit, headers: Record<string, string> = {}) =>
  broughtByPost(
    request('/api/archive?as=Mine.zip', {
      method: 'POST',
      headers: { 'content-type': 'application/zip', ...headers },
      body,
      // Node asks for this where a body is a stream.
      ...(body instanceof ReadableStream ? { duplex: 'half' } : {}),
    }),
    context,
  );

test('written into a folder as a job, never over another file, whole or not at all', async () => {
  const first = await into({ folderId });
  expect(first).toMatchObject({ state: 'done', problem: null, report: { shots: 1, guides: 0 } });
  expect(statSync(first.path).size).toBe(first.bytes);
  const second = await into({ folderId });
  expect(second.path).toBe(first.path.replace('.zip', '-2.zip'));
  expect((await run('unzip', ['-t', second.path])).stdout).toContain('No errors');
  expect(readdirSync(place).filter((name) => name.startsWith('.'))).toEqual([]);
  const { archives } = archivesSchema.parse(
    await (await list(request('/api/archives'), context)).json(),
  );
  expect(archives.map(({ id }) => id)).toEqual([second.id, first.id]);
});

test('pressed twice it is written once', async () => {
  const before = readdirSync(place).length;
  const asked = await Promise.all(
    [1, 2].map(() =>
      intoFolder(jsonRequest('/api/archives', 'POST', { folderId, query: 'beds' }), context),
    ),
  );
  const ids = await Promise.all(asked.map(async (answer) => (await read(answer)).id));
  await Promise.all(ids.map(ended));
  expect(new Set(ids).size).toBe(1);
  expect(readdirSync(place).length - before).toBe(1);
});

test('a folder that is gone is said; nothing is left of what was begun', async () => {
  const gone = testFolder('archives-gone');
  const { id } = await addFolder({ name: 'Gone', path: gone });
  await run('rmdir', [gone]);
  expect(await into({ folderId: id })).toMatchObject({
    state: 'stopped',
    problem: `The folder ${gone} is not there.`,
  });
  const nowhere = await intoFolder(
    jsonRequest('/api/archives', 'POST', { folderId: crypto.randomUUID() }),
    context,
  );
  expect(nowhere.status).toBe(404);
  const odd = await intoFolder(
    jsonRequest('/api/archives', 'POST', { folderId, query: 5 }),
    context,
  );
  expect(odd.status).toBe(400);
});

test('handed out as it is written; broken off, it is known all the same', async () => {
  const answer = await handedOut(request('/api/archive?as=/home/mia/all.zip'), context);
  expect(answer.headers.get('content-disposition')).toMatch(
    /^attachment; filename="Rezzik \d{4}-\d\d-\d\d\.zip"/,
  );
  const bytes = Buffer.from(await answer.arrayBuffer());
  expect(bytes.subarray(0, 2).toString()).toBe('PK');
  const control = new AbortController();
  const broken = await handedOut(
    request('/api/archive?as=/home/mia/half.zip', { signal: control.signal }),
    context,
  );
  control.abort();
  await expect(broken.arrayBuffer()).rejects.toThrow();
  const paths = (await besides(shot)).copies;
  expect(paths).toEqual(expect.arrayContaining(['/home/mia/all.zip', '/home/mia/half.zip']));
});

test('an upload is brought in, or refused in words; its file does not stay', async () => {
  const path = await archived();
  const { size } = statSync(path);
  const stream = Readable.toWeb(createReadStream(path)) as ReadableStream<Uint8Array>;
  const answer = await upload(stream, { 'content-length': String(size) });
  expect(answer.status).toBe(202);
  const done = await ended((await read(answer)).id);
  expect(done).toMatchObject({ direction: 'in', path: 'Mine.zip', state: 'done' });
  expect(done.report?.brought?.shots).toEqual({ added: 0, here: 1, beside: 0 });
  const refused = await ended((await read(await upload('no zip'))).id);
  expect(refused).toMatchObject({ state: 'stopped' });
  expect(refused.problem).toMatch(/no zip file/);
  const short = await upload(new Uint8Array(10), { 'content-length': '20' });
  expect(short.status).toBe(400);
  const text = await upload('x', { 'content-type': 'text/plain' });
  expect(text.status).toBe(415);
  expect(readdirSync(join(env().dataDir, 'archives'))).toEqual([]);
});

test('what goes on is stopped between two shots; what came in stays; what has ended cannot be', async () => {
  const ids: string[] = [];
  for (let i = 0; i < 5; i += 1) {
    ids.push((await storeShot({ picture: await gradientPng(31 + i, 20), title: `Row ${i}` })).id);
  }
  const file = await readFile(await archived('row'));
  for (const id of ids) {
    await binShot(id);
    await eraseShot(id);
  }
  const here = async (): Promise<number> =>
    (await sql()`select 1 from shots where id = any(${ids}::uuid[])`).length;
  const { id } = await read(await upload(new Uint8Array(file)));
  const stopped = await sql().begin(async (tx) => {
    // Whoever stores a shot waits for this to end.
    await tx`lock table shots in exclusive mode`;
    const before = await here();
    const answer = await stop(request(`/api/archives/${id}`), at({ id }));
    return { status: answer.status, before };
  });
  expect(stopped.status).toBe(204);
  expect(await ended(id)).toMatchObject({ state: 'stopped', problem: null });
  // Those under way come to their end: two at a time.
  await pause(300);
  expect(await here()).toBeLessThanOrEqual(stopped.before + 2);
  expect(await here()).toBeLessThan(ids.length);
  expect(readdirSync(join(env().dataDir, 'archives'))).toEqual([]);
  const again = await stop(request(`/api/archives/${id}`), at({ id }));
  expect(again.status).toBe(409);
});

test('a start after a crash takes away what nobody waits for', async () => {
  const left = join(env().dataDir, 'archives', `${crypto.randomUUID()}.zip`);
  await writeFile(left, 'half');
  await sql()`insert into archives (id, direction, path) values (gen_random_uuid(), 'out', 'cut.zip')`;
  await mendArchives();
  expect(existsSync(left)).toBe(false);
  const [row] = await sql()`select ended_at from archives where path = 'cut.zip'`;
  expect(row?.endedAt).not.toBeNull();
});

test('the plan writes one when it is due, and leaves as many as it shall', async () => {
  const setting = await plan(
    jsonRequest('/api/archives', 'PATCH', { plan: { folderId, every: 'day', keep: 1 } }),
    context,
  );
  expect(setting.status).toBe(200);
  const hour = 3_600_000;
  const now = Date.now();
  const first = await ended((await archiveWhenDue(new Date(now))) ?? '');
  expect(first).toMatchObject({ state: 'done', planned: true });
  expect(await archiveWhenDue(new Date(now + 5 * hour))).toBeNull();
  const second = await ended((await archiveWhenDue(new Date(now + 24 * hour))) ?? '');
  await sql()`update archives set began_at = began_at + interval '1 day' where id = ${second.id}`;
  const hand = await into({ folderId });
  await dropOlder(1);
  expect([first, second, hand].map(({ path }) => existsSync(path))).toEqual([false, true, true]);
  // What somebody put in its place is not ours.
  await writeFile(second.path, 'another file');
  const third = await ended((await archiveWhenDue(new Date(now + 49 * hour))) ?? '');
  await sql()`update archives set began_at = began_at + interval '2 days' where id = ${third.id}`;
  await dropOlder(1);
  expect(existsSync(second.path)).toBe(true);
  await plan(jsonRequest('/api/archives', 'PATCH', { plan: null }), context);
  expect(await archiveWhenDue(new Date(now + 99 * hour))).toBeNull();
});

test('archives are named when the rest of a shot is dropped; a later one has nothing of it', async () => {
  const before = (await besides(shot)).copies;
  expect(before.some((path) => path.startsWith(place))).toBe(true);
  const secret = await frameInside(await archived());
  await dropTheRest(shot, 1, false);
  const after = await frameInside(await archived());
  expect(after).not.toEqual(secret);
  // Two frames that differ under the cover alone are the same once the rest is dropped.
  const size = { width: 240, height: 160 };
  const plain = Buffer.alloc(size.width * size.height * 3, 200);
  const other = Buffer.from(plain);
  other.fill(7, (80 * 240 + 150) * 3, (80 * 240 + 160) * 3);
  const { default: sharp } = await import('sharp');
  const frames: string[] = [];
  for (const data of [plain, other]) {
    const picture = await sharp(data, { raw: { ...size, channels: 3 } })
      .png()
      .toBuffer();
    const { id } = await storeShot({
      picture,
      title: `Twin ${frames.length}`,
      document: { ...untouched(size), marks: [cover] },
    });
    await dropTheRest(id, 1, false);
    frames.push((await frameInside(await archived(`"Twin ${frames.length}"`))).join());
  }
  expect(frames[0]).toBe(frames[1]);
});

/** What the manifest says of the frames. */
async function frameInside(path: string): Promise<string[]> {
  const { stdout } = await run('unzip', ['-p', path, 'manifest.jsonl']);
  return stdout
    .split('\n')
    .filter((line) => line.includes('frames/'))
    .map((line) => line.replace(/"name":"[^"]*",/, ''));
}
