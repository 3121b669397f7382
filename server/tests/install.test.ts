import { afterAll, beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { z } from 'zod';
import * as manifestRoute from '@/app/manifest.webmanifest/route';
import * as iconRoute from '@/app/api/icons/[size]/route';
import * as shareRoute from '@/app/api/share/route';
import { firstWay } from '@/core/contracts/way';
import { addRoutine, listRoutines, orderRoutines, removeRoutine } from '../routines/routines';
import { getShot } from '../shots/rows';
import { at, begin, finish, gradientPng, request } from './setup';

beforeAll(begin);
afterAll(finish);

const schema = z.object({
  start_url: z.string(),
  icons: z.array(z.object({ src: z.string(), sizes: z.string() })),
  shortcuts: z.array(z.object({ name: z.string(), url: z.string() })),
  share_target: z.object({ action: z.string() }),
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
    ].map(({ name, url }) => ({ name, url })),
  );
  await removeRoutine(first.id);
  await removeRoutine(second.id);
  expect((await listRoutines()).map((r) => r.id)).not.toContain(first.id);
});

test('its icons are pictures of the size it says', async () => {
  for (const { src, sizes } of (await read()).icons) {
    const size = src.split('/').at(-1) ?? '';
    const answer = await iconRoute.GET(request(src), at({ size }));
    const { width, height } = await sharp(Buffer.from(await answer.arrayBuffer())).metadata();
    expect(`${width}x${height}`).toBe(sizes);
  }
  expect((await iconRoute.GET(request('/api/icons/7'), at({ size: '7' }))).status).toBe(404);
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
