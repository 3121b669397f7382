import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import type { Clip } from '@/core/contracts/clip';
import { clipFormats, type ClipFormat } from '@/core/contracts/clipCopy';
import type { ShotDocument } from '@/core/document/document';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import { planarPixels, rgbaOf } from '@/core/raster/planar';
import { writingPath } from '../media/files';
import { coloursOf } from '../media/probe';
import { changeShot } from '../shots/change';
import { picturesIn } from './clipFilms';
import { recorded, wanted } from './clipLib';
import { readFileSync } from 'node:fs';
import { begin, finish, testFolder } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const SIZE = { width: 120, height: 88 };
/** Soft colours of all kinds, in one direction each. */
const SOURCE = `nullsrc=s=${SIZE.width}x${SIZE.height}:r=15:d=1,format=gbrp,geq=r='2*X':g='2*Y':b='200-X'`;

/** A film of them. @param how its colours lie in it, by the program's own names */
function filmed(name: string, how: { format: string; range: string; matrix: string }): string {
  const path = join(testFolder('colours'), `${name}.mkv`);
  execFileSync('ffmpeg', [
    ...['-loglevel', 'error', '-f', 'lavfi', '-i', SOURCE],
    ...['-vf', `scale=out_color_matrix=${how.matrix}:out_range=${how.range},format=${how.format}`],
    ...['-colorspace', how.matrix, '-color_range', how.range, '-color_primaries', 'bt709'],
    ...['-color_trc', 'bt709', '-c:v', 'libx264', '-qp', '0', '-y', path],
  ]);
  return path;
}

const KINDS = [
  { format: 'yuv444p', range: 'tv', matrix: 'bt709' },
  { format: 'yuv420p', range: 'tv', matrix: 'bt709' },
  { format: 'yuvj420p', range: 'pc', matrix: 'bt709' },
  { format: 'yuv444p', range: 'tv', matrix: 'smpte170m' },
  { format: 'yuv420p', range: 'tv', matrix: 'smpte170m' },
] as const;
const nameOf = (how: (typeof KINDS)[number]): string => Object.values(how).join('-');

test.each(KINDS)(
  'red, green and blue are what another program makes of $format $range $matrix',
  (how) => {
    const path = filmed(nameOf(how), how);
    const raw = execFileSync('ffmpeg', [
      ...['-loglevel', 'error', '-i', path, '-frames:v', '1', '-f', 'rawvideo', '-'],
    ]);
    const planes = {
      half: how.format.includes('420'),
      full: how.range === 'pc',
      matrix: how.matrix === 'bt709' ? ('bt709' as const) : ('bt601' as const),
    };
    const mine = rgbaOf(planarPixels(SIZE, planes, new Uint8Array(raw))).data;
    const [theirs] = picturesIn(path, 4).pictures;
    const off = [...mine].map((value, i) => Math.abs(value - (theirs?.[i] ?? 0)));
    expect(Math.max(...off)).toBeLessThanOrEqual(planes.half ? 6 : 3);
  },
);

const box = markSchema.parse({
  ...{ id: 'box', kind: 'box', x: 31, y: 21, width: 41, height: 27 },
  ...{ colour: '#D55E00', outline: 0, fill: '#D55E00', fillOpacity: 1 },
});
const arrow = markSchema.parse({
  ...{ id: 'arrow', kind: 'arrow', from: { x: 90, y: 70 }, to: { x: 112, y: 20 } },
  ...{ bend: null, colour: '#D55E00', thickness: 6, heads: 'end', dashed: false },
});

async function written(clip: Clip, document: ShotDocument, format: ClipFormat): Promise<string> {
  await changeShot(clip.id, { revision: clip.marksRevision, document });
  const { id, problem } = await wanted(clip.id, { folderId: null, format });
  expect(problem).toBeNull();
  return writingPath(id, clipFormats[format].extension);
}

test.each(KINDS.flatMap((how) => [0, 7].map((cut) => ({ ...how, cut }))))(
  'marked, a film of $format $range $matrix, $cut cut off, has the colours it had and those of its marks',
  async ({ cut, ...how }) => {
    const clip = await recorded(readFileSync(filmed(nameOf(how), how)));
    const document = untouched(SIZE);
    const crop = { x: cut, y: cut, width: SIZE.width - cut, height: SIZE.height - cut };
    const path = await written(clip, { ...document, view: { crop }, marks: [box, arrow] }, 'mp4');
    const { range, matrix } = await coloursOf(path);
    expect([range, matrix]).toEqual(['tv', how.matrix]);
    const { width, pictures } = picturesIn(path);
    const [picture] = pictures.slice(-1);
    const seen = (x: number, y: number): number[] => {
      const i = 3 * ((y - cut) * width + x - cut);
      return [...(picture ?? [])].slice(i, i + 3);
    };
    const isNear = (at: readonly number[], colour: readonly number[]) =>
      colour.every((value, i) => Math.abs(value - (at[i] ?? NaN)) <= 8);
    for (const [x, y] of [
      [12, 12],
      [20, 70],
      [60, 80],
      [80, 14],
      [27, 30],
    ] as const)
      expect([x, y, isNear(seen(x, y), [2 * x, 2 * y, 200 - x])]).toEqual([x, y, true]);
    for (const [x, y] of [
      [34, 24],
      [50, 34],
      [69, 45],
      [102, 43],
    ] as const)
      expect([x, y, isNear(seen(x, y), [0xd5, 0x5e, 0])]).toEqual([x, y, true]);
  },
);
