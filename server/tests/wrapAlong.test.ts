import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import { DELETE as letGo } from '@/app/api/clips/[id]/route';
import { isMatroska, MatroskaTimes } from '@/core/clip/matroskaTimes';
import { sql } from '../db/sql';
import { alongPath, digest, partPath } from '../media/files';
import { probe } from '../media/probe';
import { filmOf } from '../clips/rows';
import { film, heardIn, withTones } from './clipFilms';
import { begun, cutUp, ended, lookedThrough, piece } from './clipLib';
import { at, begin, finish, request } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const until = async (test: () => boolean): Promise<void> => {
  while (!test()) await pause(20);
};

/** Records all but the last piece of a film, and waits until it is wrapped along. */
async function going(bytes: Buffer, more: object = {}) {
  const id = randomUUID();
  await begun(id, more);
  const pieces = cutUp(bytes, 5);
  const last = pieces.pop() ?? Buffer.alloc(0);
  for (const [n, part] of pieces.entries()) expect((await piece(id, n, part)).status).toBe(200);
  await until(() => existsSync(alongPath(id)));
  const end = async () => {
    await piece(id, pieces.length, last);
    expect((await ended(id, pieces.length + 1)).status).toBe(200);
    return lookedThrough(id);
  };
  return { id, end };
}

/** The program that writes a file. */
function writerOf(path: string): number {
  const pids = readdirSync('/proc').filter((name) => /^\d+$/.test(name));
  const found = pids.find((pid) => {
    try {
      const args = readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0');
      return args[0] === 'ffmpeg' && args.includes(path);
    } catch {
      return false;
    }
  });
  if (found === undefined) throw new Error(`Nobody writes ${path}.`);
  return Number(found);
}

/** As it stands with the clip, once it was looked through. */
async function sumOf(id: string): Promise<unknown> {
  const [row] = await sql()`select sha256 from clips where shot_id = ${id}`;
  return row?.sha256;
}

describe('what is recorded is wrapped meanwhile', () => {
  test.each(['h264', 'fine', 'lossless', 'vp9'] as const)(
    '%s: the film is the file that was written along, with every picture at its time',
    async (codec) => {
      const bytes = film(75, codec, 500);
      const { id, end } = await going(bytes);
      const along = statSync(alongPath(id)).ino;
      const clip = await end();
      const { path } = await filmOf(id);
      expect(statSync(path).ino).toBe(along);
      expect(clip.times).toHaveLength(75);
      const read = await probe(path);
      expect(read).toMatchObject({ width: clip.width, height: clip.height, codec: clip.codec });
      expect(read.fineColours).toBe(clip.fineColours);
      read.times.forEach((time, i) => expect(clip.times[i]).toBeCloseTo(time, 3));
      expect((await digest(path)).sha256).toBe(await sumOf(id));
      expect([existsSync(alongPath(id)), existsSync(partPath(id))]).toEqual([false, false]);
    },
    60_000,
  );

  test.each([
    ['libopus', 0, 0],
    ['libopus', 0.3, 300],
    ['libopus', -0.2, 0],
    ['libopus', 0, 200],
    ['libmp3lame', 0.1, 100],
  ] as const)(
    'with sound, %s, that begins %p s after the pictures and is %p ms late: each in its time',
    async (codec, later, soundDelay) => {
      const numbers = [15, 30, 60];
      const tones = numbers.map((n) => [n / 15, n / 15 + 0.12] as const);
      const bytes = withTones(film(75, 'h264', 500), { at: tones, lasts: 5, codec, later });
      const { id, end } = await going(bytes, { soundDelay });
      const along = statSync(alongPath(id)).ino;
      const clip = await end();
      const { path } = await filmOf(id);
      expect(statSync(path).ino).toBe(along);
      expect((await digest(path)).sha256).toBe(await sumOf(id));
      expect(clip.times).toEqual((await probe(path)).times);
      const heard = heardIn(path).map(([from]) => from);
      expect(heard).toHaveLength(3);
      numbers.forEach((n, i) => {
        const due = (clip.times[n] ?? NaN) + later - soundDelay / 1000;
        expect(Math.abs((heard[i] ?? NaN) - due)).toBeLessThan(0.03);
      });
    },
    60_000,
  );

  test('of one whose program was ended in the middle, all is wrapped in the end', async () => {
    const { id, end } = await going(film(60, 'fine', 500));
    process.kill(writerOf(alongPath(id)), 'SIGKILL');
    const clip = await end();
    expect(clip.times).toHaveLength(60);
    expect(existsSync(alongPath(id))).toBe(false);
  }, 60_000);

  test('of one that is let go of nothing is left, and nothing goes on', async () => {
    const { id } = await going(film(60, 'h264', 500));
    const writer = writerOf(alongPath(id));
    expect((await letGo(request('/x', { method: 'DELETE' }), at({ id }))).status).toBe(204);
    expect([existsSync(alongPath(id)), existsSync(partPath(id))]).toEqual([false, false]);
    await until(() => !existsSync(`/proc/${writer}`));
    expect(existsSync(alongPath(id))).toBe(false);
  }, 60_000);
});

test.each(['h264', 'vp9', 'lossless'] as const)(
  '%s: the times of its pictures are those that another reader reads',
  async (codec) => {
    const { id, end } = await going(film(90, codec, 700));
    const reader = new MatroskaTimes();
    const part = readFileSync(partPath(id));
    expect(isMatroska(part)).toBe(true);
    reader.read(part);
    const read = await probe(partPath(id));
    const [first = 0] = reader.times;
    reader.times.slice(0, read.times.length).forEach((time, i) => {
      expect(time - first).toBeCloseTo(read.times[i] ?? NaN, 6);
    });
    await end();
  },
  60_000,
);
