import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { appendFileSync, existsSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import sharp from 'sharp';
import {
  clipAnswerSchema,
  clipFormatNames,
  clipFormats,
  clipJobSchema,
  type Clip,
  type ClipJob,
  type ClipWish,
} from '@/core/contracts/clip';
import { POST as beginClip } from '@/app/api/clips/route';
import * as one from '@/app/api/clips/[id]/route';
import { PUT as putPiece } from '@/app/api/clips/[id]/pieces/[n]/route';
import { POST as alive } from '@/app/api/clips/[id]/alive/route';
import { POST as end } from '@/app/api/clips/[id]/end/route';
import { GET as video } from '@/app/api/clips/[id]/video/route';
import { GET as frames } from '@/app/api/clips/[id]/frames/route';
import { GET as strip } from '@/app/api/clips/[id]/strip/route';
import { POST as stills } from '@/app/api/clips/[id]/stills/route';
import { POST as copies } from '@/app/api/clips/[id]/copies/route';
import * as writing from '@/app/api/clips/[id]/copies/[job]/route';
import { GET as made } from '@/app/api/clips/[id]/copies/[job]/file/route';
import { GET as listShots } from '@/app/api/shots/route';
import { POST as dropRest } from '@/app/api/shots/[id]/rest/route';
import { shotPageSchema, storedSchema } from '@/core/contracts/shot';
import '../clips/finish';
import '../clips/copies';
import { sql } from '../db/sql';
import { addFolder } from '../folders/folders';
import { workAlone } from '../jobs/run';
import { mediaDir, partPath, sweepMedia } from '../media/files';
import { roomUsed } from '../room/used';
import { getFrame, getShot } from '../shots/rows';
import { binShot, eraseShot } from '../shots/store';
import { film, HEIGHT, numberOn, shownIn, WIDTH } from './clipFilms';
import { at, begin, finish, jsonRequest, request, testFolder } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const provenance = {
  source: 'desk',
  takenAt: '2026-11-27T09:12:00.000Z',
  display: 'Left',
} as const;

const begun = (id: string, more: object = {}): Promise<Response> =>
  beginClip(
    jsonRequest('/api/clips', 'POST', { id, provenance, type: 'video/x-matroska', ...more }),
    at({}),
  );
const piece = (id: string, n: number, bytes: Uint8Array): Promise<Response> =>
  putPiece(request('/x', { method: 'PUT', body: new Uint8Array(bytes) }), at({ id, n: String(n) }));
const ended = (id: string, pieces: number, bin = false): Promise<Response> =>
  end(jsonRequest('/x', 'POST', { pieces, bin }), at({ id }));
const look = async (id: string) => {
  const answer = await one.GET(request('/x'), at({ id }));
  return { status: answer.status, told: clipAnswerSchema.safeParse(await answer.json()).data };
};

function cutUp(bytes: Buffer, count: number): Buffer[] {
  const size = Math.ceil(bytes.length / count);
  return Array.from({ length: count }, (_, i) => bytes.subarray(i * size, (i + 1) * size));
}

async function recorded(bytes: Buffer, more: object = {}): Promise<Clip> {
  const id = randomUUID();
  await begun(id, more);
  const pieces = cutUp(bytes, 4);
  for (const [n, part] of pieces.entries()) expect((await piece(id, n, part)).status).toBe(200);
  expect((await ended(id, pieces.length)).status).toBe(200);
  for (;;) {
    await workAlone('clipLook');
    const { told } = await look(id);
    if (told?.state !== 'ready') throw new Error(`It is ${told?.state}.`);
    if (told.changes) return told;
    await pause(30);
  }
}

const codeOf = async (answer: Response): Promise<unknown> => {
  const { error } = (await answer.json()) as { error: { code: string } };
  return [answer.status, error.code];
};

describe('recording', () => {
  test('pieces in order become a clip among the shots, of the very pictures', async () => {
    const clip = await recorded(film(45), { title: 'Clip 1, Sensors' });
    expect(clip).toMatchObject({ title: 'Clip 1, Sensors', width: WIDTH, height: HEIGHT });
    expect(clip).toMatchObject({ codec: 'h264', fineColours: false, type: 'video/mp4' });
    expect(clip.times).toHaveLength(45);
    expect(clip.times[0]).toBe(0);
    expect(clip.times[30]).toBeCloseTo(2, 3);
    expect(clip.provenance).toMatchObject({ frames: 45, until: '2026-11-27T09:12:02.999Z' });
    const answer = await listShots(request('/api/shots?limit=5'), at({}));
    expect(shotPageSchema.parse(await answer.json())).toMatchObject({
      shots: [{ id: clip.id, seconds: 2.933 }],
    });
    expect(await getShot(clip.id)).toMatchObject({ clip: true });
    // Its frame is the first picture.
    const { data } = await sharp((await getFrame(clip.id)).bytes)
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(numberOn(data)).toBe(0);
    const room = await roomUsed();
    expect(room.kinds.find(({ kind }) => kind === 'films')?.bytes).toBe(clip.bytes);
    // Nothing of the recording is left beside it.
    expect(existsSync(partPath(clip.id))).toBe(false);
    expect(statSync(mediaDir()).mode & 0o777).toBe(0o700);
  });

  test('the same piece twice counts once; another one, a gap, one after the end are refused', async () => {
    const id = randomUUID();
    await begun(id);
    expect((await begun(id)).status).toBe(201);
    const [first, second] = cutUp(film(30), 2) as [Buffer, Buffer];
    await piece(id, 0, first);
    expect((await piece(id, 0, first)).status).toBe(200);
    expect(await codeOf(await piece(id, 0, second))).toEqual([409, 'not-next']);
    const gap = await piece(id, 2, second);
    expect(await gap.json()).toMatchObject({ expected: 1 });
    expect(await codeOf(await ended(id, 2))).toEqual([409, 'not-next']);
    await piece(id, 1, second);
    await ended(id, 2);
    expect((await look(id)).told).toMatchObject({ state: 'ready' });
    expect(await codeOf(await piece(id, 2, second))).toEqual([409, 'over']);
    expect(await codeOf(await piece(randomUUID(), 0, second))).toEqual([404, 'not-found']);
    expect(await codeOf(await begun(id))).toEqual([409, 'recorded']);
  });

  test('what came half, after a crash, is written over', async () => {
    const id = randomUUID();
    await begun(id);
    const bytes = film(30);
    const [first, second] = cutUp(bytes, 2) as [Buffer, Buffer];
    await piece(id, 0, first);
    appendFileSync(partPath(id), Buffer.alloc(100, 7));
    await piece(id, 1, second);
    await ended(id, 2);
    expect((await look(id)).told).toMatchObject({ state: 'ready' });
    expect((await look(id)).told).toHaveProperty('times.length', 30);
  });

  test('one that falls silent, killed in the middle of a piece, becomes a clip of what came', async () => {
    const id = randomUUID();
    await begun(id);
    const bytes = film(60);
    await piece(id, 0, bytes.subarray(0, Math.floor(bytes.length * 0.7)));
    await workAlone('clip');
    expect((await look(id)).told).toMatchObject({ state: 'going' });
    await sql()`update jobs set due_at = now() where kind = 'clip'`;
    await workAlone('clip');
    const { told } = await look(id);
    expect(told).toMatchObject({ state: 'ready' });
    const count = told?.state === 'ready' ? told.times.length : 0;
    expect(count).toBeGreaterThan(30);
    expect(count).toBeLessThan(60);
  });

  test('one that pauses, or on which nothing moves, is none that is silent', async () => {
    const id = randomUUID();
    await begun(id);
    const job = sql()`select id from recordings where shot_id = ${id}`;
    await sql()`update jobs set due_at = now() - interval '1 second' where id = (${job})`;
    expect((await alive(request('/x', { method: 'POST' }), at({ id }))).status).toBe(204);
    await workAlone('clip');
    expect((await look(id)).told).toMatchObject({ state: 'going' });
    await piece(id, 0, film(20));
    await ended(id, 1);
    const over = await alive(request('/x', { method: 'POST' }), at({ id }));
    expect(await codeOf(over)).toEqual([409, 'over']);
  });

  test('one without any picture leaves nothing', async () => {
    const id = randomUUID();
    await begun(id);
    expect((await ended(id, 0)).status).toBe(404);
    expect((await look(id)).status).toBe(404);
    expect(await sql()`select 1 from recordings where shot_id = ${id}`).toHaveLength(0);
  });

  test('thrown away while it is recorded it lies in the Bin, and goes for good with its film', async () => {
    const id = randomUUID();
    await begun(id);
    await piece(id, 0, film(20));
    await ended(id, 1, true);
    expect((await getShot(id)).binnedAt).not.toBeNull();
    const files = () => readdirSync(mediaDir()).filter((name) => name.startsWith(id));
    expect(files()).toContain(`${id}.mp4`);
    await eraseShot(id);
    expect(files()).toEqual([]);
    expect(await sql()`select 1 from clips where shot_id = ${id}`).toHaveLength(0);
  });

  test('what is no film is told as that, and is kept', async () => {
    const id = randomUUID();
    await begun(id);
    await piece(id, 0, Buffer.from('-i /etc/passwd; this is no film '.repeat(100)));
    await ended(id, 1);
    expect((await look(id)).told).toEqual({
      ...{ id, state: 'ended', pieces: 1, bytes: 3200 },
      problem: 'This is no film that can be read, or it is damaged.',
    });
    await sweepMedia();
    expect(existsSync(partPath(id))).toBe(true);
    await sql()`delete from recordings where shot_id = ${id}`;
  });

  test('a list of other files, and a picture larger than a clip may be, are no films', async () => {
    const { id: there } = await recorded(film(15));
    const list = [
      '#EXTM3U',
      '#EXT-X-TARGETDURATION:9',
      '#EXTINF:1,',
      `file://${mediaDir()}/${there}.mp4`,
    ];
    const huge = execFileSync('ffmpeg', [
      ...['-loglevel', 'error', '-f', 'lavfi', '-i', 'color=s=8192x8192:d=0.1', '-f', 'matroska'],
      ...['-c:v', 'libx264', '-preset', 'ultrafast', '-'],
    ]);
    for (const [bytes, problem] of [
      [Buffer.from([...list, '#EXT-X-ENDLIST', ''].join('\n')), 'no film that can be read'],
      [huge, 'longer or larger than a clip may be'],
    ] as const) {
      const id = randomUUID();
      await begun(id);
      await piece(id, 0, bytes);
      await ended(id, 1);
      expect((await look(id)).told).toMatchObject({ problem: expect.stringContaining(problem) });
      await sql()`delete from recordings where shot_id = ${id}`;
    }
  });

  test('files that nobody knows of go, those of clips stay', async () => {
    const { id } = await recorded(film(15));
    const stray = partPath(randomUUID());
    writeFileSync(stray, 'x');
    await sweepMedia();
    expect(existsSync(stray)).toBe(false);
    expect(readdirSync(mediaDir())).toContain(`${id}.mp4`);
  });
});

describe('looking through', () => {
  test('every picture is given exactly, at its moment and until the next', async () => {
    const { id, times } = await recorded(film(40, 'lossless'));
    for (const n of [0, 1, 13, 29, 30, 31, 39]) {
      for (const later of [0, 0.03]) {
        const asked = request(`/x?at=${(times[n] ?? 0) + later}`);
        const png = Buffer.from(await (await frames(asked, at({ id }))).arrayBuffer());
        expect(numberOn(await sharp(png).raw().toBuffer())).toBe(n);
      }
    }
    expect((await look(id)).told).toMatchObject({ fineColours: true });
    const uneven = await recorded(film(20, 'uneven'));
    for (const n of [3, 4, 5]) {
      const asked = request(`/x?at=${uneven.times[n]}`);
      const png = await (await frames(asked, at({ id: uneven.id }))).arrayBuffer();
      expect(numberOn(await sharp(Buffer.from(png)).raw().toBuffer())).toBe(n);
    }
  });

  test('a still is a shot of its own, with its time', async () => {
    const { id, times } = await recorded(film(30), { title: 'Clip 2' });
    const at20 = times[20] ?? 0;
    const answer = await stills(jsonRequest('/x', 'POST', { at: at20 + 0.01 }), at({ id }));
    expect(answer.status).toBe(201);
    const { id: still } = storedSchema.parse(await answer.json());
    const shot = await getShot(still);
    expect(shot).toMatchObject({ title: 'Clip 2, 0:01.3', titleOwn: false });
    expect(shot.provenance).toEqual({ ...provenance, takenAt: '2026-11-27T09:12:01.333Z' });
    expect(shot.clip).toBeUndefined();
    const { data } = await sharp((await getFrame(still)).bytes)
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(numberOn(data)).toBe(20);
  });

  test('the film is given by ranges, whole and beyond', async () => {
    const { id, bytes } = await recorded(film(20));
    const ask = (range?: string) =>
      video(request('/x', range ? { headers: { range } } : {}), at({ id }));
    const all = Buffer.from(await (await ask()).arrayBuffer());
    expect(all).toHaveLength(bytes);
    for (const [range, from, to] of [
      ['bytes=0-0', 0, 1],
      ['bytes=10-99', 10, 100],
      [`bytes=100-`, 100, bytes],
      ['bytes=-7', bytes - 7, bytes],
      [`bytes=5-${bytes * 2}`, 5, bytes],
    ] as const) {
      const answer = await ask(range);
      expect(answer.status).toBe(206);
      expect(answer.headers.get('content-range')).toBe(`bytes ${from}-${to - 1}/${bytes}`);
      expect(Buffer.from(await answer.arrayBuffer()).equals(all.subarray(from, to))).toBe(true);
    }
    expect((await ask(`bytes=${bytes}-`)).status).toBe(416);
    expect((await ask('bytes=9-3')).status).toBe(200);
    expect((await ask('lines=1-2')).status).toBe(200);
  });

  test('where something changes, and a strip of small pictures', async () => {
    const { id, changes } = await recorded(film(30));
    // Its number is another one on every picture.
    expect(changes).toEqual([1]);
    const jpeg = Buffer.from(await (await strip(request('/x'), at({ id }))).arrayBuffer());
    expect(await sharp(jpeg).metadata()).toMatchObject({ width: 12 * 150, height: 90 });
  });

  test('cuts are stored by revision; none that would leave nothing', async () => {
    const { id } = await recorded(film(20));
    const put = (revision: number, away: object[]) =>
      one.PUT(jsonRequest('/x', 'PUT', { revision, cuts: { away } }), at({ id }));
    expect(await (await put(1, [{ from: 2, to: 4 }])).json()).toEqual({ revision: 2 });
    expect(await codeOf(await put(1, []))).toEqual([409, 'stale-cuts']);
    expect(await codeOf(await put(2, [{ from: 0, to: 20 }]))).toEqual([400, 'does-not-fit']);
    expect(await codeOf(await put(2, [{ from: 4, to: 4 }]))).toEqual([400, 'does-not-fit']);
    expect((await look(id)).told).toMatchObject({ cuts: { away: [{ from: 2, to: 4 }] } });
  });

  test('its rest cannot be dropped: the film would still show it', async () => {
    const { id } = await recorded(film(15));
    const answer = await dropRest(jsonRequest('/x', 'POST', { revision: 1 }), at({ id }));
    expect(await codeOf(answer)).toEqual([409, 'is-clip']);
  });
});

async function wanted(id: string, wish: ClipWish): Promise<ClipJob> {
  const answer = await copies(jsonRequest('/x', 'POST', wish), at({ id }));
  if (answer.status !== 202) throw new Error(JSON.stringify(await answer.json()));
  const { id: job } = clipJobSchema.parse(await answer.json());
  for (;;) {
    await workAlone('clipWrite');
    const now = clipJobSchema.parse(
      await (await writing.GET(request('/x'), at({ id, job }))).json(),
    );
    if (now.state === 'done' || now.state === 'stopped') return now;
    await pause(30);
  }
}

describe('keeping', () => {
  const away = [
    { from: 0, to: 5 },
    { from: 12, to: 20 },
    { from: 33, to: 40 },
  ];
  const kept = Array.from({ length: 40 }, (_, i) => i).filter(
    (i) => !away.some(({ from, to }) => i >= from && i < to),
  );

  test('each format shows exactly the cut pictures, beside what lies there, and never over it', async () => {
    const path = testFolder('clips kept');
    const { id: folderId } = await addFolder({ name: 'Clips', path, pattern: '{title}' });
    const { id, times } = await recorded(film(40, 'uneven'), { title: 'A sensor fails' });
    const apart = times.slice(1).map((at, i) => at - (times[i] ?? 0));
    // Two come within a millisecond.
    expect(Math.min(...apart)).toBeLessThan(0.0002);
    await one.PUT(jsonRequest('/x', 'PUT', { revision: 1, cuts: { away } }), at({ id }));
    for (const format of clipFormatNames) {
      const { state, copy, problem } = await wanted(id, { folderId, format });
      expect([state, problem]).toEqual(['done', null]);
      const { extension } = clipFormats[format];
      expect(copy?.path).toBe(`${path}/A sensor fails.${extension}`);
      // Its reader knows no WebP that moves: sharp counts the pictures of that.
      if (format === 'webp') {
        const { pages, width, pageHeight } = await sharp(copy?.path, { pages: -1 }).metadata();
        expect({ pages, width, pageHeight }).toEqual({
          ...{ pages: kept.length, width: WIDTH, pageHeight: HEIGHT },
        });
      } else {
        expect(shownIn(copy?.path ?? '')).toEqual({ numbers: kept, width: WIDTH, height: HEIGHT });
      }
    }
    const again = await wanted(id, { folderId, format: 'webm' });
    expect(again.copy?.path).toBe(`${path}/A sensor fails-2.webm`);
    expect(readdirSync(mediaDir()).filter((name) => name.includes('.made.'))).toEqual([]);
  }, 60_000);

  test('smaller, with fewer pictures a second, to be fetched', async () => {
    const { id } = await recorded(film(30), { title: '-y /tmp/x; rm' });
    const job = await wanted(id, { folderId: null, format: 'mp4', percent: 50, rate: 5 });
    expect(job).toMatchObject({ state: 'done', copy: null });
    const answer = await made(request('/x'), at({ id, job: job.id }));
    expect(answer.headers.get('content-disposition')).toContain('attachment');
    const path = `${testFolder('fetched')}/film.mp4`;
    writeFileSync(path, Buffer.from(await answer.arrayBuffer()));
    const { numbers, width, height } = shownIn(path);
    expect([width, height]).toEqual([80, 48]);
    expect(numbers).toHaveLength(10);
    expect(numbers[0]).toBe(0);
  });

  test('a folder that is gone is said, and nothing is left', async () => {
    const { id } = await recorded(film(15));
    const answer = await copies(
      jsonRequest('/x', 'POST', { folderId: randomUUID(), format: 'gif' }),
      at({ id }),
    );
    expect(answer.status).toBe(404);
    await binShot(id);
    await eraseShot(id);
    expect(readdirSync(mediaDir()).filter((name) => name.startsWith(id))).toEqual([]);
  });
});
