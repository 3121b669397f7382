import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { remoteInputSchema } from '@/core/contracts/remote';
import { DavServer, wren } from '@/tests/lib/davServer';
import type { To } from '../remote/dav';
import { addRemote, changeRemote } from '../remote/remotes';
import { sendFile, tryOut } from '../remote/send';
import { sendAgain, sendTo } from '../remote/sendings';
import { begin, finish, storeTelling } from './setup';

/** Remote folders that nobody here wrote: Apache and nginx from Debian's packages, on loopback. */

jest.setTimeout(90_000);

const started: DavServer[] = [];
async function start(...how: Parameters<typeof DavServer.start>): Promise<DavServer> {
  const server = await DavServer.start(...how);
  started.push(server);
  return server;
}
beforeAll(begin);
afterAll(async () => {
  await Promise.all(started.map((server) => server.close()));
  await finish();
});

const never = new AbortController().signal;
const bytes = Buffer.from('the picture');
const toOf = (server: DavServer, more: Partial<To> = {}): To => ({
  ...{ url: server.url, ...wren, readable: false, fingerprint: null },
  ...more,
});
const send = (to: To, guard: 'header' | 'move' | 'none', name = 'a.png') =>
  sendFile(to, {
    ...{ name, bytes, guard, trying: null, signal: never },
    note: () => Promise.resolve(),
  });

describe('Apache', () => {
  test('seventy files of one name are seventy uploads, none over another', async () => {
    const server = await start('apache', { login: 'basic' });
    expect(await tryOut(toOf(server), never)).toBe('header');
    const before = server.asked().filter((line) => line.startsWith('PUT')).length;
    for (let i = 0; i < 70; i += 1) await send(toOf(server), 'header');
    expect(readdirSync(server.kept)).toHaveLength(70);
    const puts = () => server.asked().filter((line) => line.startsWith('PUT')).length - before;
    // It writes them down a little later.
    while (puts() < 70) await pause(20);
    expect(puts()).toBe(70);
  });

  test('Digest: the password itself is never sent', async () => {
    const server = await start('apache', { login: 'digest' });
    expect(await tryOut(toOf(server), never)).toBe('header');
    expect((await send(toOf(server), 'header', 'Beds/Störung.png')).name).toBe('Beds/Störung.png');
    expect(readFileSync(join(server.kept, 'Beds', 'Störung.png')).equals(bytes)).toBe(true);
    expect(server.asked().some((line) => line.includes('Digest username'))).toBe(true);
    expect(server.asked().some((line) => line.includes('Basic'))).toBe(false);
    const wrong = send(toOf(server, { password: 'moss' }), 'header');
    await expect(wrong).rejects.toThrow('did not accept the name or the password');
  });

  test('a file that is too large is told of as that', async () => {
    const server = await start('apache', { login: 'basic', most: 5 });
    await expect(send(toOf(server), 'header')).rejects.toThrow('does not take files of this size');
  });

  test('ended in the middle of an upload, and started again: the file is there once', async () => {
    const server = await start('apache', { login: 'basic' });
    const shot = await storeTelling();
    const input = {
      name: 'Restarted',
      url: server.url,
      ...wren,
      format: 'bmp',
      pattern: '{title}',
    };
    const { id } = await addRemote(remoteInputSchema.parse(input));
    await server.stop();
    const sending = await sendTo(shot, id);
    expect(sending).toMatchObject({ state: 'waiting', problem: expect.stringContaining('answer') });
    await server.begin();
    const again = sendAgain(sending.id);
    await pause(5);
    await server.stop();
    await again;
    await server.begin();
    expect(await sendAgain(sending.id)).toMatchObject({ state: 'sent' });
    expect(readdirSync(server.kept).filter((name) => name.startsWith('Beds'))).toHaveLength(1);
  });

  test('an address under which others see it is looked at once it is there', async () => {
    const server = await start('apache', { login: 'basic' });
    const shot = await storeTelling();
    const input = { name: 'Seen', url: server.url, ...wren, pattern: 'Beds & more/{title}' };
    const address = `${server.url}seen/{name}`;
    const { id } = await addRemote(remoteInputSchema.parse({ ...input, address }));
    expect(await sendTo(shot, id)).toMatchObject({
      state: 'sent',
      address: `${server.url}seen/Beds%20%26%20more/Beds.png`,
      addressProblem: null,
    });
    await changeRemote(id, { address: `${server.url}nowhere/{name}` });
    const unseen = await sendTo(shot, id);
    expect(unseen).toMatchObject({ state: 'sent', address: null });
    expect(unseen.addressProblem).toContain('It is not seen at');
  });
});

