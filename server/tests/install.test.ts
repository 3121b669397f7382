import { afterAll, beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { z } from 'zod';
import * as manifestRoute from '@/app/manifest.webmanifest/route';
import * as iconRoute from '@/app/api/icons/[name]/route';
import * as shareRoute from '@/app/api/share/route';
import { firstWay } from '@/core/contracts/way';
import { addRoutine, listRoutines, orderRoutines, removeRoutine } from '../routines/routines';
import { getShot } from '../shots/rows';
import { at, begin, finish, gradientPng, request } from './setup';

beforeAll(begin);
afterAll(finish);

const schema = z.object({
  start_url: z.string(),
  icons: z.array(z.object({ src: z.string(), sizes: z.string(), purpose: z.string() })),
  shortcuts: z.array(
    z.object({ name: z.string(), url: z.string(), icons: z.array(z.object({ src: z.string() })) }),
  ),
  share_target: z.object({
    action: z.string(),
    params: z.object({ files: z.array(z.object({ accept: z.array(z.string()) })) }),
  }),
  file_handlers: z.array(z.object({ action: z.string() })),
});

const read = async () =>
  schema.parse(await (await manifestRoute.GET(request('/manifest.webmanifest'), at({}))).json());

test('the manifest offers the first routines, in their order, as shortcuts', async () => {
  const input = { key: null, systemKey: null, way: firstWay };
  const first = await addRoutine({ ...input, name: 'Guide step' });
  const second = await addRoutine({ ...input, name: 'Weekly beds' });
  await orderRoutines([second.id, first.id]);
  expect((await read()).shortcuts).toEqual(
    [
      { name: 'Weekly beds', description: 'Full screen', url: `/take?routine=${second.id}` },
      { name: 'Guide step', description: 'Full screen', url: `/take?routine=${first.id}` },
    ].map(({ name, url }) => ({ name, url, icons: [{ src: '/api/icons/192' }] })),
  );
  await removeRoutine(first.id);
  await removeRoutine(second.id);
  expect((await listRoutines()).map((r) => r.id)).not.toContain(first.id);
});

test('its icons are pictures of the size it says', async () => {
  for (const { src, sizes } of (await read()).icons) {
    const name = src.split('/').at(-1) ?? '';
    const answer = await iconRoute.GET(request(src), at({ name }));
    const { width, height } = await sharp(Buffer.from(await answer.arrayBuffer())).metadata();
    expect(`${width}x${height}`).toBe(sizes);
  }
  expect((await iconRoute.GET(request('/api/icons/7'), at({ name: '7' }))).status).toBe(404);
});

// Source: W3C, Web Application Manifest: what is cut off of a maskable icon lies beyond four fifths.
test('an icon fills any shape: what matters lies within four fifths of it', async () => {
  const maskable = (await read()).icons.find(({ purpose }) => purpose === 'maskable');
  const answer = await iconRoute.GET(request(maskable?.src ?? ''), at({ name: 'maskable' }));
  const { data, info } = await sharp(Buffer.from(await answer.arrayBuffer()))
    .raw()
    .toBuffer({ resolveWithObject: true });
  const corner = data.subarray(0, 3);
  for (let i = 0; i < info.width * info.height; i += 1) {
    const [x, y] = [
      (i % info.width) - info.width / 2,
      Math.floor(i / info.width) - info.height / 2,
    ];
    const at = i * info.channels;
    if (info.channels === 4 && data[at + 3] !== 255) throw new Error('it can be seen through');
    if (Math.hypot(x, y) <= 0.4 * info.width) continue;
    if (!data.subarray(at, at + 3).equals(corner)) throw new Error(`something lies at ${x}, ${y}`);
  }
  expect(info.width).toBe(512);
});

test('only pictures that are read are asked for', async () => {
  const { share_target: target } = await read();
  const accepted = target.params.files.flatMap(({ accept }) => accept);
  expect(accepted).toContain('image/bmp');
  expect(accepted.filter((type) => /svg|[*]|heic/.test(type))).toEqual([]);
});

async function share(headers: Record<string, string>): Promise<Response> {
  const form = new FormData();
  form.append('pictures', new File([new Uint8Array(await gradientPng(9, 5))], 'bed.png'));
  const packed = new Response(form);
  const body = await packed.arrayBuffer();
  const type = packed.headers.get('content-type') ?? '';
  return shareRoute.POST(
    request('/api/share', { method: 'POST', headers: { 'content-type': type, ...headers }, body }),
    at({}),
  );
}

test('a picture shared by the system becomes a shot and is opened', async () => {
  const answer = await share({ origin: 'null', 'sec-fetch-site': 'none' });
  expect(answer.status).toBe(303);
  const id = /^\/shots\/(.+)$/.exec(answer.headers.get('location') ?? '')?.[1] ?? '';
  expect(await getShot(id)).toMatchObject({ title: 'bed', width: 9, height: 5 });
});

test.each([
  [{ origin: 'null', 'sec-fetch-site': 'cross-site' }],
  [{ origin: 'null' }],
  [{ origin: 'http://other.example', 'sec-fetch-site': 'none' }],
])('a page of somebody else’s cannot share: %j', async (headers) => {
  expect((await share(headers)).status).toBe(403);
});

test('a routine with another’s key is refused', async () => {
  const input = { name: 'One', key: 'f5', systemKey: 'mod+alt+q', way: firstWay };
  const one = await addRoutine(input);
  await expect(addRoutine({ ...input, name: 'Two' })).rejects.toThrow('“One” has this key');
  await expect(addRoutine({ ...input, name: 'Two', key: null })).rejects.toThrow('“One”');
  await removeRoutine(one.id);
});
