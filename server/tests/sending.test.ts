import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import {
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
  chmodSync,
} from 'node:fs';
import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import { join } from 'node:path';
import * as linksRoute from '@/app/api/links/route';
import * as settingsRoute from '@/app/api/settings/route';
import { linkInputSchema, linksSchema } from '@/core/contracts/link';
import { remoteInputSchema } from '@/core/contracts/remote';
import { sql } from '../db/sql';
import { env } from '../base/env';
import { addFolder } from '../folders/folders';
import { keepCopy } from '../keep/copies';
import { answerLink } from '../links/answer';
import { listLinks, makeLink, openedLinks, takeBack } from '../links/links';
import { openBase } from '../links/base';
import { openLinks } from '../door/listener';
import { listPrograms, openCopy } from '../programs/programs';
import { startPractice } from '../remote/practice';
import { workDue } from '../jobs/run';
import { listSendings, sendTo } from '../remote/sendings';
import { addRemote } from '../remote/remotes';
import { getSettings } from '../settings/settings';
import {
  at,
  begin,
  finish,
  jsonRequest,
  request,
  sizeOf,
  storeTelling,
  telling,
  testFolder,
} from './setup';

const nothing = () => Promise.resolve();
let shot: string;
beforeAll(async () => {
  await begin();
  shot = await storeTelling();
});
afterAll(finish);
jest.setTimeout(90_000);

describe('links', () => {
  test('show the picture, count views, end, and are taken back at once', async () => {
    const link = await makeLink(shot, linkInputSchema.parse({ mostViews: 2 }));
    expect(link.path).toMatch(/^\/v\/[A-Za-z0-9_-]{22}$/);
    const page = await answerLink(link.path);
    expect(page.status).toBe(200);
    expect(Buffer.from(page.body).toString('utf8')).toContain(`alt="${telling.description}"`);
    expect(page.headers).toMatchObject({
      'Referrer-Policy': 'no-referrer',
      'Cache-Control': 'no-store',
    });
    const inPage = /src="data:image\/png;base64,([^"]+)"/.exec(Buffer.from(page.body).toString());
    expect(await sizeOf(Buffer.from(inPage?.[1] ?? '', 'base64'))).toEqual([240, 160]);
    const picture = await answerLink(link.picturePath);
    expect(await sizeOf(picture.body)).toEqual([240, 160]);
    expect((await answerLink(link.path)).status).toBe(404);
    expect((await answerLink(link.picturePath)).status).toBe(404);
    expect((await listLinks(shot)).find((l) => l.id === link.id)).toMatchObject({
      ended: true,
      views: 2,
    });
    const other = await makeLink(shot, linkInputSchema.parse({}));
    await takeBack(other.id);
    expect((await answerLink(other.path)).status).toBe(404);
    const ended = await makeLink(
      shot,
      linkInputSchema.parse({ days: 1 }),
      new Date(Date.now() - 2 * 86_400_000),
    );
    expect((await openedLinks()).map((l) => l.id)).not.toContain(ended.id);
    expect((await answerLink(ended.path)).status).toBe(404);
    // A clock that is set back opens nothing again.
    const before = new Date(Date.now() - 1.5 * 86_400_000);
    expect((await answerLink(ended.path, { now: before })).status).toBe(404);
  });

  test('open ones are listed over all shots', async () => {
    const link = await makeLink(shot, linkInputSchema.parse({ mostViews: 1 }));
    const listed = async () => {
      const answer = await linksRoute.GET(request('/api/links'), at({}));
      return linksSchema.parse(await answer.json()).links.find(({ id }) => id === link.id);
    };
    expect(await listed()).toMatchObject({ title: 'Beds', views: 0, mostViews: 1 });
    await answerLink(link.path);
    expect(await listed()).toBeUndefined();
  });

  test('the second door shows links and nothing else', async () => {
    const link = await makeLink(shot, linkInputSchema.parse({}));
    await openLinks(24_311, nothing);
    expect(openBase()).toMatch(/:24311$/);
    const get = (path: string) => fetch(`http://127.0.0.1:24311${path}`);
    expect((await get(link.path)).status).toBe(200);
    for (const path of [
      '/',
      '/shelf',
      '/api/shots',
      '/api/health',
      `/api/shots/${shot}/picture`,
      '/v/',
      '/v/../api/shots',
    ]) {
      expect((await get(path)).status).toBe(404);
    }
    expect((await fetch(`http://127.0.0.1:24311${link.path}`, { method: 'POST' })).status).toBe(
      404,
    );
    expect((await fetch(`http://127.0.0.1:24311${link.path}`, { method: 'HEAD' })).status).toBe(
      200,
    );
    expect((await listLinks(shot)).find((l) => l.id === link.id)?.views).toBe(1);
    await openLinks(null, nothing);
    await expect(get(link.path)).rejects.toThrow();
  });

  test('the door and its setting never disagree', async () => {
    const patch = (linkPort: number | null) =>
      settingsRoute.PATCH(jsonRequest('/api/settings', 'PATCH', { linkPort }), at({}));
    const ports = [24_312, 24_313, null, 24_314, 24_312];
    await Promise.all(ports.map(patch));
    // Which of them came last is chance; that both say the same is not.
    const opened = openBase()?.split(':').at(-1);
    expect((await getSettings()).linkPort).toBe(opened === undefined ? null : Number(opened));
    await patch(24_312);
    expect(openBase()).toMatch(/:24312$/);
    const taken = createServer().listen(24_315, '0.0.0.0');
    await once(taken, 'listening');
    const refused = await patch(24_315);
    expect(refused.status).toBe(409);
    expect(await refused.json()).toMatchObject({
      error: { message: 'Port 24315 is in use by another program.' },
    });
    taken.close();
    await expect(
      openLinks(24_314, () => Promise.reject(new Error('The database is away.'))),
    ).rejects.toThrow('away');
    expect(openBase()).toMatch(/:24312$/);
    await expect(fetch('http://127.0.0.1:24314/')).rejects.toThrow();
    await patch(null);
    expect(openBase()).toBeNull();
  });
});

