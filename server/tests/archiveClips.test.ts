import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import { clipSchema, type Clip } from '@/core/contracts/clip';
import type { Cuts } from '@/core/clip/cuts';
import * as one from '@/app/api/clips/[id]/route';
import { sql } from '../db/sql';
import { addFolder } from '../folders/folders';
import { sha256 } from '../frames/intake';
import { mediaDir, sweepMedia } from '../media/files';
import { changeShot } from '../shots/change';
import {
  archived,
  broughtIn,
  otherDatabase,
  reportOf,
  useDatabase,
  zipOf,
  type Entry,
} from './archived';
import { film, filmOf, HEIGHT, shownIn, WIDTH, withTones } from './clipFilms';
import { look, lookedThrough, recorded, wanted } from './clipLib';
import { at, begin, finish, gradientPng, jsonRequest, testFolder } from './setup';

let clip: Clip;
let file = '';
let database = '';

const cut = async (id: string, revision: number, cuts: Cuts): Promise<void> => {
  const answer = await one.PUT(jsonRequest('/x', 'PUT', { revision, cuts }), at({ id }));
  expect(answer.status).toBe(200);
};

beforeAll(async () => {
  await begin();
  clip = await recorded(withTones(film(30), { at: [[0.5, 0.7]], lasts: 2 }), { title: 'Sensor 4' });
  const box = markSchema.parse({
    ...{ id: 'box', kind: 'box', x: 40, y: 56, width: 60, height: 30 },
    ...{ colour: '#D55E00', outline: 4, time: { from: 3, to: 9 } },
  });
  const document = { ...untouched({ width: WIDTH, height: HEIGHT }), marks: [box] };
  await changeShot(clip.id, { revision: clip.marksRevision, document });
  await cut(clip.id, 1, { away: [{ from: 0, to: 4 }] });
  await cut(clip.id, 2, { away: [{ from: 0, to: 4 }], speeds: [{ from: 8, to: 12, speed: 0.5 }] });
  // Kept as a film: that is told of as every copy is.
  const folder = await addFolder({ name: 'Clips', path: testFolder('archived clips') });
  expect(await wanted(clip.id, { folderId: folder.id, format: 'webm' })).toMatchObject({
    state: 'done',
  });
  clip = clipSchema.parse((await look(clip.id)).told);
  file = await archived();
  database = await otherDatabase();
}, 120_000);
afterAll(async () => {
  await useDatabase(database);
  await finish();
});

/** Nothing is here, neither rows nor films. */
beforeEach(async () => {
  await sql()`truncate shots, frames, jobs cascade`;
  await sweepMedia();
  expect(readdirSync(mediaDir())).toEqual([]);
});

const allClips = async (): Promise<string[]> =>
  (await sql()<{ id: string }[]>`select shot_id as id from clips order by id`).map(({ id }) => id);

/** The archive with other entries in place of its own. */
async function withEntries(change: (entry: Entry) => Entry | null): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), 'rezzik-entries-'));
  execFileSync('unzip', ['-q', file, '-d', folder]);
  const names = execFileSync('unzip', ['-Z1', file]).toString().trim().split('\n');
  const entries = names.flatMap((name) => {
    if (name === 'manifest.jsonl') return [];
    return change({ name, bytes: readFileSync(join(folder, name)) }) ?? [];
  });
  rmSync(folder, { recursive: true });
  return zipOf(entries);
}

const isFilm = (name: string): boolean => name.startsWith('films/');
const jsonOf = z.record(z.string(), z.json());

test('a clip comes out and in again as it was: its film to the byte, cuts, marks, steps, sound', async () => {
  const { brought, damaged } = await broughtIn(file);
  expect([brought?.shots, damaged]).toEqual([{ added: 1, here: 0, beside: 0 }, []]);
  expect(await lookedThrough(clip.id)).toEqual({ ...clip, revision: 1 });
  const entry = execFileSync('unzip', ['-p', file, `films/${clip.id}.mp4`], { maxBuffer: 1e9 });
  expect(readFileSync(join(mediaDir(), `${clip.id}.mp4`)).equals(entry)).toBe(true);
  const [row] = await sql()`select sha256 from clips`;
  expect(row).toMatchObject({ sha256: sha256(entry) });
  // Back to the whole, and on again.
  for (const step of [0, 1]) {
    const change = { revision: step + 1, step };
    expect((await one.PUT(jsonRequest('/x', 'PUT', change), at({ id: clip.id }))).status).toBe(200);
  }
  expect((await look(clip.id)).told).toMatchObject({ cuts: { away: [{ from: 0, to: 4 }] } });
  const copies = await sql()`select format from copies`;
  expect(copies).toMatchObject([{ format: 'webm' }]);
  // What is swept away is not what came in, and another maker plays it.
  await sweepMedia();
  const out = join(mkdtempSync(join(tmpdir(), 'rezzik-out-')), 'film.mp4');
  writeFileSync(out, entry);
  expect(shownIn(out).numbers).toHaveLength(30);
});

