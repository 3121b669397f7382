import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { rmSync, writeFileSync } from 'node:fs';
import fc from 'fast-check';
import sharp from 'sharp';
import type { Clip } from '@/core/contracts/clip';
import { clipFormats, type ClipFormat } from '@/core/contracts/clipCopy';
import { UNCUT } from '@/core/clip/cuts';
import { keptPictures } from '@/core/clip/played';
import { storedSchema } from '@/core/contracts/shot';
import type { ShotDocument } from '@/core/document/document';
import { untouched } from '@/core/document/view';
import type { Rect } from '@/core/geometry/rect';
import { markSchema, type MarkInput } from '@/core/marks/registry';
import { randomFrom } from '@/core/random/random';
import * as one from '@/app/api/clips/[id]/route';
import { GET as frames } from '@/app/api/clips/[id]/frames/route';
import { GET as strip } from '@/app/api/clips/[id]/strip/route';
import { POST as stills } from '@/app/api/clips/[id]/stills/route';
import { paintedFilm } from '../clips/painted';
import { planesFor } from '../clips/planes';
import { stripPath, writingPath } from '../media/files';
import { changeShot } from '../shots/change';
import { getPaintable, getShot } from '../shots/rows';
import { renameShot } from '../shots/store';
import { film, HEIGHT, numberOn, picturesIn, WIDTH } from './clipFilms';
import { look, recorded, wanted } from './clipLib';
import { at, begin, finish, jsonRequest, request, testFolder } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const COUNT = 20;
const SIZE = { width: WIDTH, height: HEIGHT };
/** Below the squares that tell the number. */
const AREA = { x: 40, y: 56, width: 60, height: 30 };

type Inside = (number: number) => () => number;

/** Something else in the area on every picture. */
const filmWith = (
  inside: Inside,
  codec: 'lossless' | 'halved' = 'lossless',
  area: Rect = AREA,
): Buffer =>
  film(COUNT, codec, 5_000, (picture, number) => {
    const next = inside(number);
    for (let y = area.y; y < area.y + area.height; y += 1)
      for (let x = area.x; x < area.x + area.width; x += 1)
        for (let c = 0; c < 3; c += 1) picture[3 * (y * WIDTH + x) + c] = Math.floor(next() * 256);
  });

const digest = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');
const mark = (input: MarkInput) => markSchema.parse(input);

async function marked(
  clip: Pick<Clip, 'id' | 'marksRevision'>,
  change: Partial<ShotDocument>,
): Promise<void> {
  const document = { ...untouched(SIZE), ...change };
  await changeShot(clip.id, { revision: clip.marksRevision, document });
}

/** Where a file of it lies, once it is written. */
async function fileOf({ id }: Pick<Clip, 'id'>, format: ClipFormat): Promise<string> {
  const { id: job, state, problem } = await wanted(id, { folderId: null, format });
  expect([state, problem]).toEqual(['done', null]);
  return writingPath(job, clipFormats[format].extension);
}

const pixel = (picture: Uint8Array, x: number, y: number, channels = 3, width = WIDTH): number[] =>
  [...picture.subarray(channels * (y * width + x))].slice(0, channels);

const time = { from: 5, to: 12 };
const box = mark({
  ...{ id: 'box', kind: 'box', ...AREA, colour: '#D55E00', outline: 0 },
  ...{ fill: '#0072B2', fillOpacity: 1, time },
});

