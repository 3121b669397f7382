import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { clipSchema, type Clip } from '@/core/contracts/clip';
import type { ClipJob } from '@/core/contracts/clipCopy';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import * as one from '@/app/api/clips/[id]/route';
import { POST as rest } from '@/app/api/clips/[id]/rest/route';
import { GET as file } from '@/app/api/clips/[id]/copies/[job]/file/route';
import { POST as links } from '@/app/api/clips/[id]/links/route';
import { sql } from '../db/sql';
import { filmPath, mediaDir } from '../media/files';
import { changeShot, getSteps } from '../shots/change';
import { film, HEIGHT, numberOn, picturesIn, soundIn, WIDTH, withTones } from './clipFilms';
import { codeOf, look, lookedThrough, recorded, wanted, written } from './clipLib';
import { at, begin, finish, jsonRequest, request } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const COUNT = 30;
const AWAY = { from: 0, to: 5 };
const HIDDEN = { from: 12, to: 20 };

/** A clip with a tone, of which something is cut away and something hidden. */
async function clipWithMore(): Promise<Clip> {
  const sounding = withTones(film(COUNT, 'lossless'), { at: [[0, 2]], lasts: 2 });
  const { id, marksRevision } = await recorded(sounding);
  const hide = markSchema.parse({
    ...{ id: 'hide', kind: 'paintOut', x: 0, y: 0, width: WIDTH, height: 48, time: HIDDEN },
    ...{ paintOut: 'across', colour: '#D55E00' },
  });
  const document = {
    ...untouched({ width: WIDTH, height: HEIGHT }),
    marks: [hide],
    description: 'Two beds',
  };
  await changeShot(id, { revision: marksRevision, document });
  const change = { revision: 1, cuts: { away: [AWAY] } };
  await one.PUT(jsonRequest('/x', 'PUT', change), at({ id }));
  return clipSchema.parse((await look(id)).told);
}

async function dropped({ id, revision, marksRevision }: Clip): Promise<ClipJob> {
  const answer = await rest(jsonRequest('/x', 'POST', { revision, marksRevision }), at({ id }));
  expect(answer.status).toBe(202);
  return written(id, answer);
}

const filesOf = (id: string): string[] =>
  readdirSync(mediaDir()).filter((name) => name.includes(id));

test('what is cut away and hidden is gone for good: film, sound, steps, links, what else was written', async () => {
  const clip = await clipWithMore();
  const { id } = clip;
  const before = readFileSync(join(mediaDir(), `${id}.mp4`).replace('.mp4', extensionOf(id)));
  const made = await wanted(id, { folderId: null, format: 'mp4' });
  expect((await links(jsonRequest('/x', 'POST', { job: made.id }), at({ id }))).status).toBe(201);
  const [frame] = await sql()<{ frameId: string }[]>`select frame_id from shots where id = ${id}`;
  const job = await dropped(clip);
  expect([job.state, job.problem, job.drops]).toEqual(['done', null, true]);
  const now = await lookedThrough(id);
  expect(now).toMatchObject({ title: clip.title, cuts: { away: [] }, step: 0, steps: 0 });
  const whole = untouched({ width: WIDTH, height: HEIGHT });
  expect(now.document).toEqual({ ...whole, description: 'Two beds' });
  expect(now).toMatchObject({ codec: 'h264', fineColours: true, sound: true });
  expect(await getSteps(id)).toEqual({ steps: [], position: 0 });
  // The film and its small pictures, and nothing of before under any name.
  const files = filesOf(id);
  expect(files).toHaveLength(2);
  for (const name of readdirSync(mediaDir()))
    expect(readFileSync(join(mediaDir(), name)).includes(before.subarray(-500))).toBe(false);
  expect(readdirSync(mediaDir()).filter((name) => /made|link/.test(name))).toEqual([]);
  expect(await sql()`select 1 from links where shot_id = ${id} and not ended`).toHaveLength(0);
  expect(await sql()`select 1 from frames where id = ${frame?.frameId ?? null}`).toHaveLength(0);
  const path = join(mediaDir(), files.find((name) => name.endsWith('.mp4')) ?? '');
  const { pictures } = picturesIn(path);
  const numbers = pictures.map((rgb) => numberOn(rgb));
  const kept = Array.from({ length: COUNT - AWAY.to }, (_, i) => i + AWAY.to);
  const isHidden = (n: number) => n >= HIDDEN.from && n < HIDDEN.to;
  expect(numbers).toHaveLength(kept.length);
  kept.forEach((n, i) => isHidden(n) || expect(numbers[i]).toBe(n));
  const covered = new Set(numbers.filter((_, i) => isHidden(kept[i] ?? 0)));
  expect(covered.size).toBe(1);
  // Silent from a little before it is hidden.
  const sound = soundIn(path);
  const rate = sound.length / ((COUNT - AWAY.to) / 15);
  const middle = sound.slice(Math.round(0.6 * rate), Math.round(0.9 * rate));
  expect(middle.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)).toBeLessThan(1e-4);
  // Nothing leads back.
  const back = jsonRequest('/x', 'PUT', { revision: now.revision, step: 1 });
  expect(await codeOf(await one.PUT(back, at({ id })))).toEqual([404, 'not-found']);
  const fetched = await file(request('/x'), at({ id, job: job.id }));
  expect(await codeOf(fetched)).toEqual([404, 'not-found']);
}, 120_000);

test('what lies under nothing stays as it was recorded when the rest is dropped', async () => {
  const clip = await recorded(film(75, 'fine'));
  const { pictures } = picturesIn(filmPath(`${clip.id}.mp4`));
  const away = [
    { from: 0, to: 30 },
    { from: 70, to: 75 },
  ];
  await one.PUT(jsonRequest('/x', 'PUT', { revision: 1, cuts: { away } }), at({ id: clip.id }));
  const job = await dropped(clipSchema.parse((await look(clip.id)).told));
  expect([job.state, job.problem]).toEqual(['done', null]);
  const [name = ''] = filesOf(clip.id).filter((file) => file.endsWith('.mp4'));
  const left = picturesIn(filmPath(name)).pictures;
  expect(left).toHaveLength(40);
  left.forEach((rgb, i) => expect(rgb.equals(pictures[30 + i] ?? Buffer.alloc(0))).toBe(true));
}, 60_000);

const extensionOf = (id: string): string =>
  filesOf(id)
    .find((name) => /\.(?:mp4|mkv|webm)$/.test(name))
    ?.slice(id.length) ?? '';

test('changed meanwhile, nothing is dropped, and it is said', async () => {
  const clip = await clipWithMore();
  const { id } = clip;
  const change = { revision: clip.revision, cuts: { away: [] } };
  await one.PUT(jsonRequest('/x', 'PUT', change), at({ id }));
  const files = filesOf(id);
  const { state, problem } = await dropped(clip);
  expect([state, problem]).toEqual(['stopped', expect.stringContaining('changed meanwhile')]);
  expect(filesOf(id).sort()).toEqual(files.sort());
  expect(clipSchema.parse((await look(id)).told)).toMatchObject({ steps: 2, step: 2 });
  const gone = await rest(
    jsonRequest('/x', 'POST', { revision: 1, marksRevision: 1 }),
    at({ id: randomUUID() }),
  );
  expect(await codeOf(gone)).toEqual([404, 'not-found']);
}, 120_000);
