import { afterAll, beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { POST } from '@/app/api/stitch/route';
import { getFrame, getShot } from '../shots/rows';
import { listShots } from '../shots/list';
import { busyPng } from '@/tests/lib/pictures';
import { at, begin, finish, request } from './setup';

beforeAll(begin);
afterAll(finish);

const WIDTH = 320;
const SEEN = 240;

const cut = (page: Buffer, top: number, height = SEEN): Promise<Buffer> =>
  sharp(page).extract({ left: 0, top, width: WIDTH, height }).png().toBuffer();
const raw = (picture: Buffer): Promise<Buffer> => sharp(picture).ensureAlpha().raw().toBuffer();

/** A page of which each row is another one. */
const pageOf = async (height: number, seed: number): Promise<Buffer> =>
  cut(await busyPng(WIDTH, height * 2, seed), 0, height);

/** Sends pictures in fields of these names. */
async function send(
  frames: readonly (readonly [field: string, picture: Buffer])[],
  words: Record<string, string> = {},
): Promise<{
  status: number;
  body: { id: string; height: number; error: { code: string; message: string } };
}> {
  const form = new FormData();
  for (const [field, picture] of frames)
    form.append(field, new Blob([new Uint8Array(picture)]), 'page.png');
  for (const [name, value] of Object.entries(words)) form.set(name, value);
  const packed = new Response(form);
  const answer = await POST(
    request('/api/stitch', {
      method: 'POST',
      headers: { 'content-type': packed.headers.get('content-type') ?? '' },
      body: await packed.arrayBuffer(),
    }),
    at({}),
  );
  return { status: answer.status, body: (await answer.json()) as never };
}
const total = async () => (await listShots({ limit: 1, bin: false })).total;

test('pictures of something that was scrolled become one shot, in the order of their fields', async () => {
  const page = await pageOf(700, 5);
  const frames = await Promise.all([0, 120, 270, 420, 460].map((top) => cut(page, top)));
  const named = frames.map((frame, i) => [`frame00${i}`, frame] as const);
  const { status, body } = await send([...named].reverse(), { title: 'Plant register' });
  expect([status, body.height]).toEqual([201, 700]);
  const shot = await getShot(body.id);
  expect(shot).toMatchObject({ title: 'Plant register', provenance: { source: 'api', frames: 5 } });
  expect((await raw(Buffer.from((await getFrame(body.id)).bytes))).equals(await raw(page))).toBe(
    true,
  );
});

test('one that does not join is named, and nothing is stored', async () => {
  const [page, other] = [await pageOf(400, 5), await pageOf(SEEN, 77)];
  const before = await total();
  const { status, body } = await send([
    ['frame000', await cut(page, 0)],
    ['frame001', await cut(page, 100)],
    ['frame002', other],
  ]);
  expect([status, body.error.code]).toEqual([422, 'no-seam']);
  expect(body.error.message).toMatch(/^frame002 does not join/);
  expect(await total()).toBe(before);
});

test.each([
  [
    'another size',
    422,
    'other-size',
    async (page: Buffer) => [
      ['frame000', await cut(page, 0)],
      ['frame001', await cut(page, 90, 100)],
    ],
  ],
  ['no picture', 400, 'no-picture', () => Promise.resolve([])],
  [
    'one field twice',
    400,
    'bad-request',
    async (page: Buffer) => [
      ['frame000', await cut(page, 0)],
      ['frame000', await cut(page, 90)],
    ],
  ],
  [
    'something else',
    415,
    'not-a-picture',
    () => Promise.resolve([['frame000', Buffer.from('beds')]]),
  ],
  [
    'too many',
    413,
    'too-large',
    (page: Buffer) =>
      Promise.resolve(
        Array.from({ length: 501 }, (_, i) => [
          `frame${String(i).padStart(3, '0')}`,
          page.subarray(0, 10),
        ]),
      ),
  ],
] as const)('%s is refused in words', async (_, status, code, frames) => {
  const sent = (await frames(await pageOf(400, 5))) as [string, Buffer][];
  const answer = await send(sent);
  expect([answer.status, answer.body.error.code]).toEqual([status, code]);
});