describe('hiding', () => {
  const kinds = ['blur', 'blocks', 'paintOut'] as const;
  const hide = (kind: (typeof kinds)[number], area = AREA) =>
    mark({
      ...{ id: kind, kind, time, ...area },
      ...(kind === 'paintOut' && { paintOut: 'across', colour: '#D55E00' }),
    } as MarkInput);
  const isHidden = (n: number): boolean => n >= time.from && n < time.to;

  test('what leaves depends on no pixel under it, in no picture of its time', async () => {
    const third = AREA.width / 3;
    const marks = kinds.map((kind, i) =>
      hide(kind, { ...AREA, x: AREA.x + i * third, width: third }),
    );
    const property = async (seeds: number[]) => {
      const shown: Buffer[][] = [];
      for (const seed of seeds) {
        const inside: Inside = (n) => randomFrom(isHidden(n) ? seed + n : n);
        const clip = await recorded(filmWith(inside));
        await marked(clip, { marks });
        const files = [await fileOf(clip, 'webm'), await fileOf(clip, 'gif')];
        shown.push(files.flatMap((file) => picturesIn(file).pictures));
      }
      const [first = [], second = []] = shown;
      expect(first).toHaveLength(2 * COUNT);
      expect(first.map((picture, n) => second[n]?.equals(picture))).toEqual(first.map(() => true));
    };
    await fc.assert(fc.asyncProperty(fc.tuple(fc.integer(), fc.integer()), property), {
      numRuns: 1,
    });
  }, 120_000);

  // One colour is for four pixels, some of which are hidden and some not.
  const odd = { x: 41, y: 57, width: 57, height: 27 };
  test.each([
    ['rgba', { codec: 'lossless', fine: null, area: odd }],
    ['yuv444p', { codec: 'lossless', fine: true, area: odd }],
    ['yuv420p', { codec: 'lossless', fine: false, area: odd }],
    ['yuv420p', { codec: 'halved', fine: false, area: AREA }],
    ['yuv444p', { codec: 'halved', fine: true, area: AREA }],
  ] as const)(
    'nor what the writer is given as %s: %o',
    async (as, { codec, fine, area: all }) => {
      const given = async (inside: Inside, marks: ReturnType<typeof hide>[]) => {
        const path = `${testFolder('given')}/film.mkv`;
        writeFileSync(path, filmWith(inside, codec, all));
        const times = Array.from({ length: COUNT }, (_, n) => n / 15);
        const document = { ...untouched(SIZE), marks };
        const { signal } = new AbortController();
        const inPlanes = fine === null ? null : await planesFor({ document }, path, fine, signal);
        expect(inPlanes?.format ?? 'rgba').toBe(as);
        const painting = { signal, most: 60_000, background: null, inPlanes };
        const pieces: Uint8Array[] = [];
        const film = { path, times, cuts: UNCUT, document, ...SIZE };
        for await (const piece of paintedFilm(film, SIZE, painting)) pieces.push(piece.slice());
        return digest(Buffer.concat(pieces));
      };
      const area = fc.record({
        ...{ x: fc.integer({ min: all.x, max: 60 }), y: fc.integer({ min: all.y, max: 60 }) },
        ...{ width: fc.integer({ min: 1, max: 37 }), height: fc.integer({ min: 1, max: 23 }) },
      });
      await fc.assert(
        fc.asyncProperty(
          fc.constantFrom(...kinds),
          area,
          fc.integer(),
          async (kind, area, seed) => {
            const inside =
              (other: number): Inside =>
              (n) =>
                randomFrom(isHidden(n) ? seed + other + n : n);
            const marks = [hide(kind, all), hide(kind, area)];
            const first = await given(inside(0), marks);
            expect(await given(inside(1_000), marks)).toBe(first);
            expect(await given(inside(1_000), marks.slice(1))).not.toBe(first);
          },
        ),
        { numRuns: 2 },
      );
    },
    60_000,
  );

  test('small pictures that wait to be written are no others by then', async () => {
    const path = `${testFolder('tiny')}/film.mkv`;
    const [size, count] = [{ width: 32, height: 24 }, 40];
    execFileSync('ffmpeg', [
      ...['-loglevel', 'error', '-f', 'lavfi', '-i', `testsrc=s=32x24:r=15:d=${count / 15}`],
      ...['-c:v', 'libx264rgb', '-qp', '0', '-y', path],
    ]);
    const marks = [mark({ id: 'a', kind: 'blocks', x: 4, y: 4, width: 9, height: 9 })];
    const document = { ...untouched(size), marks };
    const times = Array.from({ length: count }, (_, n) => n / 15);
    const film = { path, times, cuts: UNCUT, document, ...size };
    const { signal } = new AbortController();
    const painting = { signal, most: 60_000, background: null, inPlanes: null };
    const [held, copied]: Uint8Array[][] = [[], []];
    for await (const piece of paintedFilm(film, size, painting)) {
      held?.push(piece);
      copied?.push(piece.slice());
    }
    expect(held).toHaveLength(1 + 2 * count);
    expect(digest(Buffer.concat(held ?? []))).toBe(digest(Buffer.concat(copied ?? [])));
  });

  test('without it they differ, there and nowhere else', async () => {
    const shown: Buffer[][] = [];
    for (const seed of [1, 2]) {
      const clip = await recorded(filmWith((n) => randomFrom(isHidden(n) ? seed + n : n)));
      await marked(clip, { marks: [{ ...box, time: { from: 0, to: 1 } }] });
      shown.push(picturesIn(await fileOf(clip, 'apng')).pictures);
    }
    const [first = [], second = []] = shown;
    expect(first.map((picture, n) => !second[n]?.equals(picture))).toEqual(
      first.map((_, n) => isHidden(n)),
    );
  });

  test('nor do its small pictures, nor the one on its card', async () => {
    const under = { ...hide('paintOut'), time: { from: 0, to: 11 } };
    const seen: string[] = [];
    for (const seed of [1, 2]) {
      const { id, marksRevision } = await recorded(filmWith((n) => randomFrom(n < 11 ? seed : n)));
      const given = async () => {
        const answer = await strip(request('/x'), at({ id }));
        expect(answer.status).toBe(200);
        return Buffer.from(await answer.arrayBuffer());
      };
      const bare = await given();
      await marked({ id, marksRevision }, { marks: [under] });
      const covered = await given();
      seen.push(digest(bare), digest(covered));
      expect((await getPaintable(id)).document.marks).toHaveLength(1);
    }
    const early = await recorded(filmWith(() => () => 0));
    await marked(early, { marks: [under] });
    rmSync(stripPath(early.id));
    expect((await strip(request('/x'), at({ id: early.id }))).status).toBe(404);
    const [bare, covered, otherBare, otherCovered] = seen;
    expect(bare).not.toBe(otherBare);
    expect(covered).toBe(otherCovered);
  });
});

