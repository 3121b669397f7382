import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { copiesSchema, copySchema } from '@/core/contracts/folder';
import { OwnApp } from './lib/ownApp';
import { busyPng } from '@/tests/lib/pictures';

jest.setTimeout(120_000);

const data = join(process.env.REZZIK_DATA ?? '', 'disks');
const root = join(data, 'kept');
const disk = (name: string) => join(root, name);
const names = ['long', 'small', 'stick', 'sealed', 'closed', 'real'];

let app: OwnApp;
let shot: string;
beforeAll(async () => {
  for (const name of names) mkdirSync(disk(name), { recursive: true });
  const mounts = ['small', 'stick', 'sealed'].map(
    (name) => `mount -t tmpfs -o size=1m rezzik-${name} '${disk(name)}'`,
  );
  app = await OwnApp.start({
    data,
    databaseUrl: process.env.DATABASE_URL ?? '',
    mounts: mounts.join('\n'),
  });
  shot = await app.addShot(await busyPng(600, 400, 3), 'Bed');
});
afterAll(async () => {
  await app.end();
  rmSync(data, { recursive: true });
});

const refusalSchema = z.object({
  error: z.object({ code: z.string(), message: z.string() }),
  reason: z.string().optional(),
});

/** What keeping says when it fails. */
async function refused(folderId: string, more: object = {}) {
  const { status, body } = await app.post(`/api/shots/${shot}/copies`, { folderId, ...more });
  const { error, reason } = refusalSchema.parse(body);
  return { status, ...error, reason };
}

const add = (name: string, more: object = {}) =>
  app.addFolder({ name, path: disk(name), pattern: '{title}', ...more });

async function kept(folderId: string) {
  const { status, body } = await app.post(`/api/shots/${shot}/copies`, { folderId });
  expect(status).toBe(201);
  return copySchema.parse(body);
}

/** Names that the app sees in a folder, hidden ones too. */
const seenIn = (name: string): string[] =>
  app
    .inside(`ls -A '${disk(name)}'`)
    .split('\n')
    .filter((line) => line !== '');

describe('a disk that will not take it is said in plain words; the shot is safe; it works once mended', () => {
  afterAll(async () => {
    const answer = await fetch(`${app.url}/api/shots/${shot}/picture`);
    expect(answer.status).toBe(200);
    const { copies } = copiesSchema.parse(
      await (await fetch(`${app.url}/api/shots/${shot}/copies`)).json(),
    );
    expect(copies.map((copy) => copy.path).sort()).toEqual(
      ['closed', 'long', 'real/copies', 'sealed', 'small', 'stick/copies'].map((name) =>
        join(disk(name), 'Bed.png'),
      ),
    );
  });

  test('full', async () => {
    const { id } = await add('small');
    app.inside(`head -c 900000 /dev/zero > '${disk('small')}/others'`);
    expect(await refused(id)).toMatchObject({
      status: 507,
      code: 'disk-full',
      message: `There is no space left for ${disk('small')}.`,
    });
    expect(seenIn('small')).toEqual(['others']);
    app.inside(`rm '${disk('small')}/others'`);
    await kept(id);
    expect(seenIn('small')).toEqual(['Bed.png']);
  });

  test('unplugged', async () => {
    const { id } = await add('stick', { path: disk('stick/copies'), make: true });
    app.inside(`umount '${disk('stick')}'`);
    expect(await refused(id)).toMatchObject({
      status: 409,
      code: 'folder-missing',
      message: `The folder ${disk('stick/copies')} is not there.`,
    });
    expect(seenIn('stick')).toEqual([]);
    app.inside(`mount -t tmpfs rezzik-stick '${disk('stick')}' && mkdir '${disk('stick/copies')}'`);
    await kept(id);
  });

  test('read-only', async () => {
    const { id } = await add('sealed');
    app.inside(`mount -o remount,ro '${disk('sealed')}'`);
    const said = await refused(id);
    expect(said).toMatchObject({ status: 409, code: 'folder-read-only' });
    expect(said.reason).toMatch(/EROFS/);
    app.inside(`mount -o remount,rw '${disk('sealed')}'`);
    await kept(id);
  });

  test('a file where the folder was, and then a link', async () => {
    const { id, path } = await add('real', { path: disk('real/copies'), make: true });
    app.inside(`rmdir '${path}' && touch '${path}'`);
    expect(await refused(id)).toMatchObject({
      status: 409,
      code: 'not-a-folder',
      message: `A part of ${path} is a file, not a folder.`,
    });
    app.inside(`rm '${path}' && ln -s '${disk('closed')}' '${path}'`);
    expect(await refused(id)).toMatchObject({
      code: 'through-link',
      message: `This path goes through a link. Its real place is ${disk('closed')}.`,
    });
    expect(seenIn('closed')).toEqual([]);
    app.inside(`rm '${path}' && mkdir '${path}'`);
    await kept(id);
  });

  test('a path longer than file systems allow', async () => {
    const { id } = await add('long');
    const wordy = await app.addShot(await busyPng(60, 40, 4), 'b'.repeat(230));
    const name = Array.from({ length: 30 }, () => '{title}').join('/');
    const { status, body } = await app.post(`/api/shots/${wordy}/copies`, { folderId: id, name });
    expect(status).toBe(400);
    expect(refusalSchema.parse(body).error.message).toMatch(/longer than/);
    expect(seenIn('long')).toEqual([]);
    await kept(id);
  });

  test('permission lost', async () => {
    const { id } = await add('closed');
    app.inside(`chmod 500 '${disk('closed')}'`);
    const said = await refused(id);
    expect(said).toMatchObject({
      status: 409,
      code: 'folder-read-only',
      message: `Rezzik may not write into ${disk('closed')}.`,
    });
    expect(said.reason).toMatch(/EACCES/);
    app.inside(`chmod 700 '${disk('closed')}'`);
    await kept(id);
  });
});
