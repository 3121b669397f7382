import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { z } from 'zod';
import * as searchRoute from '@/app/api/searches/[id]/route';
import * as searchesRoute from '@/app/api/searches/route';
import * as manyRoute from '@/app/api/shots/tags/route';
import * as shotTagsRoute from '@/app/api/shots/[id]/tags/route';
import * as tagRoute from '@/app/api/tags/[id]/route';
import * as tagsRoute from '@/app/api/tags/route';
import { markColours } from '@/core/colour/markColours';
import { firstWay } from '@/core/contracts/way';
import { savedSearchesSchema, tagsSchema } from '@/core/contracts/search';
import { sql } from '../db/sql';
import { thenSaid } from '../take/then';
import { findShots } from '../search/find';
import { binShot, storeShot } from '../shots/store';
import { at, begin, finish, gradientPng, jsonRequest, request } from './setup';

let picture: Buffer;
let shots: string[] = [];
const NOBODY = '00000000-0000-4000-8000-000000000000';

beforeAll(async () => {
  await begin();
  picture = await gradientPng(20, 10);
});
afterAll(finish);
beforeEach(async () => {
  await sql()`delete from shots`;
  await sql()`delete from tags`;
  await sql()`delete from searches`;
  shots = [];
  for (const title of ['Bed', 'Path', 'Pond']) shots.push((await storeShot({ picture, title })).id);
});

const shot = (n: number): string => shots[n] ?? '';
const tags = async () =>
  tagsSchema.parse(await (await tagsRoute.GET(request('/api/tags'), at({}))).json()).tags;
const names = async () => (await tags()).map(({ name, shots: count }) => `${name} ${count}`);
const set = (id: string, list: unknown) =>
  shotTagsRoute.PUT(jsonRequest(`/api/shots/${id}/tags`, 'PUT', { tags: list }), at({ id }));
const of = async (id: string) => {
  const answer = await shotTagsRoute.GET(request(`/api/shots/${id}/tags`), at({ id }));
  return z.object({ tags: z.array(z.string()) }).parse(await answer.json()).tags;
};
const many = (body: object) => manyRoute.POST(jsonRequest('/api/shots/tags', 'POST', body), at({}));
const patch = async (name: string, body: object) => {
  const id = (await tags()).find((tag) => tag.name === name)?.id ?? NOBODY;
  return tagRoute.PATCH(jsonRequest(`/api/tags/${id}`, 'PATCH', body), at({ id }));
};
const found = async (q: string) =>
  (await findShots({ q, order: 'day', limit: 50, bin: false })).shots.map((s) => s.title).sort();