describe('certificates', () => {
  let server: DavServer;
  beforeAll(async () => void (server = await start('apache', { login: 'basic', tls: true })));

  test('one that nobody vouches for is refused with its fingerprint, before a word is sent', async () => {
    const input = { name: 'Unknown', url: server.url, ...wren };
    const refused = addRemote(remoteInputSchema.parse(input));
    await expect(refused).rejects.toMatchObject({
      status: 409,
      code: 'certificate',
      message: expect.stringContaining('is signed by itself alone'),
      more: { fingerprint: server.fingerprint },
    });
    expect(server.asked()).toEqual([]);
  });

  test('one that was not there when it was set up can be trusted when it is edited', async () => {
    const away = await start('apache', { login: 'basic', tls: true });
    await away.stop();
    const { id } = await addRemote(
      remoteInputSchema.parse({ name: 'Away', url: away.url, ...wren, pattern: '{title}' }),
    );
    await away.begin();
    const shot = await storeTelling();
    expect((await sendTo(shot, id)).problem).toContain('is signed by itself alone');
    const { fingerprint } = away;
    await expect(changeRemote(id, { name: 'Farther away' })).rejects.toMatchObject({
      code: 'certificate',
      more: { fingerprint },
    });
    await changeRemote(id, { name: 'Farther away', fingerprint });
    expect(await sendTo(shot, id)).toMatchObject({ state: 'sent' });
  });

  test('the very one that is trusted will do, and no other', async () => {
    const { fingerprint } = server;
    expect(await tryOut(toOf(server, { fingerprint }), never)).toBe('header');
    expect((await send(toOf(server, { fingerprint }), 'header')).name).toBe('a.png');
    const other = fingerprint.replace(/^../, fingerprint.startsWith('00') ? '01' : '00');
    await expect(send(toOf(server, { fingerprint: other }), 'header')).rejects.toMatchObject({
      choice: 'certificate',
    });
  });

  test('http where TLS is spoken, and https where it is not, are told apart', async () => {
    const url = server.url.replace('https', 'http');
    await expect(send(toOf(server, { url }), 'header')).rejects.toThrow(
      'should the address begin with https',
    );
    const plain = await start('nginx', { login: 'basic' });
    const tls = plain.url.replace('http', 'https');
    await expect(send(toOf(plain, { url: tls }), 'header')).rejects.toThrow(
      'should the address begin with http?',
    );
    const secure = await start('nginx', { login: 'basic', tls: true });
    const open = secure.url.replace('https', 'http');
    await expect(send(toOf(secure, { url: open }), 'header')).rejects.toThrow(
      'should the address begin with https',
    );
  });
});

test('nginx: what is there is not overwritten, though it does not heed If-None-Match', async () => {
  const server = await start('nginx', { login: 'basic' });
  expect(await tryOut(toOf(server), never)).toBe('move');
  expect(readdirSync(server.kept)).toEqual([]);
  writeFileSync(join(server.kept, 'a.png'), 'theirs');
  expect((await send(toOf(server), 'move')).name).toBe('a-2.png');
  expect(readFileSync(join(server.kept, 'a.png'), 'utf8')).toBe('theirs');
  expect(readdirSync(server.kept).sort()).toEqual(['a-2.png', 'a.png']);
});
