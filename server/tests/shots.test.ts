import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import * as shotRoute from '@/app/api/shots/[id]/route';
import * as frameRoute from '@/app/api/shots/[id]/frame/route';
import * as pictureRoute from '@/app/api/shots/[id]/picture/route';
import * as stepsRoute from '@/app/api/shots/[id]/steps/route';
import * as thumbnailRoute from '@/app/api/shots/[id]/thumbnail/route';
import * as shotsRoute from '@/app/api/shots/route';
import { conflictSchema, shotPageSchema, shotSchema, stepsSchema } from '@/core/contracts/shot';
import { untouched } from '@/core/document/view';
import { change, startHistory, undo } from '@/core/document/history';
import { everyMark } from '@/tests/lib/marks';
import { json, sql } from '../db/sql';
import { binShot, duplicateShot, eraseShot, restoreShot, storeShot } from '../shots/store';
import { at, begin, finish, formRequest, gradientPng, jsonRequest, request } from './setup';

let picture: Buffer;
beforeAll(async () => {
  await begin();
  picture = await gradientPng(60, 40);
});
afterAll(finish);

const get = async (id: string) =>
  shotSchema.parse(await (await shotRoute.GET(request(`/api/shots/${id}`), at({ id }))).json());
const send = (body: unknown, id: string) =>
  shotRoute.PUT(jsonRequest(`/api/shots/${id}`, 'PUT', body), at({ id }));
const base = untouched({ width: 60, height: 40 });

describe('POST /api/shots', () => {
  test('stores a picture and answers with what it is', async () => {
    const answer = await shotsRoute.POST(
      await formRequest(picture, { title: 'Pond edge' }),
      at({}),
    );
    expect(answer.status).toBe(201);
    const stored = (await answer.json()) as { id: string };
    expect(stored).toMatchObject({ revision: 1, width: 60, height: 40 });
    expect(await get(stored.id)).toMatchObject({
      title: 'Pond edge',
      document: base,
      provenance: { source: 'api' },
    });
    const frame = await frameRoute.GET(request(`/api/shots/${stored.id}/frame`), at(stored));
    const pixels = await sharp(Buffer.from(await frame.arrayBuffer()))
      .removeAlpha()
      .raw()
      .toBuffer();
    expect(pixels.equals(await sharp(picture).removeAlpha().raw().toBuffer())).toBe(true);
    expect(frame.headers.get('cross-origin-resource-policy')).toBe('same-origin');
    expect(frame.headers.get('x-content-type-options')).toBe('nosniff');
  });

  test('sent twice, also at the same time, it is stored once', async () => {
    const id = randomUUID();
    const answers = await Promise.all(
      [1, 2, 3, 4].map(async () => shotsRoute.POST(await formRequest(picture, { id }), at({}))),
    );
    expect(answers.map((a) => a.status)).toEqual([201, 201, 201, 201]);
    const [count] = await sql()<
      { shots: number; frames: number }[]
    >`select count(*)::int as shots from shots where id = ${id}`;
    expect(count?.shots).toBe(1);
    const [orphans] = await sql()<
      { n: number }[]
    >`select count(*)::int as n from frames f where not exists (select 1 from shots s where s.frame_id = f.id)`;
    expect(orphans?.n).toBe(0);
  });

  test.each([
    ['no picture', async () => formRequest(null, { title: 'x' }), 400],
    ['text in place of a picture', async () => formRequest(Buffer.from('hello')), 415],
    ['an id that is none', async () => formRequest(picture, { id: '../../etc' }), 400],
    [
      'a document that does not fit',
      async () => formRequest(picture, { document: '{"version":1}' }),
      400,
    ],
    [
      'a view beyond the frame',
      async () =>
        formRequest(picture, { document: JSON.stringify(untouched({ width: 61, height: 40 })) }),
      400,
    ],
    [
      'provenance of tomorrow’s kind',
      async () =>
        formRequest(picture, {
          provenance: '{"source":"satellite","takenAt":"2026-01-01T00:00:00Z"}',
        }),
      400,
    ],
    [
      'a title of 301 characters',
      async () => formRequest(picture, { title: 'x'.repeat(301) }),
      400,
    ],
    ['JSON', async () => Promise.resolve(jsonRequest('/api/shots', 'POST', {})), 415],
    [
      'a length that is announced and not kept',
      async () => shortened(await formRequest(picture)),
      400,
    ],
    [
      'an announced 133 MB',
      () =>
        request('/api/shots', {
          method: 'POST',
          headers: {
            'content-type': 'multipart/form-data; boundary=x',
            'content-length': '133000000',
          },
          body: 'x',
        }),
      413,
    ],
  ])('%s: refused in plain words, nothing changes', async (_, make, status) => {
    const count = async () =>
      (await sql()<{ n: number }[]>`select count(*)::int as n from shots`)[0]?.n;
    const before = await count();
    const answer = await shotsRoute.POST(await make(), at({}));
    expect(answer.status).toBe(status);
    const { error } = (await answer.json()) as { error: { code: string; message: string } };
    expect(error.code.length).toBeGreaterThan(2);
    expect(error.message.length).toBeGreaterThan(5);
    expect(await count()).toBe(before);
  });
});