test('twice it doubles nothing; cut otherwise meanwhile, both are kept', async () => {
  await broughtIn(file);
  expect((await broughtIn(file)).brought?.shots).toEqual({ added: 0, here: 1, beside: 0 });
  // Further on here: what comes in is one of its steps.
  await cut(clip.id, 1, { away: [] });
  expect((await broughtIn(file)).brought?.shots).toEqual({ added: 0, here: 1, beside: 0 });
  await sql()`delete from clip_steps where position < 3`;
  const { brought, told } = await broughtIn(file);
  expect(brought?.shots).toEqual({ added: 0, here: 0, beside: 1 });
  expect(told).toEqual([expect.stringContaining('both are kept')]);
  expect((await broughtIn(file)).brought?.shots).toEqual({ added: 0, here: 1, beside: 0 });
  const [other = ''] = (await allClips()).filter((id) => id !== clip.id);
  const beside = await lookedThrough(other);
  expect(beside).toMatchObject({ title: 'Sensor 4 (brought in)', cuts: clip.cuts, steps: 2 });
  await sweepMedia();
  const films = readdirSync(mediaDir()).filter((name) => name.endsWith('.mp4'));
  expect(films.sort()).toEqual([`${clip.id}.mp4`, `${other}.mp4`].sort());
});

test('a shot that an archive without films left has its film again', async () => {
  const without = await withEntries(({ name, bytes }) => {
    if (isFilm(name)) return null;
    if (!name.startsWith('shots/')) return { name, bytes };
    const { clip: gone, ...shot } = jsonOf.parse(JSON.parse(bytes.toString()));
    expect(gone).toBeDefined();
    return { name, bytes: Buffer.from(JSON.stringify(shot)) };
  });
  expect((await broughtIn(without)).brought?.shots).toEqual({ added: 1, here: 0, beside: 0 });
  expect(await allClips()).toEqual([]);
  expect((await broughtIn(file)).brought?.shots).toEqual({ added: 0, here: 1, beside: 0 });
  expect((await lookedThrough(clip.id)).cuts).toEqual(clip.cuts);
});

const other = async (name: string, bytes: Buffer | Promise<Buffer>): Promise<[string, Buffer]> => [
  name,
  await bytes,
];

test.each([
  ['no film', () => other('is no film', gradientPng(8, 8))],
  [
    'a list of other files',
    () => other('no film', Buffer.from("ffconcat version 1.0\nfile '/etc/passwd'\n")),
  ],
  [
    'one of another size',
    () => other('another size', filmOf([Buffer.alloc(64 * 48 * 4, 90)], { width: 64, height: 48 })),
  ],
  ['one that is missing', () => other('another one', Buffer.alloc(0))],
] as const)('a film that lies is told and left, and nothing of it stays: %s', async (_, made) => {
  const [why, bytes] = await made();
  const lying = await withEntries((entry) => {
    if (isFilm(entry.name)) return bytes.length > 0 ? { ...entry, bytes } : null;
    if (!entry.name.startsWith('shots/') || bytes.length === 0) return entry;
    const shot = jsonOf.parse(JSON.parse(entry.bytes.toString()));
    const told = { ...jsonOf.parse(shot.clip), bytes: bytes.length, sha256: sha256(bytes) };
    return { ...entry, bytes: Buffer.from(JSON.stringify({ ...shot, clip: told })) };
  });
  const { brought, damaged } = await broughtIn(lying);
  expect(brought?.shots).toBeUndefined();
  expect(damaged.map((one) => one.why).join()).toContain(why);
  expect(readdirSync(mediaDir())).toEqual([]);
});

test('one that was not looked through yet has the sum over its film in the archive', async () => {
  await broughtIn(file);
  await sql()`update clips set sha256 = null`;
  const anew = await archived();
  expect((await reportOf(anew)).damaged).toEqual([]);
  await sql()`truncate shots, frames, jobs cascade`;
  await sweepMedia();
  const { brought, damaged } = await broughtIn(anew);
  expect([brought?.shots, damaged]).toEqual([{ added: 1, here: 0, beside: 0 }, []]);
});

test.each(['known', 'not known'])(
  'a film that is gone from the disk, its sum %s, is told, and its picture is in the archive all the same',
  async (sum) => {
    await broughtIn(file);
    if (sum === 'not known') await sql()`update clips set sha256 = null`;
    rmSync(join(mediaDir(), `${clip.id}.mp4`));
    const halved = await archived();
    const names = execFileSync('unzip', ['-Z1', halved]).toString();
    expect(names).toContain(`shots/${clip.id}.json`);
    expect(names).not.toContain('films/');
    expect(JSON.stringify(await reportOf(halved))).toContain('only its first picture');
  },
);
