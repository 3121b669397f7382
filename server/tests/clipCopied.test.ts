import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Clip } from '@/core/contracts/clip';
import { clipFormats, type ClipFormat, type ClipWish } from '@/core/contracts/clipCopy';
import type { Cuts } from '@/core/clip/cuts';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import * as one from '@/app/api/clips/[id]/route';
import { filmOf } from '../clips/rows';
import { writingPath } from '../media/files';
import { coloursOf } from '../media/probe';
import { changeShot } from '../shots/change';
import {
  HEIGHT,
  heardIn,
  numberOn,
  packetsIn,
  picturesIn,
  RESTLESS as COUNT,
  restless,
  WIDTH,
  withTones,
} from './clipFilms';
import { recorded, wanted } from './clipLib';
import { at, begin, finish, jsonRequest } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const cut = (id: string, revision: number, cuts: Cuts): Promise<Response> =>
  one.PUT(jsonRequest('/x', 'PUT', { revision, cuts }), at({ id }));

async function made(
  { id }: Clip,
  format: ClipFormat,
  more: Partial<ClipWish> = {},
): Promise<string> {
  const job = await wanted(id, { folderId: null, format, ...more });
  expect([job.state, job.problem]).toEqual(['done', null]);
  return writingPath(job.id, clipFormats[format].extension);
}

/** Whether its pictures are those of the recording, bit for bit: nothing was packed anew. */
async function isTakenOver({ id }: Clip, path: string, from: number, to: number): Promise<boolean> {
  const all = picturesIn((await filmOf(id)).path).pictures.slice(from, to);
  const { pictures } = picturesIn(path);
  expect(pictures.map((rgb) => numberOn(rgb))).toEqual(
    Array.from({ length: to - from }, (_, i) => from + i),
  );
  return pictures.every((rgb, i) => rgb.equals(all[i] ?? Buffer.alloc(0)));
}

test.each([
  ['h264', 'mp4', 'webm'],
  ['vp9', 'webm', 'mp4'],
  ['av1', 'av1', 'mp4'],
] as const)(
  'what is kept of %s from a key picture on is taken over as %s',
  async (codec, format, other) => {
    const clip = await recorded(restless(codec), { title: 'Frost alarm' });
    expect(await isTakenOver(clip, await made(clip, format), 0, COUNT)).toBe(true);
    expect(await isTakenOver(clip, await made(clip, other), 0, COUNT)).toBe(false);
    await cut(clip.id, 1, {
      away: [
        { from: 0, to: 30 },
        { from: 70, to: COUNT },
      ],
    });
    const path = await made(clip, format);
    expect(await isTakenOver(clip, path, 30, 70)).toBe(true);
    // Its times are its own, from its first picture on.
    const [{ at: first = NaN } = {}, { at: second = NaN } = {}] = packetsIn(path);
    expect(first).toBeLessThan(0.002);
    expect(second - first).toBeCloseTo(1 / 15, 2);
    // Smaller, or with fewer pictures a second, it is packed anew, as exact.
    await cut(clip.id, 2, { away: [] });
    expect(picturesIn(await made(clip, format, { percent: 50 })).width).toBe(WIDTH / 2);
    expect(picturesIn(await made(clip, format, { rate: 5 })).pictures).toHaveLength(25);
  },
  60_000,
);

/** The pictures that are kept of it, one after the other, and which of them are not as recorded. */
async function packedAnew({ id }: Clip, path: string): Promise<{ all: number[]; anew: number[] }> {
  const film = picturesIn((await filmOf(id)).path).pictures;
  const { pictures } = picturesIn(path);
  const all = pictures.map((rgb) => numberOn(rgb));
  return { all, anew: all.filter((number, i) => !pictures[i]?.equals(film[number] ?? rgb0)) };
}
const rgb0 = Buffer.alloc(0);
const numbers = (from: number, to: number): number[] =>
  Array.from({ length: to - from }, (_, i) => from + i);

test.each([
  ['h264', 'mp4', false],
  ['high', 'mp4', false],
  ['fine', 'mp4', true],
  ['vp9', 'webm', false],
] as const)(
  'of %s cut anywhere, only what comes before a key picture is packed anew',
  async (codec, format, fine) => {
    const clip = await recorded(restless(codec), { title: 'Frost alarm' });
    const away = [
      { from: 0, to: 25 },
      { from: 40, to: 45 },
      { from: 72, to: COUNT },
    ];
    await cut(clip.id, 1, { away });
    const path = await made(clip, format, { fine });
    // What made it is said beside its pictures by whatever packs H.264 here.
    const says = (file: string): boolean => readFileSync(file).includes('x264 - core');
    expect(says((await filmOf(clip.id)).path)).toBe(format === 'mp4');
    expect(says(path)).toBe(false);
    const { all, anew } = await packedAnew(clip, path);
    expect(all).toEqual([...numbers(25, 40), ...numbers(45, 72)]);
    expect(anew).toEqual([...numbers(25, 30), ...numbers(45, 60)]);
    const packets = packetsIn(path);
    expect(packets).toHaveLength(42);
    for (const [i, { at }] of packets.entries()) expect(Math.abs(at - i / 15)).toBeLessThan(0.004);
    // A player that goes to a place begins where it can.
    expect(packets.flatMap(({ isKey }, i) => (isKey ? [i] : []))).toEqual([0, 5, 15, 30]);
  },
  60_000,
);