describe('marks', () => {
  test('are seen in their time, exactly, and all else stays as it was', async () => {
    const clip = await recorded(filmWith((n) => () => (n * 7) / 256));
    const away = [{ from: 2, to: 7 }];
    await one.PUT(jsonRequest('/x', 'PUT', { revision: 1, cuts: { away } }), at({ id: clip.id }));
    await marked(clip, { marks: [box] });
    const kept = Array.from({ length: COUNT }, (_, n) => n).filter((n) => n < 2 || n >= 7);
    const { pictures } = picturesIn(await fileOf(clip, 'apng'));
    expect(pictures.map((picture) => numberOn(picture))).toEqual(kept);
    pictures.forEach((picture, i) => {
      const n = kept[i] ?? 0;
      const isSeen = n >= time.from && n < time.to;
      expect(pixel(picture, 60, 70)).toEqual(isSeen ? [0, 0x72, 0xb2] : [n * 7, n * 7, n * 7]);
      expect(pixel(picture, 20, 70)).toEqual([60, 60, 60]);
    });
  });

  test.each([false, true])(
    'what is played faster or slower leaves so, painted: %s',
    async (painted) => {
      const { id, times, marksRevision } = await recorded(filmWith(() => () => 0.2));
      const speeds = [
        { from: 3, to: 11, speed: 4 },
        { from: 11, to: 14, speed: 0.5 },
      ] as const;
      const cuts = { away: [{ from: 16, to: 17 }], speeds };
      const put = jsonRequest('/x', 'PUT', { revision: 1, cuts });
      expect((await one.PUT(put, at({ id }))).status).toBe(200);
      if (painted) await marked({ id, marksRevision }, { marks: [box] });
      const path = await fileOf({ id }, 'webm');
      const { pictures } = picturesIn(path);
      const kept = keptPictures(cuts, times);
      expect(kept).toHaveLength(13);
      expect(pictures.map((picture) => numberOn(picture))).toEqual(kept.map((k) => k.picture));
      const told = execFileSync('ffprobe', [
        ...['-loglevel', 'error', '-select_streams', 'v:0', '-show_entries', 'packet=pts_time'],
        ...['-of', 'csv=p=0', path],
      ]);
      const seconds = told.toString().trim().split('\n').map(Number);
      seconds.forEach((at, i) => expect(Math.abs(1000 * at - (kept[i]?.at ?? 0))).toBeLessThan(4));
    },
  );

  test.each(['webm', 'mp4', 'gif', 'webp'] as const)('leave as %s, of their colour', async (as) => {
    const clip = await recorded(filmWith(() => () => 0.2));
    await marked(clip, { marks: [{ ...box, time: { from: 0, to: COUNT } }] });
    const path = await fileOf(clip, as);
    const picture =
      as === 'webp'
        ? await sharp(path, { page: 3 }).removeAlpha().raw().toBuffer()
        : (picturesIn(path).pictures[3] ?? Buffer.alloc(0));
    const [r = 0, g = 0, b = 0] = pixel(picture, 60, 70);
    expect(Math.max(r, Math.abs(g - 0x72), Math.abs(b - 0xb2))).toBeLessThan(6);
  });

  test.each(['webm', 'mp4'] as const)('with its description, as %s', async (as) => {
    const clip = await recorded(filmWith(() => () => 0));
    await marked(clip, { description: 'Four beds = seen; from above.' });
    const told = execFileSync('ffprobe', [
      ...['-loglevel', 'error', '-of', 'json', '-show_entries', 'format_tags'],
      await fileOf(clip, as),
    ]);
    const { tags } = (JSON.parse(told.toString()) as { format: { tags: Record<string, string> } })
      .format;
    expect(tags.DESCRIPTION ?? tags.description).toBe('Four beds = seen; from above.');
  });

  test.each([
    ['gif', 'Comment'],
    ['webp', 'Description'],
    ['apng', 'Description'],
  ] as const)(
    'with its title and description, as %s, where another reader finds them',
    async (as, tag) => {
      const clip = await recorded(filmWith(() => () => 0));
      const description = `Vier Beete, von oben – ${'Meerkohl, '.repeat(40)}fertig.`;
      await renameShot(clip.id, 'Küstenbeet');
      await marked(clip, { description });
      const path = await fileOf(clip, as);
      const told = execFileSync('exiftool', ['-j', '-Title', `-${tag}`, path]).toString();
      const [tags] = JSON.parse(told) as Record<string, string>[];
      if (as === 'gif') expect(tags?.Comment).toBe(`Küstenbeet\n${description}`);
      else expect(tags).toMatchObject({ Title: 'Küstenbeet', Description: description });
      if (as === 'webp') expect((await sharp(path, { pages: -1 }).metadata()).pages).toBe(COUNT);
      else expect(picturesIn(path).pictures).toHaveLength(COUNT);
    },
  );

  test('go with a still, and are seen in a picture that is asked for with them', async () => {
    const clip = await recorded(filmWith(() => () => 0));
    const { id, times } = clip;
    await marked(clip, { marks: [box] });
    for (const [n, seen] of [
      [6, true],
      [12, false],
    ] as const) {
      const asked = { at: times[n] ?? 0 };
      const answer = await stills(jsonRequest('/x', 'POST', asked), at({ id }));
      const still = await getShot(storedSchema.parse(await answer.json()).id);
      const { time: _, ...stays } = box;
      expect(still.document.marks).toEqual(seen ? [stays] : []);
      const png = await frames(request(`/x?at=${asked.at}&marks=true`), at({ id }));
      const picture = await sharp(Buffer.from(await png.arrayBuffer()))
        .removeAlpha()
        .raw()
        .toBuffer();
      expect(pixel(picture, 60, 70)).toEqual(seen ? [0, 0x72, 0xb2] : [0, 0, 0]);
    }
    // Its card shows the first picture, on which nothing lies.
    expect((await getPaintable(id)).document.marks).toEqual([]);
  });
});

