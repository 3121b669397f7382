import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import type { Clip } from '@/core/contracts/clip';
import {
  clipFormats,
  clipJobSchema,
  type ClipFormat,
  type SoundRule,
} from '@/core/contracts/clipCopy';
import type { Cuts } from '@/core/clip/cuts';
import { keptPictures } from '@/core/clip/played';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import * as one from '@/app/api/clips/[id]/route';
import { POST as copies } from '@/app/api/clips/[id]/copies/route';
import * as writing from '@/app/api/clips/[id]/copies/[job]/route';
import { filmOf } from '../clips/rows';
import { workAlone } from '../jobs/run';
import { writingPath } from '../media/files';
import { changeShot } from '../shots/change';
import { film, HEIGHT, heardIn, shownIn, soundIn, WIDTH, withTones, type Tones } from './clipFilms';
import { recorded, wanted } from './clipLib';
import { at, begin, finish, jsonRequest, request } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const RATE = 15;
/** A tone with some pictures of a film: from this one on, for so long. */
const TONES = [15, 30, 45, 60];
const LASTS = 0.12;
const tones = TONES.map((n) => [n / RATE, n / RATE + LASTS] as const);
const COUNT = 75;
const beeping = (later = 0): Promise<Clip> =>
  recorded(withTones(film(COUNT), { at: tones, lasts: COUNT / RATE, later }));

interface Made {
  path: string;
  codecs: string;
}

async function made(
  { id }: Pick<Clip, 'id'>,
  format: ClipFormat,
  more: { sound?: SoundRule; most?: number; rate?: number } = {},
): Promise<Made> {
  const { id: job, state, problem } = await wanted(id, { folderId: null, format, ...more });
  expect([state, problem]).toEqual(['done', null]);
  const path = writingPath(job, clipFormats[format].extension);
  const asked = ['-loglevel', 'error', '-show_entries', 'stream=codec_name', '-of', 'csv=p=0'];
  const codecs = execFileSync('ffprobe', [...asked, path])
    .toString()
    .trim()
    .split('\n')
    .join(' ');
  return { path, codecs };
}

async function isDone(id: string, job: string): Promise<void> {
  for (;;) {
    const answer = await writing.GET(request('/x'), at({ id, job }));
    if (clipJobSchema.parse(await answer.json()).state === 'done') return;
    await pause(20);
  }
}

const cut = (id: string, revision: number, cuts: Cuts): Promise<Response> =>
  one.PUT(jsonRequest('/x', 'PUT', { revision, cuts }), at({ id }));

/** Each tone begins with its picture, and is over in time. */
function expectTones(
  path: string,
  begins: readonly number[],
  lasts: readonly number[],
  /** How fast each is played: slower, a moment takes longer. */
  speeds: readonly number[] = [],
): void {
  const heard = heardIn(path);
  expect(heard).toHaveLength(begins.length);
  heard.forEach(([from, to], i) => {
    // What people do not notice: 45 ms for sound that is too early (ITU-R BT.1359).
    const unnoticed = 0.045 / Math.min(1, speeds[i] ?? 1);
    expect(Math.abs(from - (begins[i] ?? NaN))).toBeLessThan(unnoticed);
    expect(Math.abs(to - from - (lasts[i] ?? NaN))).toBeLessThan(unnoticed);
  });
}

