import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import sharp from 'sharp';
import type { Clip } from '@/core/contracts/clip';
import { GET as frames } from '@/app/api/clips/[id]/frames/route';
import * as one from '@/app/api/clips/[id]/route';
import { forgetHeard } from '../clips/silence';
import { sql } from '../db/sql';
import { workAlone } from '../jobs/run';
import { partPath, writingPath } from '../media/files';
import { probe } from '../media/probe';
import { film, heardIn, HEIGHT, numberOn, picturesIn, WIDTH, withTones } from './clipFilms';
import { begun, codeOf, cutUp, ended, look, piece, recorded, wanted } from './clipLib';
import { at, begin, finish, request } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const provenance = {
  source: 'opened',
  takenAt: '2026-11-27T09:12:00.000Z',
  fileName: 'Frost alarm.mp4',
} as const;
const COUNT = 30;

const opened = (bytes: Buffer): Promise<Clip> =>
  recorded(bytes, { type: 'video/mp4', title: 'Frost alarm', provenance });
const isLeft = async (id: string): Promise<boolean> =>
  existsSync(partPath(id)) ||
  (await sql()`select 1 from recordings where shot_id = ${id}`).length > 0;
const letGoOf = (id: string): Promise<Response> =>
  one.DELETE(request('/x', { method: 'DELETE' }), at({ id }));

test('a film from a file becomes a clip, of which nobody says when it was recorded', async () => {
  const clip = await opened(film(COUNT, 'uneven'));
  expect(clip).toMatchObject({ title: 'Frost alarm', width: WIDTH, height: HEIGHT });
  expect(clip.times).toHaveLength(COUNT);
  expect(clip.provenance).toEqual({ ...provenance, frames: COUNT });
  expect(clip.titleOwn).toBe(true);
});

/** A film that says that it is turned a quarter to the right (ISO/IEC 14496-12, §8.3.2). */
function turned(bytes: Buffer): Buffer {
  const film = Buffer.from(bytes);
  // After what tells the track: its matrix.
  const matrix = film.indexOf('tkhd') + 44;
  [0, 0x1_00_00, 0, -0x1_00_00, 0, 0, HEIGHT << 16, 0, 0x40_00_00_00].forEach((value, i) =>
    film.writeInt32BE(value, matrix + 4 * i),
  );
  return film;
}

test('one that was held upright is seen, kept and sent upright', async () => {
  const clip = await opened(turned(film(COUNT, 'uneven')));
  expect(clip).toMatchObject({ width: HEIGHT, height: WIDTH });
  const frame = await frames(request(`/x?at=${clip.times[19]}`), at({ id: clip.id }));
  const back = sharp(Buffer.from(await frame.arrayBuffer())).rotate(-90);
  const { data, info } = await back.removeAlpha().raw().toBuffer({ resolveWithObject: true });
  expect(info).toMatchObject({ width: WIDTH, height: HEIGHT });
  expect(numberOn(data)).toBe(19);
  const job = await wanted(clip.id, { folderId: null, format: 'mp4' });
  const path = writingPath(job.id, 'mp4');
  expect(await probe(path)).toMatchObject({ width: HEIGHT, height: WIDTH });
  // Upright by itself, for players that turn nothing.
  expect(picturesIn(path)).toMatchObject({ width: HEIGHT, height: WIDTH });
}, 60_000);

test('of a file that did not come whole nothing is left', async () => {
  const id = randomUUID();
  await begun(id, { type: 'video/x-matroska', provenance });
  const [first] = cutUp(film(60), 2);
  await piece(id, 0, first ?? Buffer.alloc(0));
  forgetHeard(id);
  await sql()`update jobs set due_at = now() where kind = 'clip'`;
  await workAlone('clip');
  expect((await look(id)).status).toBe(404);
  expect(await isLeft(id)).toBe(false);
});

test('what is no film is told as that, and let go of', async () => {
  const id = randomUUID();
  await begun(id, { type: 'video/mp4', provenance });
  await piece(id, 0, Buffer.from('no film '.repeat(100)));
  await ended(id, 1);
  expect((await look(id)).told).toMatchObject({
    problem: expect.stringContaining('VP8, VP9, AV1 or H.264'),
  });
  expect((await letGoOf(id)).status).toBe(204);
  expect(await isLeft(id)).toBe(false);
  expect(await codeOf(await letGoOf(id))).toEqual([404, 'not-found']);
});

test('where nobody lets go of it, it is tried once more and gone', async () => {
  const id = randomUUID();
  await begun(id, { type: 'video/mp4', provenance });
  await piece(id, 0, Buffer.from('no film '.repeat(100)));
  await ended(id, 1);
  expect(await isLeft(id)).toBe(true);
  await sql()`update jobs set due_at = now() where kind = 'clip'`;
  await workAlone('clip');
  expect(await isLeft(id)).toBe(false);
});

test.each(['libmp3lame', 'pcm_s16le', 'libvorbis'] as const)(
  'sound as %s is heard',
  async (codec) => {
    const clip = await recorded(withTones(film(COUNT), { at: [[0.5, 1]], lasts: 2, codec }), {
      provenance,
    });
    expect(clip.sound).toBe(true);
    const { id: job } = await wanted(clip.id, { folderId: null, format: 'mp4' });
    const [heard = [NaN]] = heardIn(writingPath(job, 'mp4'));
    expect(Math.abs((heard[0] ?? NaN) - 0.5)).toBeLessThan(0.045);
  },
);

test('let go of while it comes it is gone, and a clip is not deleted so', async () => {
  const id = randomUUID();
  await begun(id, { provenance });
  await piece(id, 0, film(20));
  expect((await letGoOf(id)).status).toBe(204);
  expect(await isLeft(id)).toBe(false);
  expect((await piece(id, 1, film(5))).status).toBe(404);
  const clip = await opened(film(COUNT, 'uneven'));
  expect(await codeOf(await letGoOf(clip.id))).toEqual([409, 'is-clip']);
  expect((await look(clip.id)).told).toMatchObject({ state: 'ready' });
});