/** The same request whose body ends ten bytes early. */
async function shortened(whole: Request): Promise<Request> {
  const bytes = await whole.clone().arrayBuffer();
  const headers = Object.fromEntries(whole.headers);
  return request('/api/shots', { method: 'POST', headers, body: bytes.slice(0, -10) });
}

describe('PUT /api/shots/:id', () => {
  test('a stale revision is refused with the current shot, and nothing is overwritten', async () => {
    const { id } = await storeShot({ picture });
    const mine = { ...base, marks: [everyMark[0]] };
    expect((await send({ revision: 1, document: mine }, id)).status).toBe(200);
    const late = await send({ revision: 1, document: base }, id);
    expect(late.status).toBe(409);
    const conflict = conflictSchema.parse(await late.json());
    expect(conflict.current.revision).toBe(2);
    expect(conflict.current.document.marks).toHaveLength(1);
    expect((await get(id)).document.marks).toHaveLength(1);
  });

  test('of ten at once one wins', async () => {
    const { id } = await storeShot({ picture });
    const answers = await Promise.all(
      Array.from({ length: 10 }, () =>
        send({ revision: 1, document: { ...base, marks: [everyMark[1]] } }, id),
      ),
    );
    expect(answers.filter((a) => a.status === 200)).toHaveLength(1);
    expect((await get(id)).revision).toBe(2);
  });

  test.each([
    ['NaN', { ...base, marks: [{ ...everyMark[0], from: { x: null, y: 0 } }] }],
    ['huge numbers', { ...base, marks: [{ ...everyMark[0], from: { x: 1e300, y: 0 } }] }],
    ['a view beyond the frame', untouched({ width: 600, height: 400 })],
    ['no document', null],
  ])('%s: refused', async (_, document) => {
    const { id } = await storeShot({ picture });
    expect((await send({ revision: 1, document }, id)).status).toBe(400);
    expect((await get(id)).revision).toBe(1);
  });

  test('a shot that is not there', async () => {
    expect((await send({ revision: 1, document: base }, randomUUID())).status).toBe(404);
    expect((await shotRoute.GET(request('/api/shots/x'), at({ id: '1 or 1=1' }))).status).toBe(404);
  });

  test('undo steps are stored with it, and a change without steps is a step too', async () => {
    const { id } = await storeShot({ picture });
    const h = change(
      startHistory(base),
      'Add',
      (d) => void d.marks.push(structuredClone(everyMark[0] ?? never())),
    );
    const steps = { keep: 0, added: h.steps, position: 1 };
    expect((await send({ revision: 1, document: h.document, steps }, id)).status).toBe(200);
    expect((await send({ revision: 2, document: base }, id)).status).toBe(200);
    const stored = stepsSchema.parse(await (await stepsRoute.GET(request(''), at({ id }))).json());
    expect(stored.steps.map((s) => s.label)).toEqual(['Add', 'Changed by a program']);
    const back = undo({ document: base, ...stored });
    expect(back.document).toEqual(h.document);
    expect(undo(back).document).toEqual(base);
    const wrong = await send(
      { revision: 3, document: base, steps: { keep: 9, added: [], position: 0 } },
      id,
    );
    expect(wrong.status).toBe(400);
    expect((await get(id)).revision).toBe(3);
  });
});

const never = (): never => {
  throw new Error('missing');
};