describe('sound', () => {
  test('it is recorded with its pictures, and is in films alone, as far as it is wanted', async () => {
    const clip = await beeping();
    expect(clip).toMatchObject({ sound: true, codec: 'h264' });
    expect(await recorded(film(10))).toMatchObject({ sound: false });
    const { path } = await filmOf(clip.id);
    expectTones(
      path,
      TONES.map((n) => n / RATE),
      TONES.map(() => LASTS),
    );
    for (const [format, codecs] of [
      ['webm', 'vp9 opus'],
      ['av1', 'av1 opus'],
      ['mp4', 'h264 aac'],
    ] as const) {
      const file = await made(clip, format);
      expect(file.codecs).toBe(codecs);
      expectTones(
        file.path,
        TONES.map((n) => n / RATE),
        TONES.map(() => LASTS),
      );
      expect(shownIn(file.path).numbers).toHaveLength(COUNT);
    }
    expect((await made(clip, 'mp4', { sound: 'none' })).codecs).toBe('h264');
    expect((await made(clip, 'webp')).codecs).toBe('webp');
    // Fewer pictures a second, and so small that the sound is coarser, too.
    const small = await made(clip, 'webm', { rate: 5, most: 0.03 });
    expectTones(
      small.path,
      TONES.map((n) => n / RATE),
      TONES.map(() => LASTS),
    );
  }, 120_000);

  test('pictures of one browser and sound of another: what a wrapping does not take is packed anew', async () => {
    const bytes = withTones(film(COUNT, 'vp9'), { at: tones, lasts: 5, codec: 'aac' });
    const clip = await recorded(bytes);
    expect(clip).toMatchObject({ sound: true, type: 'video/webm' });
    expectTones(
      (await filmOf(clip.id)).path,
      TONES.map((n) => n / RATE),
      TONES.map(() => LASTS),
    );
  });

  test.each([0.4, -0.25])('sound that begins %p s later stays with its pictures', async (later) => {
    const clip = await beeping(later);
    // The tones are moved, the pictures are not.
    const start = Math.max(0, -later);
    const { path } = await made(clip, 'mp4');
    const begins = TONES.map((n) => n / RATE + later + start - (clip.times[0] ?? 0));
    expectTones(
      path,
      begins,
      TONES.map(() => LASTS),
    );
  });

  test('what its recorder says that comes too late is put in its time', async () => {
    const late = withTones(film(COUNT), { at: tones, lasts: COUNT / RATE, later: 0.3 });
    const clip = await recorded(late, { soundDelay: 300 });
    const begins = TONES.map((n) => clip.times[n] ?? NaN);
    expectTones(
      (await made(clip, 'mp4')).path,
      begins,
      TONES.map(() => LASTS),
    );
  });

  test('it is cut, and played faster and slower, with its pictures', async () => {
    const clip = await beeping();
    const cuts: Cuts = {
      away: [
        { from: 3, to: 10 },
        { from: 28, to: 40 },
      ],
      speeds: [
        { from: 12, to: 20, speed: 0.25 },
        { from: 55, to: 70, speed: 2 },
      ],
    };
    expect((await cut(clip.id, 1, cuts)).status).toBe(200);
    const kept = keptPictures(cuts, clip.times);
    const begin = (n: number, speed: number): number => {
      const { picture = 0, at: seen = NaN } = kept.findLast((one) => one.picture <= n) ?? {};
      return seen / 1000 + ((clip.times[n] ?? NaN) - (clip.times[picture] ?? NaN)) / speed;
    };
    const begins = [begin(15, 0.25), begin(45, 1), begin(60, 2)];
    for (const format of ['webm', 'mp4'] as const) {
      const { path } = await made(clip, format);
      expectTones(path, begins, [LASTS / 0.25, LASTS, LASTS / 2], [0.25, 1, 2]);
    }
  }, 120_000);

  test.each([false, true])(
    'where it has ended, and in a stretch of one picture, it lasts as long all the same; painted: %p',
    async (isPainted) => {
      const at = [tones[0] ?? [0, 0], tones[1] ?? [0, 0]] as const;
      const clip = await recorded(withTones(film(COUNT), { at, lasts: 2.5 }));
      const box = markSchema.parse({
        ...{ id: 'box', kind: 'box', x: 40, y: 56, width: 60, height: 30 },
        ...{ colour: '#D55E00', outline: 4, time: { from: 0, to: 9 } },
      });
      const document = { ...untouched({ width: WIDTH, height: HEIGHT }), marks: [box] };
      if (isPainted) await changeShot(clip.id, { revision: clip.marksRevision, document });
      const cuts: Cuts = {
        away: [
          { from: 20, to: 25 },
          { from: 26, to: 28 },
          { from: 45, to: 60 },
        ],
        speeds: [{ from: 25, to: 26, speed: 8 }],
      };
      await cut(clip.id, 1, cuts);
      const { path } = await made(clip, 'mp4');
      const [picture = NaN] = keptPictures(cuts, clip.times).flatMap((one) =>
        one.picture === 30 ? one.at / 1000 : [],
      );
      expectTones(path, [1, picture], [LASTS, LASTS]);
      const asked = ['-loglevel', 'error', '-show_entries', 'stream=duration', '-of', 'csv=p=0'];
      const [seen = NaN, listened = NaN] = execFileSync('ffprobe', [...asked, path])
        .toString()
        .split('\n')
        .map(parseFloat);
      expect(Math.abs(seen - listened)).toBeLessThan(0.1);
    },
    120_000,
  );

  test('nothing of what is heard under a Hide mark leaves, unless a person wants it', async () => {
    const time = { from: 20, to: 40 };
    const hidden = [time.from / RATE, time.to / RATE] as const;
    const area = { x: 40, y: 56, width: 60, height: 30 };
    const hide = markSchema.parse({ id: 'hide', kind: 'blocks', time, ...area });
    const document = { ...untouched({ width: WIDTH, height: HEIGHT }), marks: [hide] };
    const hiding = async (at: Tones['at']): Promise<Clip> => {
      const clip = await recorded(withTones(film(COUNT), { at, lasts: 5 }));
      await changeShot(clip.id, { revision: clip.marksRevision, document });
      return clip;
    };
    const loudest = (path: string): number =>
      soundIn(path).reduce((most, sample) => Math.max(most, Math.abs(sample)), 0);
    const [only, all] = [await hiding([hidden]), await hiding([[0, 5]])];
    for (const format of ['webm', 'mp4'] as const) {
      // A step of sound of 16 bits is 3e-5.
      expect(loudest((await made(only, format)).path)).toBeLessThan(1e-4);
      const heard = heardIn((await made(all, format)).path);
      expect(heard).toHaveLength(2);
      expect(heard[0]?.[1]).toBeLessThan(hidden[0]);
      expect(heard[0]?.[1]).toBeGreaterThan(hidden[0] - 0.1);
      expect(heard[1]?.[0]).toBeGreaterThan(hidden[1]);
      expect(heard[1]?.[0]).toBeLessThan(hidden[1] + 0.25);
    }
    expectTones((await made(only, 'mp4', { sound: 'all' })).path, [hidden[0]], [20 / RATE]);
    // Without that time what is heard is one again.
    await cut(all.id, 1, { away: [{ from: 19, to: 44 }] });
    expect(heardIn((await made(all, 'mp4')).path)).toHaveLength(1);
  }, 120_000);
});

test('what is hidden while a file is written is hidden in the file', async () => {
  const count = 900;
  const clip = await recorded(film(count));
  const ask = jsonRequest('/x', 'POST', { folderId: null, format: 'av1' });
  const { id: job } = clipJobSchema.parse(await (await copies(ask, at({ id: clip.id }))).json());
  const path = writingPath(job, 'webm');
  const work = workAlone('clipWrite');
  while (!existsSync(path)) await pause(5);
  const area = { x: 0, y: 0, width: WIDTH, height: 48 };
  const hide = markSchema.parse({
    ...{ id: 'hide', kind: 'paintOut', ...area, paintOut: 'across', colour: '#D55E00' },
  });
  const document = { ...untouched({ width: WIDTH, height: HEIGHT }), marks: [hide] };
  await changeShot(clip.id, { revision: clip.marksRevision, document });
  await work;
  await isDone(clip.id, job);
  const { numbers } = shownIn(path);
  expect(numbers).toHaveLength(count);
  // Nothing but its colour is left of the squares that tell them apart.
  expect(new Set(numbers).size).toBe(1);
}, 120_000);