const coloursIn = async (path: string): Promise<string> => (await coloursOf(path)).format;

test('colours as fine as they were recorded are kept where they are asked for, and only there', async () => {
  const clip = await recorded(restless('fine'));
  expect(clip.fineColours).toBe(true);
  const usual = await made(clip, 'mp4');
  expect(await coloursIn(usual)).toBe('yuv420p');
  expect(await isTakenOver(clip, usual, 0, COUNT)).toBe(false);
  expect(await isTakenOver(clip, await made(clip, 'mp4', { fine: true }), 0, COUNT)).toBe(true);
  for (const format of ['webm', 'av1'] as const)
    expect(await coloursIn(await made(clip, format, { fine: true }))).toBe('yuv444p');
  // Fewer bits than are recorded, and still fine.
  const small = await made(clip, 'mp4', { fine: true, most: 0.2 });
  expect(await coloursIn(small)).toBe('yuv444p');
  expect(statSync(small).size).toBeLessThan(200_000);
  // One that has none gets them, by packing it anew.
  const coarse = await recorded(restless('h264'));
  const finer = await made(coarse, 'mp4', { fine: true });
  expect(await coloursIn(finer)).toBe('yuv444p');
  expect(await isTakenOver(coarse, finer, 0, COUNT)).toBe(false);
}, 60_000);

test('its sound goes with it, in the same time', async () => {
  const at = [
    [1, 1.1],
    [3, 3.1],
  ] as const;
  const clip = await recorded(withTones(restless('h264'), { at, lasts: 5 }));
  await cut(clip.id, 1, { away: [{ from: 0, to: 30 }] });
  const path = await made(clip, 'mp4');
  expect(await isTakenOver(clip, path, 30, COUNT)).toBe(true);
  const heard = heardIn(path);
  expect(heard).toHaveLength(1);
  // As with every other sound: what people do not notice (ITU-R BT.1359).
  expect(Math.abs((heard[0]?.[0] ?? NaN) - 1)).toBeLessThan(0.045);
});

test('cut anywhere and slower for a while, it is heard where it is seen', async () => {
  const at = [
    [1, 1.1],
    [4, 4.1],
  ] as const;
  const clip = await recorded(withTones(restless('high'), { at, lasts: 5 }));
  const speeds = [{ from: 30, to: 45, speed: 0.5 as const }];
  await cut(clip.id, 1, { away: [{ from: 0, to: 7 }], speeds });
  const path = await made(clip, 'mp4');
  const { all, anew } = await packedAnew(clip, path);
  expect(all).toEqual(numbers(7, COUNT));
  // From 45 on it is as fast as before, and no key picture: another stretch.
  expect(anew).toEqual([...numbers(7, 30), ...numbers(45, 60)]);
  const packets = packetsIn(path);
  const lasts = (n: number): number => (packets[n + 1]?.at ?? NaN) - (packets[n]?.at ?? NaN);
  expect([lasts(5), lasts(25), lasts(60)].map((one) => Math.round(one * 15))).toEqual([1, 2, 1]);
  const heard = heardIn(path).map(([from]) => from);
  // What was at 4 s comes 7 pictures sooner, and 15 pictures later.
  const expected = [1 - 7 / 15, 4 + 8 / 15];
  expect(heard).toHaveLength(2);
  heard.forEach((one, i) => expect(Math.abs(one - (expected[i] ?? NaN))).toBeLessThan(0.045));
});

test('where the program cannot pack it like the rest, all is packed anew', async () => {
  const clip = await recorded(restless('h264'));
  await cut(clip.id, 1, { away: [{ from: 0, to: 25 }] });
  const folder = mkdtempSync(join(tmpdir(), 'rezzik-path-'));
  const real = execFileSync('sh', ['-c', 'command -v ffmpeg']).toString().trim();
  const refuses = `#!/bin/sh\ncase "$*" in *sps-id*) exit 1;; esac\nexec ${real} "$@"\n`;
  writeFileSync(join(folder, 'ffmpeg'), refuses, { mode: 0o755 });
  const before = process.env.PATH;
  process.env.PATH = `${folder}:${before}`;
  try {
    const { all, anew } = await packedAnew(clip, await made(clip, 'mp4'));
    expect(all).toEqual(numbers(25, COUNT));
    expect(anew).toEqual(all);
  } finally {
    process.env.PATH = before;
    rmSync(folder, { recursive: true });
  }
});

test('a mark on one of its pictures, and it is painted and packed anew', async () => {
  const clip = await recorded(restless('h264'));
  const area = { x: 0, y: 50, width: 40, height: 40 };
  const hide = { id: 'hide', kind: 'blocks', time: { from: 70, to: 71 }, ...area };
  const marks = [markSchema.parse(hide)];
  const document = { ...untouched({ width: WIDTH, height: HEIGHT }), marks };
  await changeShot(clip.id, { revision: clip.marksRevision, document });
  expect(await isTakenOver(clip, await made(clip, 'mp4'), 0, COUNT)).toBe(false);
});
