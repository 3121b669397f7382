import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { POST as pressed } from '@/app/api/clips/[id]/pressed/route';
import { clipSchema } from '@/core/contracts/clip';
import { limits } from '@/core/values/limits';
import { undo } from '@/core/document/history';
import { getSteps } from '../shots/change';
import { getShot } from '../shots/rows';
import { film, HEIGHT, WIDTH } from './clipFilms';
import { begun, codeOf, ended, look, piece } from './clipLib';
import { at, begin, finish, jsonRequest } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const did = (id: string, what: unknown): Promise<Response> =>
  pressed(jsonRequest('/x', 'POST', what), at({ id }));

test('what a hand did comes bit by bit, and lies on the clip as marks in one step of undo', async () => {
  const id = randomUUID();
  const crop = { x: 40, y: 20, width: 100, height: 60 };
  await begun(id, { shown: { crop, of: { width: WIDTH, height: HEIGHT } } });
  await piece(id, 0, film(30));
  expect((await did(id, [{ at: 0.5, x: 60, y: 40 }])).status).toBe(204);
  expect((await did(id, [])).status).toBe(204);
  const keys = [...'ab'].map((key, i) => ({ at: 1 + i / 10, key }));
  expect((await did(id, keys)).status).toBe(204);
  expect((await ended(id, 1)).status).toBe(200);
  const { document } = clipSchema.parse((await look(id)).told);
  expect(document).toMatchObject({
    view: { crop },
    marks: [
      { kind: 'oval', x: 50, y: 30, width: 20, height: 20, time: { from: 7, to: 17 } },
      { kind: 'text', text: 'ab', time: { from: 16, to: 30 } },
    ],
  });
  const before = undo({ ...(await getSteps(id)), document: (await getShot(id)).document });
  expect(before.document).toMatchObject({ view: { crop }, marks: [] });
  expect(before.position).toBe(0);
  expect((await did(id, keys)).status).toBe(409);
});

test('what does not fit is said, and more than can be shown is left', async () => {
  expect(await codeOf(await did(randomUUID(), []))).toEqual([404, 'not-found']);
  const id = randomUUID();
  await begun(id);
  for (const odd of [[{ at: -1, key: 'a' }], [{ at: 0, key: '' }], [{ at: 0, x: 1 }], { at: 0 }])
    expect(await codeOf(await did(id, odd))).toEqual([400, 'does-not-fit']);
  const most = Array.from({ length: limits.marks }, (_, i) => ({ at: i / 20_000, x: 1, y: 1 }));
  expect((await did(id, most)).status).toBe(204);
  expect((await did(id, [{ at: 9, x: 2, y: 2 }])).status).toBe(204);
  await piece(id, 0, film(15));
  await ended(id, 1);
  const { document } = clipSchema.parse((await look(id)).told);
  expect(document.marks).toHaveLength(limits.marks);
}, 60_000);