describe('what is shown of it', () => {
  const crop = { x: 16, y: 0, width: 101, height: 71 };

  test('a part leaves pixel for pixel, its sides even where they must be', async () => {
    const clip = await recorded(filmWith((n) => randomFrom(n)));
    const whole = picturesIn(await fileOf(clip, 'apng')).pictures;
    await marked(clip, { view: { crop } });
    expect((await look(clip.id)).told).toMatchObject({ leaves: { width: 101, height: 71 } });
    const { pictures, width, height } = picturesIn(await fileOf(clip, 'apng'));
    expect([pictures.length, width, height]).toEqual([COUNT, 101, 71]);
    for (const [n, picture] of pictures.entries()) {
      const raw = { ...SIZE, channels: 3 } as const;
      const part = await sharp(whole[n], { raw })
        .extract({ left: crop.x, top: crop.y, width: crop.width, height: crop.height })
        .raw()
        .toBuffer();
      expect(part.equals(picture)).toBe(true);
    }
    const { width: even, height: too } = picturesIn(await fileOf(clip, 'webm'));
    expect([even, too]).toEqual([100, 70]);
  });

  test('around a free shape it is transparent, or white where a format cannot', async () => {
    const clip = await recorded(filmWith(() => () => 0));
    const shape = { kind: 'oval' as const };
    await marked(clip, { view: { crop: { x: 0, y: 0, ...SIZE }, shape } });
    const [corner] = picturesIn(await fileOf(clip, 'apng'), 4).pictures;
    expect(pixel(corner ?? Buffer.alloc(0), 1, 1, 4)[3]).toBe(0);
    expect(pixel(corner ?? Buffer.alloc(0), 80, 48, 4)[3]).toBe(255);
    const [white] = picturesIn(await fileOf(clip, 'webm')).pictures;
    expect(Math.min(...pixel(white ?? Buffer.alloc(0), 1, 1))).toBeGreaterThan(245);
  });
});
