import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { GET as room } from '@/app/api/room/route';
import { GET as unkept } from '@/app/api/room/unkept/route';
import { roomSchema, unkeptSchema } from '@/core/contracts/room';
import { env } from '../base/env';
import { closeSql, sql } from '../db/sql';
import { addFolder } from '../folders/folders';
import { addGuide } from '../guides/guides';
import { keepCopy } from '../keep/copies';
import { binUnkept } from '../room/unkept';
import { changeSettings } from '../settings/settings';
import { getFrame, getShot } from '../shots/rows';
import { binShot, duplicateShot, eraseShot, storeShot } from '../shots/store';
import { setTags } from '../tags/tags';
import { at, begin, finish, gradientPng, request, testFolder } from './setup';

beforeAll(begin);
afterAll(async () => {
  await finish();
});

const context = at({});
const used = async () => roomSchema.parse(await (await room(request('/api/room'), context)).json());
const preview = (days: string) => unkept(request(`/api/room/unkept?days=${days}`), context);
const shot = async (title: string, picture?: Buffer) =>
  (await storeShot({ picture: picture ?? (await gradientPng(40, 30)), title })).id;
const aged = (id: string, days: number) =>
  sql()`update shots set created_at = now() - ${days} * interval '1 day',
    changed_at = now() - ${days} * interval '1 day' where id = ${id}`;
const frames = async (): Promise<number> =>
  (await sql()<{ n: number }[]>`select count(*)::int as n from frames`)[0]?.n ?? 0;

test('equal frames are stored once, and go with the last shot of them', async () => {
  const picture = await gradientPng(64, 48);
  const before = await frames();
  const first = await shot('One', picture);
  const second = await shot('The same again', picture);
  expect(await frames()).toBe(before + 1);
  expect((await getFrame(first)).sha256).toBe((await getFrame(second)).sha256);
  await binShot(first);
  await eraseShot(first);
  expect(await frames()).toBe(before + 1);
  expect((await getShot(second)).width).toBe(64);
  await binShot(second);
  await eraseShot(second);
  expect(await frames()).toBe(before);
});

test('two at once of the same picture leave no frame that nobody shows', async () => {
  const picture = await gradientPng(66, 48);
  const ids = await Promise.all(Array.from({ length: 6 }, (_, i) => shot(`Many ${i}`, picture)));
  const rows = await sql()`select 1 from frames f
    where not exists (select 1 from shots s where s.frame_id = f.id)`;
  expect(rows).toHaveLength(0);
  // The last one is erased while another one comes: whichever is first, none is lost.
  await Promise.all(ids.map((id) => binShot(id)));
  const [, id] = await Promise.all([
    Promise.all(ids.map((one) => eraseShot(one))),
    shot('Comes just then', picture),
  ]);
  expect((await getFrame(id)).bytes.length).toBeGreaterThan(100);
});

test('what is used is told by kind and month, each frame once', async () => {
  const before = await used();
  const id = await shot('Old beds', await gradientPng(300, 200));
  await duplicateShot(id, {});
  const { bytes } = await getFrame(id);
  await sql()`update frames set created_at = '2026-09-15' where id =
    (select frame_id from shots where id = ${id})`;
  await sql()`update shots set created_at = '2026-09-16' where id = ${id}`;
  const after = await used();
  const september = after.months.find(({ month }) => month === '2026-09');
  expect(september).toMatchObject({ shots: 1, frames: bytes.length });
  expect(after.months.map(({ month }) => month).slice(0, 2)).toEqual(['2026-09', '2026-10']);
  const of = (one: typeof after, kind: string) =>
    one.kinds.find((each) => each.kind === kind)?.bytes ?? 0;
  expect(of(after, 'frames') - of(before, 'frames')).toBe(bytes.length);
  expect(of(after, 'marks')).toBeGreaterThan(of(before, 'marks'));
  expect(after.whole).toBeGreaterThan(of(after, 'frames'));
  expect(after.free).toBeGreaterThan(0);
  const left = z
    .object({ low: z.boolean(), free: z.number() })
    .parse(await (await room(request('/api/room?left'), context)).json());
  expect(left.low).toBe(left.free < 5_000_000_000);
});

test('the rule shows what it would do, spares what was kept, and does nothing at first', async () => {
  const folder = await addFolder({ name: 'Room', path: testFolder('room') });
  const [alone, kept, tagged, guided, young] = [
    await shot('Alone'),
    await shot('Kept'),
    await shot('Tagged'),
    await shot('In a guide'),
    await shot('Young'),
  ];
  await keepCopy(kept, { folderId: folder.id });
  await setTags(tagged, ['beds']);
  await addGuide({ title: 'Ordering', shots: [guided] });
  for (const id of [alone, kept, tagged, guided]) await aged(id, 40);
  await aged(young, 20);
  const { count, shots } = unkeptSchema.parse(await (await preview('30')).json());
  expect(shots.some(({ id }) => id === alone)).toBe(true);
  expect(shots.some(({ id }) => [kept, tagged, guided, young].includes(id))).toBe(false);
  expect(await binUnkept()).toBe(0);
  await changeSettings({ unkeptDays: 30 });
  expect(await binUnkept()).toBe(count);
  const where = await Promise.all([alone, kept, tagged, guided, young].map((id) => getShot(id)));
  expect(where.map(({ binnedAt }) => binnedAt !== null)).toEqual([
    true,
    false,
    false,
    false,
    false,
  ]);
  expect(unkeptSchema.parse(await (await preview('30')).json()).count).toBe(0);
  for (const odd of ['0', '-3', 'many', '9999', '2.5']) {
    expect((await preview(odd)).status).toBe(400);
  }
});

test('where the database does not tell its place, what is free is not known, and nothing fails', async () => {
  const own = new URL(env().databaseUrl);
  const [role, secret] = [`rezzik_${randomUUID().replaceAll('-', '')}`, 'a-secret'];
  await sql().unsafe(`create role ${role} login password '${secret}'`);
  await sql().unsafe(`grant pg_read_all_data to ${role}`);
  await closeSql();
  process.env.DATABASE_URL = Object.assign(new URL(own), { username: role, password: secret }).href;
  expect((await used()).free).toBeNull();
  await closeSql();
  process.env.DATABASE_URL = own.href;
  await sql().unsafe(`drop role ${role}`);
});
