import { afterAll, beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { connect } from 'node:net';
import { networkInterfaces } from 'node:os';
import sharp from 'sharp';
import * as oneRoute from '@/app/api/phone/[id]/route';
import * as phoneRoute from '@/app/api/phone/route';
import { limits } from '@/core/values/limits';
import { phoneSchema } from '@/core/contracts/phone';
import { sql } from '../db/sql';
import { openLinks } from '../door/listener';
import { LASTS, lastOffer, makeOffer } from '../phone/offers';
import { getShot } from '../shots/rows';
import { begin, finish, request } from './setup';
import { shared } from '../base/shared';

/** The second door, where a phone sends one picture: asked over HTTP as a phone does. */

const PORT = 24_377;
const nothing = () => Promise.resolve();
let photo: Buffer;

beforeAll(async () => {
  await begin();
  await openLinks(PORT, nothing);
  photo = await sharp({ create: { width: 64, height: 48, channels: 3, background: '#009E73' } })
    .jpeg()
    .toBuffer();
});
beforeEach(() => void shared('phone', () => ({ offers: [] })).offers.splice(0));
afterAll(async () => {
  await openLinks(null, nothing);
  await finish();
});

const none = { params: Promise.resolve({}) };
const offered = async () =>
  phoneSchema.parse(
    await (await phoneRoute.POST(request('/api/phone', { method: 'POST' }), none)).json(),
  );
const state = async () =>
  phoneSchema.parse(await (await phoneRoute.GET(request('/api/phone'), none)).json());
const pathOf = (address = ''): string => new URL(address).pathname;

function send(path: string, bytes: Uint8Array = photo, name = 'garden.jpg'): Promise<Response> {
  const form = new FormData();
  form.set('picture', new Blob([new Uint8Array(bytes)], { type: 'image/jpeg' }), name);
  return fetch(`http://127.0.0.1:${PORT}${path}`, { method: 'POST', body: form });
}
const look = (path: string, method = 'GET') => fetch(`http://127.0.0.1:${PORT}${path}`, { method });

describe('one picture of a phone', () => {
  test('is let in once, as an opened picture with its name, and nothing after it', async () => {
    const { open, offer } = await offered();
    expect(open).toBe(true);
    const path = pathOf(offer?.address);
    expect(path).toMatch(/^\/p\/[\w-]{22}$/);
    const page = await look(path);
    expect(page.status).toBe(200);
    expect(page.headers.get('content-security-policy')).toContain("default-src 'none'");
    expect(page.headers.get('content-security-policy')).toContain("form-action 'self'");
    expect(await page.text()).toContain('type="file"');
    const sent = await send(path);
    expect(sent.status).toBe(200);
    expect(await sent.text()).toContain('on the computer now');
    const now = (await state()).offer;
    expect(now).toMatchObject({ state: 'arrived', problem: null });
    const shot = await getShot(now?.shot ?? '');
    expect(shot.title).toBe('garden');
    expect(shot.provenance).toMatchObject({ source: 'opened', fileName: 'garden.jpg' });
    for (const again of [await send(path), await look(path)]) {
      expect(again.status).toBe(410);
      expect(await again.text()).toContain('was sent by this address already');
    }
    expect(await sql()`select 1 from shots`).toHaveLength(1);
    await sql()`truncate shots cascade`;
  });

  test('too late: the address has ended, and so has one that was taken back or replaced', async () => {
    const late = await offered();
    const clock = jest.spyOn(Date, 'now').mockReturnValue(Date.now() + LASTS + 1);
    const refused = await send(pathOf(late.offer?.address));
    expect(refused.status).toBe(410);
    expect(await refused.text()).toContain('has ended');
    expect((await state()).offer?.state).toBe('ended');
    clock.mockRestore();
    const first = (await offered()).offer;
    const second = (await offered()).offer;
    expect((await look(pathOf(first?.address))).status).toBe(410);
    const gone = await oneRoute.DELETE(request(`/api/phone/${second?.id}`, { method: 'DELETE' }), {
      params: Promise.resolve({ id: second?.id ?? '' }),
    });
    expect(gone.status).toBe(204);
    expect((await send(pathOf(second?.address))).status).toBe(410);
    expect(await sql()`select 1 from shots`).toHaveLength(0);
  });

  test.each([
    ['no picture at all', Buffer.from('not a picture'), 'words.jpg', 415],
    ['an empty file', Buffer.alloc(0), 'empty.jpg', 400],
  ])(
    '%s is told in words, and the address is good for another try',
    async (_, bytes, name, status) => {
      const path = pathOf((await offered()).offer?.address);
      const refused = await send(path, bytes, name);
      expect(refused.status).toBe(status);
      const words = await refused.text();
      expect(words).toContain('Not sent');
      expect(words).toContain('type="file"');
      expect((await state()).offer).toMatchObject({ state: 'waiting', shot: null });
      expect((await state()).offer?.problem).toBeTruthy();
      expect((await send(path)).status).toBe(200);
      await sql()`truncate shots cascade`;
    },
  );

  test('too large: told, not stored', async () => {
    const path = pathOf((await offered()).offer?.address);
    const large = await send(path, Buffer.alloc(limits.formBytes + 1));
    expect(large.status).toBe(413);
    expect(await large.text()).toContain('MB');
    expect(lastOffer()?.state).toBe('waiting');
    expect(await sql()`select 1 from shots`).toHaveLength(0);
  }, 60_000);

  test('a phone that leaves in the middle leaves nothing, and may come again', async () => {
    const path = pathOf((await offered()).offer?.address);
    const socket = connect(PORT, '127.0.0.1');
    const head =
      `POST ${path} HTTP/1.1\r\nHost: rezzik\r\nContent-Type: multipart/form-data; boundary=b\r\n` +
      'Content-Length: 90000\r\n\r\n--b\r\nContent-Disposition: form-data; name="picture"; filename="a.jpg"\r\n\r\n';
    socket.write(head);
    await until(() => lastOffer()?.state === 'arriving');
    // Somebody else with the same address is told to wait.
    expect((await send(path)).status).toBe(409);
    socket.destroy();
    await until(() => lastOffer()?.state === 'waiting');
    expect(lastOffer()?.problem).toContain('did not arrive whole');
    expect((await send(path)).status).toBe(200);
    expect(await sql()`select 1 from shots`).toHaveLength(1);
    await sql()`truncate shots cascade`;
  });

  test('the address is the one by which this computer goes out', async () => {
    const { offer } = await offered();
    const host = new URL(offer?.address ?? '').hostname;
    // Source: ip-route(8), asked for the way to an address of documentation (RFC 5737).
    const way = spawnSync('ip', ['-4', 'route', 'get', '192.0.2.1'], { encoding: 'utf8' }).stdout;
    const source = / src (\S+)/.exec(way)?.[1];
    const own = Object.values(networkInterfaces()).flatMap((list) => list ?? []);
    if (source) expect(host).toBe(source);
    else expect(own.map((one) => one.address)).toContain(host);
  });

  test('a name of odd characters and great length is no trouble', async () => {
    const path = pathOf((await offered()).offer?.address);
    expect((await send(path, photo, `\u202eگل😀${'w'.repeat(8_000)}.jpg`)).status).toBe(200);
    await sql()`truncate shots cascade`;
  });
});

async function until(holds: () => boolean): Promise<void> {
  for (let i = 0; i < 400 && !holds(); i += 1) await new Promise((wait) => setTimeout(wait, 25));
  expect(holds()).toBe(true);
}

test.each([
  ['GET', '/p/none'],
  ['POST', '/p/'],
  ['POST', '/p/..%2fapi%2fshots'],
  ['POST', '/v/none'],
  ['POST', '/api/shots'],
  ['GET', '/api/phone'],
  ['PUT', '/p/none'],
  ['GET', '/take'],
])('%s %s: nothing else is behind the second door', async (method, path) => {
  expect((await look(path, method)).status).toBe(404);
});

test('while the door is closed there is no address', async () => {
  await openLinks(null, nothing);
  expect(() => makeOffer()).toThrow('The second door is closed');
  const refused = await phoneRoute.POST(request('/api/phone', { method: 'POST' }), none);
  expect(refused.status).toBe(409);
  expect((await state()).open).toBe(false);
  await openLinks(PORT, nothing);
});
