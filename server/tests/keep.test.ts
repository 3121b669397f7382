import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { mkdirSync, readFileSync, readdirSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import * as folderRoute from '@/app/api/folders/[id]/route';
import * as foldersRoute from '@/app/api/folders/route';
import * as copiesRoute from '@/app/api/shots/[id]/copies/route';
import { copiesSchema, folderSchema, foldersSchema } from '@/core/contracts/folder';
import { sql } from '../db/sql';
import { addFolder } from '../folders/folders';
import { keepFault } from '../folders/place';
import { sha256 } from '../frames/intake';
import { keepCopy } from '../keep/copies';
import { mendCopies } from '../keep/mend';
import { storeShot } from '../shots/store';
import { at, begin, finish, gradientPng, jsonRequest, request, testFolder } from './setup';

let shot: string;
beforeAll(async () => {
  await begin();
  shot = (await storeShot({ picture: await gradientPng(60, 40), title: 'Slip' })).id;
});
afterAll(finish);
jest.setTimeout(60_000);

const folder = async (name: string, more: object = {}) => {
  const path = testFolder(name);
  return addFolder({ name, path, pattern: '{title}', ...more });
};
const post = (body: unknown) =>
  foldersRoute.POST(jsonRequest('/api/folders', 'POST', body), at({}));

describe('keeping', () => {
  test('writes the whole file, says where, and never overwrites', async () => {
    const { id: folderId, path } = await folder('plain');
    writeFileSync(join(path, 'Slip.png'), 'somebody else’s');
    const first = await keepCopy(shot, { folderId });
    const second = await keepCopy(shot, { folderId });
    expect([first.path, second.path]).toEqual([join(path, 'Slip-2.png'), join(path, 'Slip-3.png')]);
    expect(readFileSync(join(path, 'Slip.png'), 'utf8')).toBe('somebody else’s');
    const bytes = readFileSync(first.path);
    expect(first).toMatchObject({ bytes: bytes.length, sha256: sha256(bytes), format: 'png' });
    expect(readdirSync(path).filter((name) => name.endsWith('.part'))).toEqual([]);
    const listed = copiesSchema.parse(
      await (await copiesRoute.GET(request(''), at({ id: shot }))).json(),
    );
    expect(listed.copies.map((c) => c.id)).toEqual(expect.arrayContaining([first.id, second.id]));
  });

  test.each(['{title}', '{title}-{n:3}'])('fifty at once by %s never collide', async (pattern) => {
    const { id: folderId, path } = await folder(`fifty ${pattern.length}`, { pattern });
    const copies = await Promise.all(
      Array.from({ length: 50 }, () => keepCopy(shot, { folderId })),
    );
    expect(new Set(copies.map((c) => c.path)).size).toBe(50);
    expect(readdirSync(path)).toHaveLength(50);
  });

  test('the request may ask for another format, quality and name', async () => {
    const { id: folderId, path } = await folder('wish');
    const answer = await copiesRoute.POST(
      jsonRequest('', 'POST', { folderId, format: 'jpeg', quality: 40, name: '{title} {size}' }),
      at({ id: shot }),
    );
    expect(answer.status).toBe(201);
    expect(await answer.json()).toMatchObject({ path: join(path, 'Slip 60x40.jpg') });
    const wrong = await copiesRoute.POST(
      jsonRequest('', 'POST', { folderId, quality: 101 }),
      at({ id: shot }),
    );
    expect(wrong.status).toBe(400);
    const odd = await copiesRoute.POST(
      jsonRequest('', 'POST', { folderId, name: '../../{title}' }),
      at({ id: shot }),
    );
    expect(odd.status).toBe(400);
    expect(await odd.json()).toMatchObject({
      error: { message: expect.stringContaining('cannot be “.” or “..”') as unknown as string },
    });
  });

  test('a folder that is gone is said, the shot stays, and it works again once it is back', async () => {
    const { id: folderId, path } = await folder('gone');
    rmSync(path, { recursive: true });
    const answer = await copiesRoute.POST(jsonRequest('', 'POST', { folderId }), at({ id: shot }));
    expect(answer.status).toBe(409);
    const body = (await answer.json()) as { error: { code: string }; reason: string };
    expect(body.error.code).toBe('folder-missing');
    expect(body.reason).toContain('ENOENT');
    mkdirSync(path);
    expect((await keepCopy(shot, { folderId })).path).toBe(join(path, 'Slip.png'));
  });

  test.each([
    ['ENOSPC', 507, 'disk-full'],
    ['EDQUOT', 507, 'disk-full'],
    ['EROFS', 409, 'folder-read-only'],
    ['EACCES', 409, 'folder-read-only'],
    ['ENAMETOOLONG', 400, 'name-too-long'],
    ['EIO', 500, 'not-kept'],
  ])('%s is said in plain words', (code, status, name) => {
    const fault = keepFault(Object.assign(new Error(code), { code }), '/somewhere');
    expect([fault.status, fault.code]).toEqual([status, name]);
    expect(fault.message).not.toContain(code);
  });

  test('numbers count on in their folder, or for their pattern in every folder that has it', async () => {
    const pattern = 'Bed {n:2}';
    const [alone, one, other] = [
      await folder('count alone', { pattern }),
      await folder('count one', { pattern, numberBy: 'pattern' }),
      await folder('count other', { pattern, numberBy: 'pattern' }),
    ];
    const names: string[] = [];
    for (const { id: folderId } of [one, other, alone, one])
      names.push(basename((await keepCopy(shot, { folderId })).path));
    names.push(basename((await keepCopy(shot, { folderId: one.id, name: 'Else {n}' })).path));
    expect(names).toEqual(['Bed 01.png', 'Bed 02.png', 'Bed 01.png', 'Bed 03.png', 'Else 1.png']);
    const { folders } = foldersSchema.parse(
      await (await foldersRoute.GET(request(''), at({}))).json(),
    );
    const next = [alone, one, other].map(({ id }) => folders.find((f) => f.id === id)?.nextNumber);
    expect(next).toEqual([2, 4, 4]);
  });
});

test('a crash between file and row is mended; what is not ours or out of reach stays', async () => {
  const path = testFolder('crash');
  const bytes = Buffer.from('a file that got its name');
  writeFileSync(join(path, 'whole.png'), bytes);
  writeFileSync(join(path, 'theirs.png'), '');
  writeFileSync(join(path, 'holder.png'), '.left.part');
  writeFileSync(join(path, '.left.part'), 'half');
  const row = (id: string, file: string, folder = path) =>
    sql()`insert into copies (id, shot_id, path, part_path, format, bytes, sha256)
      values (${id}, ${shot}, ${file && join(folder, file)}, ${join(folder, '.left.part')}, 'png', 24,
        ${sha256(bytes)})`;
  const [named, ...lost] = [1, 2, 3, 4].map((n) => `00000000-0000-4000-8000-00000000000${n}`);
  const away = '00000000-0000-4000-8000-000000000009';
  await row(named ?? '', 'whole.png');
  for (const [i, file] of ['', 'theirs.png', 'holder.png'].entries())
    await row(lost[i] ?? '', file);
  await row(away, 'whole.png', join(path, 'unplugged'));
  expect(await mendCopies()).toEqual({ confirmed: 1, removed: 3, left: 1 });
  expect(readdirSync(path).sort()).toEqual(['theirs.png', 'whole.png']);
  const rows = await sql()<
    { id: string; confirmed: boolean }[]
  >`select id, confirmed from copies where id = any(${[named ?? '', away, ...lost]})
    order by id`;
  expect(rows.map((r) => [r.id, r.confirmed])).toEqual([
    [named, true],
    [away, false],
  ]);
  await sql()`delete from copies where id = ${away}`;
});

describe('folders', () => {
  test('are added, edited, made the default and forgotten; files stay', async () => {
    const path = join(testFolder('made'), 'deep', 'er');
    expect((await post({ name: 'Made', path })).status).toBe(400);
    const answer = await post({ name: 'Made', path, make: true, format: 'jpeg' });
    expect(answer.status).toBe(201);
    const made = folderSchema.parse(await answer.json());
    writeFileSync(join(path, 'keep me'), 'x');
    const patched = await folderRoute.PATCH(
      jsonRequest('', 'PATCH', { name: 'Renamed', isDefault: true }),
      at(made),
    );
    expect(await patched.json()).toMatchObject({
      name: 'Renamed',
      isDefault: true,
      format: 'jpeg',
    });
    const { folders } = foldersSchema.parse(
      await (await foldersRoute.GET(request(''), at({}))).json(),
    );
    expect(folders.filter((f) => f.isDefault)).toHaveLength(1);
    expect((await folderRoute.DELETE(request('', { method: 'DELETE' }), at(made))).status).toBe(
      204,
    );
    expect(readdirSync(path)).toEqual(['keep me']);
  });

  test('outside the roots, through a link, a file, a relative path: refused in plain words', async () => {
    const base = testFolder('refused');
    symlinkSync('/tmp', join(base, 'link'));
    symlinkSync(testFolder('target'), join(base, 'inner'));
    writeFileSync(join(base, 'file'), 'x');
    const wrong: [string, string][] = [
      ['/etc', 'outside-roots'],
      [join(base, '../../../../etc'), 'outside-roots'],
      [`${base}-beside/../../x`, 'outside-roots'],
      [join(base, 'link'), 'through-link'],
      [join(base, 'link/new'), 'through-link'],
      [join(base, 'inner'), 'through-link'],
      [join(base, 'file'), 'not-a-folder'],
      ['kept/here', 'bad-path'],
      [join(base, 'missing'), 'folder-missing'],
    ];
    for (const [path, code] of wrong) {
      const answer = await post({ name: 'No', path });
      expect([
        path,
        answer.status,
        ((await answer.json()) as { error: { code: string } }).error.code,
      ]).toEqual([path, 400, code]);
    }
    expect((await post({ name: 'No', path: `${base}\u0000x` })).status).toBe(400);
    expect((await post({ name: 'No', path: join(base, 'x'.repeat(300)), make: true })).status).toBe(
      400,
    );
    expect((await post({ name: '', path: base })).status).toBe(400);
    expect((await post({ name: 'No', path: base, pattern: '{nope}' })).status).toBe(400);
  });

  test('a folder that turns into a link later takes nothing', async () => {
    const { id: folderId, path } = await folder('turned');
    rmSync(path, { recursive: true });
    symlinkSync('/tmp', path);
    await expect(keepCopy(shot, { folderId })).rejects.toMatchObject({ code: 'through-link' });
  });
});
