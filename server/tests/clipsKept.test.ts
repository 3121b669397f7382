import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { readdirSync, writeFileSync } from 'node:fs';
import sharp from 'sharp';
import { z } from 'zod';
import { cutStateSchema } from '@/core/contracts/clip';
import { clipFormatNames, clipFormats } from '@/core/contracts/clipCopy';
import * as one from '@/app/api/clips/[id]/route';
import { GET as video } from '@/app/api/clips/[id]/video/route';
import { GET as frames } from '@/app/api/clips/[id]/frames/route';
import { GET as strip } from '@/app/api/clips/[id]/strip/route';
import { POST as stills } from '@/app/api/clips/[id]/stills/route';
import { GET as size } from '@/app/api/clips/[id]/size/route';
import { POST as copies } from '@/app/api/clips/[id]/copies/route';
import { GET as made } from '@/app/api/clips/[id]/copies/[job]/file/route';
import { POST as dropRest } from '@/app/api/shots/[id]/rest/route';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import { randomFrom } from '@/core/random/random';
import { storedSchema } from '@/core/contracts/shot';
import { env } from '../base/env';
import { addFolder } from '../folders/folders';
import { mediaDir, writingPath } from '../media/files';
import { changeShot } from '../shots/change';
import { getFrame, getShot } from '../shots/rows';
import { binShot, eraseShot } from '../shots/store';
import { film, HEIGHT, numberOn, picturesIn, shownIn, WIDTH } from './clipFilms';
import { look, recorded, codeOf, provenance, wanted } from './clipLib';
import { at, begin, finish, jsonRequest, request, testFolder } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

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

  test('the pictures that move on its card show nothing of what is cut away', async () => {
    const { id } = await recorded(film(60));
    const numbers = async (): Promise<number[]> => {
      const answer = await strip(request('/x?kept=true'), at({ id }));
      const small = sharp(Buffer.from(await answer.arrayBuffer()));
      const cells = Array.from({ length: 12 }, (_, i) => i * 150).map((left) =>
        small.clone().extract({ left, top: 0, width: 150, height: 90 }).raw().toBuffer(),
      );
      return (await Promise.all(cells)).map((rgb) => numberOn(rgb, 150, 90));
    };
    const all = [2, 7, 12, 17, 22, 27, 32, 37, 42, 47, 52, 57];
    expect(await numbers()).toEqual(all);
    const cut = (revision: number, away: object[]) =>
      one.PUT(jsonRequest('/x', 'PUT', { revision, cuts: { away } }), at({ id }));
    await cut(1, [{ from: 0, to: 35 }]);
    expect(await numbers()).toEqual([37, 37, 42, 42, 42, 47, 47, 52, 52, 52, 57, 57]);
    await cut(2, [{ from: 3, to: 60 }]);
    expect(await numbers()).toEqual(all.map(() => 2));
    await cut(3, [{ from: 1, to: 60 }]);
    expect(await codeOf(await strip(request('/x?kept=true'), at({ id })))).toEqual([
      404,
      'not-found',
    ]);
  });

  test('cuts are stored by revision; none that would leave nothing', async () => {
    const { id } = await recorded(film(20));
    const put = (revision: number, away: object[]) =>
      one.PUT(jsonRequest('/x', 'PUT', { revision, cuts: { away } }), at({ id }));
    const away = [{ from: 2, to: 4 }];
    const first = { revision: 2, cuts: { away }, step: 1, steps: 1 };
    expect(await (await put(1, away)).json()).toEqual(first);
    expect(await codeOf(await put(1, []))).toEqual([409, 'stale-cuts']);
    expect(await codeOf(await put(2, [{ from: 0, to: 20 }]))).toEqual([400, 'does-not-fit']);
    expect(await codeOf(await put(2, [{ from: 4, to: 4 }]))).toEqual([400, 'does-not-fit']);
    expect((await look(id)).told).toMatchObject({ cuts: { away: [{ from: 2, to: 4 }] } });
  });

  test('every step of them is kept: back to the whole, on again, and anew from the middle', async () => {
    const { id } = await recorded(film(20));
    const aways = [[{ from: 2, to: 4 }], [{ from: 2, to: 5 }], [{ from: 0, to: 9 }], []];
    let revision = 1;
    const put = async (change: object) => {
      const answer = await one.PUT(jsonRequest('/x', 'PUT', { revision, ...change }), at({ id }));
      if (answer.status !== 200) return codeOf(answer);
      const state = cutStateSchema.parse(await answer.json());
      revision = state.revision;
      return [state.cuts.away, state.step, state.steps];
    };
    for (const [n, away] of aways.entries())
      expect(await put({ cuts: { away } })).toEqual([away, n + 1, n + 1]);
    expect(await put({ step: 0 })).toEqual([[], 0, 4]);
    expect(await put({ step: 3 })).toEqual([aways[2], 3, 4]);
    expect(await put({ step: 5 })).toEqual([404, 'not-found']);
    expect(await put({ step: 1, cuts: { away: [] } })).toEqual([400, 'does-not-fit']);
    expect(await put({})).toEqual([400, 'does-not-fit']);
    expect((await look(id)).told).toMatchObject({ cuts: { away: aways[2] }, step: 3, steps: 4 });
    const other = [{ from: 18, to: 20 }];
    expect(await put({ cuts: { away: other } })).toEqual([other, 4, 4]);
    expect(await put({ step: 3 })).toEqual([aways[2], 3, 4]);
    // Of two at once one is told that it came late.
    const both = await Promise.all([put({ cuts: { away: other } }), put({ step: 1 })]);
    expect(both).toContainEqual([409, 'stale-cuts']);
  });

  test('its rest cannot be dropped: the film would still show it', async () => {
    const { id } = await recorded(film(15));
    const answer = await dropRest(jsonRequest('/x', 'POST', { revision: 1 }), at({ id }));
    expect(await codeOf(answer)).toEqual([409, 'is-clip']);
  });
});

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
      // Its name is that of the first WebM but for a number.
      const name = format === 'av1' ? 'A sensor fails-2' : 'A sensor fails';
      expect(copy?.path).toBe(`${path}/${name}.${extension}`);
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
    expect(again.copy?.path).toBe(`${path}/A sensor fails-3.webm`);
    expect(readdirSync(mediaDir()).filter((name) => name.includes('.made.'))).toEqual([]);
  }, 150_000);

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
    // What it shows may be hidden by now.
    const hide = { id: 'hide', kind: 'blocks', x: 0, y: 0, width: 60, height: 30 } as const;
    const document = {
      ...untouched({ width: WIDTH, height: HEIGHT }),
      marks: [markSchema.parse(hide)],
    };
    await changeShot(id, { revision: 1, document });
    expect(await codeOf(await made(request('/x'), at({ id, job: job.id })))).toEqual([
      ...[409, 'stale'],
    ]);
  });

  test.each(['webm', 'mp4', 'gif'] as const)(
    'at most so many MB, as %s, all of its pictures there',
    async (format) => {
      const noise = randomFrom(4);
      const { id } = await recorded(
        film(30, 'lossless', 5_000, (picture) => {
          for (let i = 3 * WIDTH * 48; i < picture.length; i += 1) picture[i] = noise() * 256;
        }),
      );
      const large = await wanted(id, { folderId: null, format });
      const most = 0.04;
      expect(large.bytes).toBeGreaterThan(2 * most * 1e6);
      const small = await wanted(id, { folderId: null, format, most });
      expect([small.state, small.problem]).toEqual(['done', null]);
      expect(small.bytes).toBeLessThanOrEqual(most * 1e6);
      expect(picturesIn(writingPath(small.id, format)).pictures).toHaveLength(30);
      const never = await wanted(id, { folderId: null, format, most: 0.01 });
      if (never.state === 'done') expect(never.bytes).toBeLessThanOrEqual(10_000);
      else expect(never.problem).toContain('cannot be made as small');
      expect(readdirSync(mediaDir()).filter((name) => name.startsWith(never.id))).toHaveLength(
        never.state === 'done' ? 1 : 0,
      );
    },
    150_000,
  );

  test('about how large it becomes is told before it is written', async () => {
    const noise = randomFrom(9);
    const restless = (count: number) =>
      film(count, 'h264', 5_000, (picture) => {
        for (let i = 3 * WIDTH * 48; i < picture.length; i += 1) picture[i] = noise() * 256;
      });
    const { id } = await recorded(restless(150));
    const told = async (query: string, of = id): Promise<number> => {
      const answer = await size(request(`/x?${query}`), at({ id: of }));
      return z.object({ bytes: z.number() }).parse(await answer.json()).bytes;
    };
    for (const format of ['webm', 'gif'] as const) {
      const { bytes } = await wanted(id, { folderId: null, format, percent: 50 });
      const share = (await told(`format=${format}&percent=50`)) / (bytes ?? NaN);
      expect(Math.abs(Math.log2(share))).toBeLessThan(0.5);
    }
    // Taken over as it was recorded, and of what is short, it is no guess.
    const { bytes = null } = await wanted(id, { folderId: null, format: 'mp4' });
    expect(Math.abs((await told('format=mp4')) / (bytes ?? NaN) - 1)).toBeLessThan(0.05);
    // While it is told, another one can be asked for and written.
    const [, meanwhile] = await Promise.all([
      told('format=mp4&percent=50'),
      wanted(id, { folderId: null, format: 'mp4' }),
    ]);
    expect(meanwhile.state).toBe('done');
    const short = await recorded(restless(20));
    const gif = await wanted(short.id, { folderId: null, format: 'gif', rate: 5 });
    // But for its title, which is in the file.
    expect((gif.bytes ?? NaN) - (await told('format=gif&rate=5', short.id))).toBeLessThan(30);
    expect(readdirSync(`${env().dataDir}/clip-sizes`)).toEqual([]);
    expect(await codeOf(await size(request('/x?format=avi'), at({ id })))).toEqual([
      ...[400, 'does-not-fit'],
    ]);
  }, 150_000);

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