describe('pictures', () => {
  test('only the view leaves, with its marks; a thumbnail is kept until the next change', async () => {
    const { id } = await storeShot({ picture });
    const box = {
      id: 'b',
      kind: 'box',
      x: 10,
      y: 10,
      width: 10,
      height: 10,
      colour: '#000000',
      outline: 0,
      fill: '#D55E00',
      fillOpacity: 1,
      dashed: false,
      corner: 0,
    };
    await send(
      {
        revision: 1,
        document: {
          ...base,
          view: { crop: { x: 10, y: 10, width: 20, height: 12 } },
          marks: [box],
        },
      },
      id,
    );
    const answer = await pictureRoute.GET(
      request(`/api/shots/${id}/picture?format=png`),
      at({ id }),
    );
    const { data, info } = await sharp(Buffer.from(await answer.arrayBuffer()))
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([20, 12]);
    expect([...data.subarray(0, 3)]).toEqual([0xd5, 0x5e, 0]);
    expect([...data.subarray(15 * 3, 15 * 3 + 2)]).toEqual([25, 10]);
    const first = await thumbnailRoute.GET(request(`/api/shots/${id}/thumbnail`), at({ id }));
    expect(first.headers.get('content-type')).toBe('image/webp');
    const [row] = await sql()<
      { revision: number }[]
    >`select revision from thumbnails where shot_id = ${id}`;
    expect(row?.revision).toBe(2);
    const wrong = await pictureRoute.GET(
      request(`/api/shots/${id}/picture?format=exe`),
      at({ id }),
    );
    expect(wrong.status).toBe(400);
  });
});

test('the thumbnail of a long picture shows its beginning, not a thread', async () => {
  const plain = (height: number, background: string) =>
    ({ create: { width: 120, height, channels: 3, background } }) as const;
  const long = await sharp(plain(1200, '#2F6B4F'))
    .composite([{ input: plain(400, '#D55E00'), left: 0, top: 0 }])
    .png()
    .toBuffer();
  const { id } = await storeShot({ picture: long });
  const answer = await thumbnailRoute.GET(request(`/api/shots/${id}/thumbnail`), at({ id }));
  const { data, info } = await sharp(Buffer.from(await answer.arrayBuffer()))
    .raw()
    .toBuffer({ resolveWithObject: true });
  expect([info.width, info.height]).toEqual([120, 80]);
  expect((data.at(-3) ?? 0) > 180 && (data.at(-1) ?? 255) < 60).toBe(true);
});

describe('the list', () => {
  test('goes by keyset, newest first, without gaps or repeats', async () => {
    const moment = (i: number) =>
      new Date(Date.UTC(2030, 0, 1, 0, 0, Math.floor(i / 3))).toISOString();
    const ids = [];
    for (let i = 0; i < 9; i += 1) {
      const provenance = { source: 'desk' as const, takenAt: moment(i) };
      ids.push((await storeShot({ picture, provenance })).id);
    }
    const seen: string[] = [];
    let before = '';
    for (let page = 0; page < 5; page += 1) {
      const query = `?limit=2${before && `&before=${before}`}`;
      const read = shotPageSchema.parse(
        await (await shotsRoute.GET(request(`/api/shots${query}`), at({}))).json(),
      );
      seen.push(...read.shots.map((s) => s.id));
      before = read.next ?? '';
    }
    expect(new Set(seen).size).toBe(10);
    expect(seen.slice(0, 9).sort()).toEqual([...ids].sort());
    const odd = await shotsRoute.GET(request('/api/shots?before=1;drop table shots'), at({}));
    expect(odd.status).toBe(400);
    expect((await shotsRoute.GET(request('/api/shots?limit=100000'), at({}))).status).toBe(400);
  });

  test('bin, restore, and delete for good with the frame', async () => {
    // No other test’s shot shows it.
    const { id } = await storeShot({ picture: await gradientPng(37, 29) });
    const twin = await duplicateShot(id, {});
    await expect(eraseShot(id)).rejects.toMatchObject({ status: 409 });
    await binShot(id);
    await restoreShot(id);
    expect((await get(id)).binnedAt).toBeNull();
    await binShot(id);
    const frameOf = async (shot: string) =>
      (await sql()<{ frameId: string }[]>`select frame_id from shots where id = ${shot}`)[0]
        ?.frameId ?? '';
    const frame = await frameOf(id);
    await eraseShot(id);
    expect(await frameOf(twin.id)).toBe(frame);
    await binShot(twin.id);
    await eraseShot(twin.id);
    const [left] = await sql()`select 1 from frames where id = ${frame}`;
    expect(left).toBeUndefined();
  });
});

test('a document of a newer Rezzik is refused in plain words and left as it is', async () => {
  const { id } = await storeShot({ picture });
  const newer = { version: 99, view: {}, marks: [{ kind: 'hologram' }] };
  await sql()`update shots set document = ${json(newer)} where id = ${id}`;
  const answer = await shotRoute.GET(request(`/api/shots/${id}`), at({ id }));
  expect(answer.status).toBe(409);
  expect(await answer.json()).toMatchObject({ error: { code: 'newer-document' } });
  const [row] = await sql()<{ document: unknown }[]>`select document from shots where id = ${id}`;
  expect(row?.document).toEqual(newer);
});
