import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { basename } from 'node:path';
import sharp from 'sharp';
import { z } from 'zod';
import * as folderRoute from '@/app/api/folders/[id]/route';
import * as foldersRoute from '@/app/api/folders/route';
import * as copiesRoute from '@/app/api/shots/[id]/copies/route';
import * as duplicatesRoute from '@/app/api/shots/[id]/duplicates/route';
import * as restRoute from '@/app/api/shots/[id]/rest/route';
import * as shotRoute from '@/app/api/shots/[id]/route';
import * as shotsRoute from '@/app/api/shots/route';
import type { HeldPicture } from '@/core/values/heldPicture';
import { markSchema } from '@/core/marks/registry';
import { untouched } from '@/core/document/view';
import { sql } from '../db/sql';
import { binShot, storeShot } from '../shots/store';
import {
  at,
  begin,
  finish,
  formRequest,
  gradientPng,
  jsonRequest,
  request,
  testFolder,
} from './setup';

const SIZE = { width: 60, height: 40 };
let picture: Buffer;
beforeAll(async () => {
  await begin();
  picture = await gradientPng(SIZE.width, SIZE.height);
});
afterAll(finish);
beforeEach(async () => {
  await sql()`delete from folders`;
});

const many = <T>(count: number, make: (i: number) => Promise<T>): Promise<T[]> =>
  Promise.all(Array.from({ length: count }, (_, i) => make(i)));
const newShot = async () => (await storeShot({ picture, title: 'Beds' })).id;

const addFolder = async (name: string, more: object = {}) => {
  const body = { name, path: testFolder(`races-${name}`), pattern: '{title}', ...more };
  const answer = await foldersRoute.POST(jsonRequest('/api/folders', 'POST', body), at({}));
  return z.object({ id: z.uuid(), path: z.string() }).parse(await answer.json());
};
const keep = (id: string, folderId: string) =>
  copiesRoute.POST(jsonRequest(`/api/shots/${id}/copies`, 'POST', { folderId }), at({ id }));
const erase = (id: string) =>
  shotRoute.DELETE(request(`/api/shots/${id}`, { method: 'DELETE' }), at({ id }));
const pathOf = async (answer: Response) =>
  z.object({ path: z.string() }).parse(await answer.json()).path;

describe('at the same moment', () => {
  test('keeping a shot and erasing it: never a file that nobody was told of', async () => {
    const folder = await addFolder('kept');
    let known: string[] = [];
    for (let round = 0; round < 6; round += 1) {
      const id = await newShot();
      await binShot(id);
      const erased = new Promise((done) => setTimeout(done, round * 4)).then(() => erase(id));
      const answers = await many(8, () => keep(id, folder.id));
      expect((await erased).status).toBe(204);
      for (const { status } of answers) expect([201, 404]).toContain(status);
      const told = await Promise.all(answers.filter(({ status }) => status === 201).map(pathOf));
      const there = readdirSync(folder.path);
      for (const path of told) expect(there).toContain(basename(path));
      expect(there.filter((name) => !known.includes(name)).sort()).toEqual(
        told.map((path) => basename(path)).sort(),
      );
      known = there;
    }
  });
  test('two folders made the default one, and many first ones: one is', async () => {
    await many(8, (i) => addFolder(`first${i}`));
    const defaults = async () => (await sql()`select id from folders where is_default`).length;
    expect(await defaults()).toBe(1);
    const folders = await sql()<{ id: string }[]>`select id from folders`;
    const answers = await many(24, (i) => {
      const id = folders[i % folders.length]?.id ?? '';
      const body = jsonRequest(`/api/folders/${id}`, 'PATCH', { isDefault: true });
      return folderRoute.PATCH(body, at({ id }));
    });
    expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 200));
    expect(await defaults()).toBe(1);
  });

  test('dropping the rest twice: it is dropped once, the other is told', async () => {
    const id = await newShot();
    const drop = () =>
      restRoute.POST(jsonRequest(`/api/shots/${id}/rest`, 'POST', { revision: 1 }), at({ id }));
    const statuses = (await many(4, drop)).map(({ status }) => status).sort();
    expect(statuses).toEqual([200, 409, 409, 409]);
  });

  test('duplicating under one id, and while the shot is erased: never a fault inside', async () => {
    for (let round = 0; round < 4; round += 1) {
      const id = await newShot();
      await binShot(id);
      const twin = randomUUID();
      const body = { id: twin };
      const asked = many(6, () => duplicatesRoute.POST(jsonRequest('/', 'POST', body), at({ id })));
      const [answers, erased] = await Promise.all([asked, erase(id)]);
      expect(erased.status).toBe(204);
      for (const { status } of answers) expect([201, 404, 409]).toContain(status);
      const twins = await sql()`select 1 from shots where id = ${twin}`;
      expect(twins.length).toBe(answers.some(({ status }) => status === 201) ? 1 : 0);
    }
  });
});

test('dates that no calendar has are refused, not a fault inside', async () => {
  for (const takenAt of [
    '+275760-09-13T00:00:00Z',
    '2026-02-31T10:00:00Z',
    '0000-01-01T00:00:00Z',
  ]) {
    const provenance = JSON.stringify({ source: 'api', takenAt });
    const { status } = await shotsRoute.POST(
      await formRequest(picture, { provenance, takenAt }),
      at({}),
    );
    expect(status).toBe(400);
  }
});

describe('pictures that a document holds', () => {
  const put = async (held: Partial<HeldPicture>, more: readonly HeldPicture[] = []) => {
    const id = await newShot();
    const png = await sharp(picture).png().toBuffer();
    const whole = { ...SIZE, png: png.toString('base64'), ...held };
    const piece = markSchema.parse({
      id: 'p',
      kind: 'piece',
      x: 1,
      y: 1,
      width: 20,
      height: 10,
      hotSpot: { x: 0, y: 0 },
      picture: 'a',
    });
    const others = Object.fromEntries(more.map((one, i) => [`more${i}`, one]));
    const document = { ...untouched(SIZE), marks: [piece], pictures: { a: whole, ...others } };
    const body = jsonRequest(`/api/shots/${id}`, 'PUT', { revision: 1, document });
    return (await shotRoute.PUT(body, at({ id }))).status;
  };

  test('are stored when they are what they say', async () => {
    expect(await put({})).toBe(200);
  });
  test('are refused when they are not', async () => {
    const jpeg = await sharp(picture).jpeg().toBuffer();
    const bomb = await sharp({
      create: { width: 12_000, height: 12_000, channels: 3, background: '#000' },
    })
      .png({ compressionLevel: 9 })
      .toBuffer();
    const cut = picture.subarray(0, picture.length - 40);
    expect(await put({ png: jpeg.toString('base64') })).toBe(415);
    expect(await put({ width: SIZE.width + 1 })).toBe(422);
    expect(await put({ png: cut.toString('base64') })).toBe(422);
    expect(await put({ png: bomb.toString('base64'), width: 12_000, height: 12_000 })).toBe(413);
  });
  test('are refused when all together would unpack to more than a frame may have', async () => {
    const size = { width: 9_000, height: 8_000 };
    const plain = sharp({ create: { ...size, channels: 3, background: '#000' } });
    const png = (await plain.png({ compressionLevel: 9 }).toBuffer()).toString('base64');
    expect(await put({})).toBe(200);
    expect(await put({}, [{ ...size, png }])).toBe(200);
    expect(
      await put({}, [
        { ...size, png },
        { ...size, png },
      ]),
    ).toBe(413);
  });
});
