import { afterAll, beforeAll, expect, test } from '@jest/globals';
import * as healthRoute from '@/app/api/health/route';
import * as settingsRoute from '@/app/api/settings/route';
import { firstSettings, settingsAnswerSchema, settingsSchema } from '@/core/contracts/settings';
import { sql } from '../db/sql';
import { migrate } from '../db/migrate';
import { at, begin, finish, jsonRequest, request } from './setup';

beforeAll(async () => {
  await begin();
  await sql()`delete from settings`;
});
afterAll(finish);

const get = async () =>
  settingsSchema.parse(await (await settingsRoute.GET(request(''), at({}))).json());
const patch = (body: unknown) => settingsRoute.PATCH(jsonRequest('', 'PATCH', body), at({}));

test('settings begin as at first, and a change touches only what it names', async () => {
  expect(await get()).toEqual(firstSettings);
  expect((await patch({ way: { delay: 2.5 } })).status).toBe(200);
  expect((await patch({ sound: true, way: { then: [{ do: 'copy' }] } })).status).toBe(200);
  expect(await get()).toEqual({
    ...firstSettings,
    sound: true,
    way: { ...firstSettings.way, delay: 2.5, then: [{ do: 'copy' }] },
  });
});

test('what a newer Rezzik stored, or nobody can read, is told and kept, whatever is changed', async () => {
  const strange = {
    sound: 'loud',
    later: { depth: 3 },
    way: { delay: 4, kind: 'hologram', lens: 2 },
  };
  await sql()`update settings set value = ${sql().json(strange)}`;
  const answer = settingsAnswerSchema.parse(
    await (await settingsRoute.GET(request(''), at({}))).json(),
  );
  expect(answer).toMatchObject({ sound: firstSettings.sound, way: { delay: 4, kind: 'full' } });
  expect(answer.problem).toContain('sound');
  expect((await patch({ notice: false, way: { pointer: true } })).status).toBe(200);
  const [row] = await sql()`select value from settings`;
  expect(row?.value).toEqual({
    ...strange,
    notice: false,
    way: { ...strange.way, pointer: true },
  });
  expect(await get()).toMatchObject({ notice: false, way: { delay: 4, pointer: true } });
});

test('a row that holds no settings at all is set aside, not overwritten', async () => {
  await sql()`update settings set value = '"lost"'`;
  expect(await get()).toEqual(firstSettings);
  expect((await patch({ sound: true })).status).toBe(200);
  expect(await get()).toEqual({ ...firstSettings, sound: true });
  const [row] = await sql()`select unread from settings`;
  expect(row?.unread).toBe('lost');
  await sql()`delete from settings`;
});

test.each([{ delay: 61 }, { delay: -1 }, { delay: 'x' }, { unknown: 1 }, [], 'text'])(
  '%j is refused',
  async (body) => {
    const before = await get();
    expect((await patch(body)).status).toBe(400);
    expect(await get()).toEqual(before);
  },
);

test('what is no JSON is refused', async () => {
  const headers = { 'content-type': 'application/json' };
  const broken = request('', { method: 'PATCH', headers, body: '{"delay": 1' });
  expect((await settingsRoute.PATCH(broken, at({}))).status).toBe(400);
  const typeless = request('', { method: 'PATCH', body: '{}' });
  expect((await settingsRoute.PATCH(typeless, at({}))).status).toBe(415);
});

test('health answers, and migrations are applied once', async () => {
  expect(await (await healthRoute.GET(request(''), at({}))).json()).toEqual({
    ok: true,
    name: 'Rezzik',
  });
  expect(await migrate()).toEqual([]);
});