// RFC 4918, over the stand-in that ships with the app.
describe('remote folder', () => {
  const servers: Server[] = [];
  // Whatever fails, nothing stays open.
  afterAll(() => servers.forEach((server) => server.close()));
  const close = (server: Server) =>
    new Promise<void>((resolve) => {
      server.closeAllConnections();
      server.close(() => resolve());
    });
  const practice = async (...given: Parameters<typeof startPractice>) => {
    const started = await startPractice(...given);
    servers.push(started.server);
    return started;
  };
  const remote = (port: number, more: object = {}) =>
    addRemote(
      remoteInputSchema.parse({
        name: 'Shed',
        url: `http://127.0.0.1:${port}/`,
        username: 'wren',
        password: 'fern',
        pattern: '{date:yyyy}/{title}',
        ...more,
      }),
    );

  test('gets files in subfolders and overwrites none', async () => {
    const folder = testFolder('remote');
    const { server, port } = await practice({ folder, username: 'wren', password: 'fern' });
    const { id } = await remote(port);
    const [a, b] = [await sendTo(shot, id), await sendTo(shot, id)];
    expect([a.problem, b.problem]).toEqual([null, null]);
    expect(readdirSync(join(folder, '2026')).sort()).toEqual(['Beds-2.png', 'Beds.png']);
    expect(await sizeOf(readFileSync(join(folder, '2026', 'Beds.png')))).toEqual([240, 160]);
    await close(server);
  });

  test('what cannot be sent waits, says why, and is sent later', async () => {
    const folder = testFolder('remote-later');
    const { server, port } = await practice({ folder, username: 'wren', password: 'fern' });
    const { id } = await remote(port);
    await close(server);
    const waiting = await sendTo(shot, id);
    expect(waiting).toMatchObject({
      state: 'waiting',
      problem: 'The other machine does not answer. Nothing listens there; is the port right?',
    });
    expect((await listSendings()).map((s) => s.id)).toContain(waiting.id);
    const back = await practice({ folder, username: 'wren', password: 'fern' }, port);
    // The next try seems days off after the clock was set back: it is due all the same.
    await sql()`update jobs set due_at = now() + interval '3 days' where id = ${waiting.id}`;
    await workDue();
    expect((await listSendings(shot)).find((s) => s.id === waiting.id)).toMatchObject({
      state: 'sent',
      problem: null,
    });
    expect(existsSync(join(folder, '2026', 'Beds.png'))).toBe(true);
    const [row] = await sql()<
      { bytes: Buffer | null }[]
    >`select bytes from sendings where id = ${waiting.id}`;
    expect(row?.bytes).toBeNull();
    await close(back.server);
  });

  test('a wrong password and a full server are said', async () => {
    const folder = testFolder('remote-full');
    const { server, port } = await practice({
      folder,
      username: 'wren',
      password: 'fern',
      mostBytes: 10,
    });
    const wrong = await sendTo(shot, (await remote(port, { password: 'moss' })).id);
    expect(wrong.problem).toContain('did not accept the name or the password');
    const full = await sendTo(shot, (await remote(port)).id);
    expect(full.problem).toBe('The remote folder is full.');
    await close(server);
  });
});

describe('programs', () => {
  test('only listed ones start, their arguments never pass a shell', async () => {
    const list = join(env().dataDir, 'programs.json');
    const out = join(testFolder('programs'), 'out.txt');
    mkdirSync(env().dataDir, { recursive: true });
    const script = join(testFolder('programs'), 'note.mjs');
    writeFileSync(
      script,
      `import { writeFileSync } from 'node:fs'; writeFileSync(${JSON.stringify(out)}, JSON.stringify(process.argv.slice(2)));`,
    );
    writeFileSync(
      list,
      JSON.stringify([
        { name: 'Note', command: process.execPath, args: [script, '$(touch /tmp/no); echo'] },
      ]),
    );
    chmodSync(list, 0o600);
    const { id: folderId } = await addFolder({
      name: 'Programs',
      path: testFolder('programs-copies'),
      pattern: '{title} $(id)',
    });
    const copy = await keepCopy(shot, { folderId });
    await expect(openCopy(copy.id, 'Other')).rejects.toMatchObject({ status: 404 });
    await openCopy(copy.id, 'Note');
    for (let i = 0; i < 100 && !existsSync(out); i += 1)
      await new Promise((r) => setTimeout(r, 50));
    await new Promise((r) => setTimeout(r, 100));
    expect(JSON.parse(readFileSync(out, 'utf8'))).toEqual(['$(touch /tmp/no); echo', copy.path]);
    chmodSync(list, 0o666);
    expect(await listPrograms()).toMatchObject({
      programs: [],
      problem: expect.stringContaining('can be written by others'),
    });
    rmSync(list);
    expect(await listPrograms()).toMatchObject({ programs: [], problem: null });
  });
});