describe('tags', () => {
  test('typed they are made; the same name in other letters is the same tag', async () => {
    expect(await (await set(shot(0), ['Störung', 'Beds'])).json()).toEqual({
      tags: ['Beds', 'Störung'],
    });
    await set(shot(1), ['STORUNG', 'beds ', 'Beds']);
    expect(await names()).toEqual(['Beds 2', 'Störung 2']);
    await set(shot(1), []);
    expect(await of(shot(1))).toEqual([]);
    await binShot(shot(0));
    expect(await names()).toEqual(['Beds 0', 'Störung 0']);
    const eight = markColours.map(({ hex }) => hex as string);
    for (const { colour } of await tags()) expect(eight).toContain(colour);
  });

  test('given to several and taken from them at once', async () => {
    await set(shot(0), ['Old']);
    expect((await many({ shots, add: ['Winter'], remove: ['old'] })).status).toBe(204);
    for (const id of shots) expect(await of(id)).toEqual(['Winter']);
    expect(await found('tag:winter')).toEqual(['Bed', 'Path', 'Pond']);
    // All of it or nothing.
    expect((await many({ shots: [shot(0), NOBODY], add: ['Late'] })).status).toBe(404);
    expect(await of(shot(0))).toEqual(['Winter']);
  });

  test('renamed and made one with another', async () => {
    await set(shot(0), ['Sed']);
    await set(shot(1), ['Seeds']);
    const clash = await patch('Sed', { name: 'SEEDS' });
    expect(clash.status).toBe(409);
    expect(await clash.text()).toContain('“Seeds”');
    expect((await patch('Sed', { name: 'Seed', colour: '#0072B2' })).status).toBe(200);
    expect(await found('seed ')).toEqual(['Bed']);
    expect(await found('sed ')).toEqual([]);
    expect((await patch('Seed', { name: 'Seeds', merge: true })).status).toBe(200);
    expect(await names()).toEqual(['Seeds 2']);
    expect(await found('seeds ')).toEqual(['Bed', 'Path']);
    // Another way to write its own name is no clash.
    expect((await patch('Seeds', { name: 'SEEDS' })).status).toBe(200);
    expect(await names()).toEqual(['SEEDS 2']);
  });

  test('removed from all shots; the shots stay', async () => {
    await set(shot(0), ['Gone']);
    const [tag] = await tags();
    const id = tag?.id ?? '';
    const answer = await tagRoute.DELETE(
      request(`/api/tags/${id}`, { method: 'DELETE' }),
      at({ id }),
    );
    expect(answer.status).toBe(204);
    expect(await of(shot(0))).toEqual([]);
    expect(await found('gone ')).toEqual([]);
    expect(await found('bed ')).toEqual(['Bed']);
  });

  test('twenty at once leave one tag and no error', async () => {
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) => set(shot(i % 3), ['Same', `Own ${i % 4}`])),
    );
    expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 200));
    expect((await names()).filter((name) => name.startsWith('Same'))).toEqual(['Same 3']);
  });

  test('ten thousand tags: the next one is refused in words, nothing else is slow', async () => {
    await sql()`insert into tags (id, name, folded, colour)
      select gen_random_uuid(), 'Tag ' || n, 'tag ' || n, '#000000' from generate_series(1, 10000) n`;
    const refused = await set(shot(0), ['One more']);
    expect(refused.status).toBe(409);
    expect(await refused.text()).toContain('10000 tags at most');
    expect((await set(shot(0), ['tag 77'])).status).toBe(200);
    expect(await found('tag:"tag 77"')).toEqual(['Bed']);
    expect(await tags()).toHaveLength(10_000);
  });

  test.each([
    [[''], 400],
    [['   '], 400],
    [['…'], 400],
    [['a"b'], 400],
    [['a\nb'], 400],
    [['\u0000'], 400],
    [['x'.repeat(61)], 400],
    [Array.from({ length: 101 }, (_, i) => `t${i}`), 400],
    ['Beds', 400],
    [['🌱'], 200],
    [['שורשים'], 200],
  ])('case %#', async (list, status) => {
    expect((await set(shot(0), list)).status).toBe(status);
  });

  test('given by a routine of this computer, beside those it has', async () => {
    await set(shot(0), ['Old']);
    const step = { do: 'tag' as const, tags: ['Winter', 'old'] };
    const done = (id: string) => thenSaid([step], { id, leaves: firstWay });
    expect(await done(shot(0))).toEqual(['Tagged: Winter, old']);
    expect(await of(shot(0))).toEqual(['Old', 'Winter']);
    expect((await done(NOBODY))[0]).toMatch(/^Not tagged\. .* safe on the Shelf\.$/);
  });

  test('of a shot that is not there', async () => {
    expect((await set(NOBODY, ['x'])).status).toBe(404);
    expect(await names()).toEqual([]);
    expect((await patch('nobody', { name: 'x' })).status).toBe(404);
  });
});

describe('saved searches', () => {
  const save = (body: object) =>
    searchesRoute.POST(jsonRequest('/api/searches', 'POST', body), at({}));
  const list = async () =>
    savedSearchesSchema.parse(
      await (await searchesRoute.GET(request('/api/searches'), at({}))).json(),
    ).searches;

  test('say how many they find, now', async () => {
    expect((await save({ name: 'Water', query: 'pond ' })).status).toBe(201);
    // As typed: whole words stay whole.
    await save({ name: 'Half a word', query: 'pon ' });
    await save({ name: 'Kept nowhere', query: 'kept:none', order: 'fitness' });
    expect((await list()).map((s) => [s.name, s.count, s.more, s.order])).toEqual([
      ['Water', 1, false, 'day'],
      ['Half a word', 1, false, 'day'],
      ['Kept nowhere', 3, false, 'fitness'],
    ]);
    await storeShot({ picture, title: 'Pond, frozen' });
    expect((await list())[0]?.count).toBe(2);
    await binShot(shot(2));
    expect((await list())[0]?.count).toBe(1);
  });

  test('renamed, asked otherwise, removed', async () => {
    await save({ name: 'Water', query: 'pond', order: 'fitness' });
    const id = (await list())[0]?.id ?? '';
    await searchRoute.PATCH(
      jsonRequest(`/api/searches/${id}`, 'PATCH', { name: 'Beds', query: 'bed' }),
      at({ id }),
    );
    expect(await list()).toMatchObject([
      { name: 'Beds', query: 'bed', order: 'fitness', count: 1 },
    ]);
    const remove = () =>
      searchRoute.DELETE(request(`/api/searches/${id}`, { method: 'DELETE' }), at({ id }));
    expect((await remove()).status).toBe(204);
    expect((await remove()).status).toBe(404);
    expect(await list()).toEqual([]);
  });

  test.each([
    [{ name: '', query: 'x' }],
    [{ name: 'x', query: ' ' }],
    [{ name: 'x', query: 'x', order: 'size' }],
    [{ name: 'x', query: 'y'.repeat(10_001) }],
  ])('refused, case %#', async (body) => {
    expect((await save(body)).status).toBe(400);
  });
});
