import { randomBytes } from 'node:crypto';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import sharp from 'sharp';
import { GET as getFrameAt } from '@/app/api/shots/[id]/frame/route';
import { POST } from '@/app/api/shots/route';
import { sql } from '../db/sql';
import { sha256 } from '../frames/intake';
import { readForm } from '../http/form';
import { at, begin, finish, request } from './setup';

beforeAll(begin);
afterAll(finish);
jest.setTimeout(60_000);

const EDGE = 'edge-of-the-bed';
const part = (head: string, body: Uint8Array | string) =>
  Buffer.concat([
    Buffer.from(`--${EDGE}\r\n${head}\r\n\r\n`),
    Buffer.from(body),
    Buffer.from('\r\n'),
  ]);
const field = (name: string, value: string) =>
  part(`Content-Disposition: form-data; name="${name}"`, value);
const file = (name: string, called: string, bytes: Uint8Array) =>
  part(
    `Content-Disposition: form-data; name="${name}"; filename="${called}"\r\nContent-Type: image/png`,
    bytes,
  );
const end = Buffer.from(`--${EDGE}--\r\n`);

const form = (parts: readonly Buffer[], type = `multipart/form-data; boundary=${EDGE}`) =>
  request('/api/shots', {
    method: 'POST',
    headers: { 'Content-Type': type },
    body: new Uint8Array(Buffer.concat(parts)),
  });

test('fields and files come as they were sent: the first of a name, any bytes, any letters', async () => {
  const bytes = randomBytes(3_000_000);
  const read = await readForm(
    form([
      field('title', 'Ørsted’s bed'),
      field('title', 'another'),
      field('empty', ''),
      file('frame', 'Größe 種.png', bytes),
      file('frame', 'second.png', Buffer.from(`not --${EDGE} yet`)),
      end,
    ]),
  );
  expect(read.words('title')).toBe('Ørsted’s bed');
  expect([read.words('empty'), read.words('none')]).toEqual([undefined, undefined]);
  const [first, second] = read.files('frame');
  expect(first?.name).toBe('Größe 種.png');
  expect(bytes.equals(first?.bytes ?? new Uint8Array())).toBe(true);
  expect(Buffer.from(second?.bytes ?? []).toString()).toBe(`not --${EDGE} yet`);
  expect(read.files('title')).toEqual([]);
});

test.each([
  ['cut off in the middle of a file', [file('frame', 'a.png', randomBytes(200_000))]],
  ['without an end', [field('title', 'Bed')]],
  ['that is no form at all', [randomBytes(5_000)]],
  ['of nothing', []],
])('a form %s is said to be unreadable, and the next one is read', async (_, parts) => {
  const answer = await POST(form(parts), at({}));
  expect(answer.status).toBe(400);
  expect(await answer.json()).toMatchObject({ error: { code: 'not-a-form' } });
  expect((await readForm(form([field('title', 'Bed'), end]))).words('title')).toBe('Bed');
});

test('a form of too many files, or with too large a field, is refused in words', async () => {
  const many = Array.from({ length: 1_001 }, (_, i) => file('frame', `${i}.png`, Buffer.from('x')));
  const files = await POST(form([...many, end]), at({}));
  expect([files.status, await files.json()]).toMatchObject([
    413,
    { error: { message: 'This form has more than 1000 files.' } },
  ]);
  const large = field('document', `"${'x'.repeat(16_000_001)}"`);
  const fields = await POST(form([large, end]), at({}));
  expect([fields.status, await fields.json()]).toMatchObject([
    413,
    { error: { message: 'This form has too large a field.' } },
  ]);
});

test('a form without a boundary is said to be unreadable', async () => {
  const answer = await POST(form([field('title', 'Bed'), end], 'multipart/form-data'), at({}));
  expect([answer.status, await answer.json()]).toMatchObject([
    400,
    { error: { code: 'not-a-form' } },
  ]);
});

test('a frame and an original of several pieces are stored and given back whole', async () => {
  const size = { width: 1200, height: 900, channels: 3 as const };
  const noise = randomBytes(size.width * size.height * 3);
  const tiff = await sharp(noise, { raw: size }).tiff({ compression: 'none' }).toBuffer();
  const answer = await POST(form([file('frame', 'noise.tif', tiff), end]), at({}));
  const { id } = (await answer.json()) as { id: string };
  const [row] = await sql()<{ original: Buffer; type: string; sha256: string; bytes: Buffer }[]>`
    select f.original, f.original_type as type, f.sha256, f.bytes
    from frames f join shots s on s.frame_id = f.id where s.id = ${id}`;
  expect(row?.type).toBe('tiff');
  expect(row?.original.equals(tiff)).toBe(true);
  const frame = await getFrameAt(request(`/api/shots/${id}/frame`), at({ id }));
  const bytes = Buffer.from(await frame.arrayBuffer());
  expect(bytes.length).toBeGreaterThan(2_000_000);
  expect(bytes.equals(row?.bytes ?? Buffer.alloc(0))).toBe(true);
  expect(sha256(bytes)).toBe(row?.sha256);
  expect((await sharp(bytes).raw().toBuffer()).equals(noise)).toBe(true);
});
