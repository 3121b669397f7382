import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { existsSync, readdirSync, rmSync, truncateSync } from 'node:fs';
import type { Clip } from '@/core/contracts/clip';
import * as one from '@/app/api/clips/[id]/route';
import { POST as rest } from '@/app/api/clips/[id]/rest/route';
import { sql } from '../db/sql';
import { addLeased } from '../jobs/queue';
import { workAlone } from '../jobs/run';
import { mediaDir, sweepMedia, usualPath, writingPath } from '../media/files';
import { coloursOf } from '../media/probe';
import { roomUsed } from '../room/used';
import { binShot, eraseShot } from '../shots/store';
import { WRITE } from '../clips/added';
import { USUAL } from '../clips/usual';
import { film, numberOn, packetsIn, picturesIn, RESTLESS, restless } from './clipFilms';
import { begun, ended, look, lookedThrough, recorded, wanted, written } from './clipLib';
import { at, begin, finish, jsonRequest } from './setup';

// Films of fine colours, packed once more in usual ones before they are kept.

beforeAll(begin, 60_000);
afterAll(finish);

const cut = (id: string, revision: number, from: number): Promise<Response> =>
  one.PUT(
    jsonRequest('/x', 'PUT', { revision, cuts: { away: [{ from: 0, to: from }] } }),
    at({ id }),
  );

async function kept({ id }: Clip, fine = false): Promise<string> {
  const job = await wanted(id, { folderId: null, format: 'mp4', fine });
  expect([job.state, job.problem]).toEqual(['done', null]);
  return writingPath(job.id, 'mp4');
}

/** Where its film in usual colours lies, or would. */
async function placeOf({ id }: Clip): Promise<string> {
  const [row] = await sql()<{ id: string }[]>`select id from usual_films where shot_id = ${id}`;
  return usualPath(id, row?.id ?? 'none');
}

const usualFiles = (): string[] =>
  readdirSync(mediaDir()).filter((file) => file.includes('.usual'));

/** The pictures of a file by their numbers, and those that are not the same in another one. */
function besides(path: string, other: string): { all: number[]; others: number[] } {
  const there = picturesIn(other).pictures;
  const { pictures } = picturesIn(path);
  const all = pictures.map((rgb) => numberOn(rgb));
  return { all, others: all.filter((number, i) => !there[number]?.equals(pictures[i] ?? none)) };
}
const none = Buffer.alloc(0);
const numbers = (from: number, to = RESTLESS): number[] =>
  Array.from({ length: to - from }, (_, i) => from + i);

test('once packed so, what is kept of it is taken over from that; cut anywhere, by little anew', async () => {
  const clip = await recorded(restless('fine'));
  const usual = await placeOf(clip);
  expect(existsSync(usual)).toBe(false);
  const before = await kept(clip);
  const room = async () =>
    (await roomUsed()).kinds.find(({ kind }) => kind === 'films')?.bytes ?? 0;
  const films = await room();
  await workAlone(USUAL);
  expect(await room()).toBeGreaterThan(films);
  expect(await coloursOf(usual)).toMatchObject({ format: 'yuv420p' });
  expect(besides(before, usual).others.length).toBeGreaterThan(RESTLESS / 2);
  const whole = await kept(clip);
  expect(besides(whole, usual)).toEqual({ all: numbers(0), others: [] });
  await cut(clip.id, 1, 30);
  expect(besides(await kept(clip), usual)).toEqual({ all: numbers(30), others: [] });
  await cut(clip.id, 2, 25);
  const elsewhere = await kept(clip);
  const { all, others } = besides(elsewhere, usual);
  expect(all).toEqual(numbers(25));
  // Before its next picture that can be begun with.
  expect(others[0]).toBe(25);
  expect(others.every((number) => number < 30)).toBe(true);
  for (const [i, { at }] of packetsIn(elsewhere).entries())
    expect(Math.abs(at - i / 15)).toBeLessThan(0.004);
  // In its own colours it is taken over from itself.
  expect(await coloursOf(await kept(clip, true))).toMatchObject({ format: 'yuv444p' });
}, 60_000);

test('where that is damaged or gone, it is packed anew', async () => {
  const clip = await recorded(restless('fine'));
  await workAlone(USUAL);
  const usual = await placeOf(clip);
  for (const damage of [() => truncateSync(usual, 3_000), () => rmSync(usual)]) {
    damage();
    const { pictures } = picturesIn(await kept(clip));
    expect(pictures.map((rgb) => numberOn(rgb))).toEqual(numbers(0));
  }
}, 60_000);

test('it goes with the film it was made of', async () => {
  const clip = await recorded(restless('fine'));
  await workAlone(USUAL);
  const before = await placeOf(clip);
  await sweepMedia();
  expect(existsSync(before)).toBe(true);
  await cut(clip.id, 1, 30);
  const { told } = await look(clip.id);
  const { revision, marksRevision } = told as Clip;
  const dropped = await rest(jsonRequest('/x', 'POST', { revision, marksRevision }), at(clip));
  expect((await written(clip.id, dropped)).state).toBe('done');
  const left = await lookedThrough(clip.id);
  expect(left.times).toHaveLength(45);
  expect(existsSync(before)).toBe(false);
  await workAlone(USUAL);
  const now = await placeOf(clip);
  const usual = picturesIn(now).pictures;
  const { pictures } = picturesIn(await kept(left));
  expect(pictures.map((rgb, i) => usual[i]?.equals(rgb))).toEqual(pictures.map(() => true));
  await binShot(clip.id);
  await eraseShot(clip.id);
  expect(existsSync(now)).toBe(false);
  expect(await sql()`select 1 from jobs where kind = ${USUAL} and state = 'waiting'`).toHaveLength(
    0,
  );
}, 60_000);

test('nothing of the kind is made of usual colours, nor while something is recorded or kept', async () => {
  const before = usualFiles().length;
  await recorded(film(20));
  await workAlone(USUAL);
  expect(usualFiles()).toHaveLength(before);
  await recorded(film(20, 'fine'));
  const going = randomUUID();
  await begun(going);
  await workAlone(USUAL);
  expect(usualFiles()).toHaveLength(before);
  expect((await ended(going, 0)).status).toBe(404);
  const { id: writing } = await sql().begin((tx) => addLeased(tx, randomUUID(), WRITE));
  await workAlone(USUAL);
  expect(usualFiles()).toHaveLength(before);
  await sql()`delete from jobs where id = ${writing}`;
  await workAlone(USUAL);
  expect(usualFiles()).toHaveLength(before + 1);
}, 60_000);
