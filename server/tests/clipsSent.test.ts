import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import type { Server } from 'node:http';
import { join } from 'node:path';
import { remoteInputSchema, type Remote } from '@/core/contracts/remote';
import { POST as copies } from '@/app/api/clips/[id]/copies/route';
import { GET as made } from '@/app/api/clips/[id]/copies/[job]/file/route';
import { addFolder } from '../folders/folders';
import { mediaDir } from '../media/files';
import { startPractice } from '../remote/practice';
import { addRemote } from '../remote/remotes';
import { listSendings } from '../remote/sendings';
import { film, shownIn } from './clipFilms';
import { codeOf, recorded, wanted } from './clipLib';
import { at, begin, finish, jsonRequest, request, testFolder } from './setup';

let server: Server;
let port = 0;
beforeAll(async () => {
  await begin();
  ({ server, port } = await startPractice({
    ...{ folder: testFolder('remote films'), username: 'wren', password: 'fern' },
  }));
}, 60_000);
afterAll(async () => {
  server.close();
  await finish();
});

const remoteOf = (name: string, url: string): Promise<Remote> =>
  addRemote(
    remoteInputSchema.parse({
      ...{ name, url, username: 'wren', password: 'fern', pattern: '{title}' },
      facts: { words: false, origin: false },
    }),
  );

test('a clip goes to a remote folder under the name that is made there, never over another', async () => {
  const remote = await remoteOf('Films', `http://127.0.0.1:${port}/`);
  const { id } = await recorded(film(20), { title: 'Seeds' });
  const wish = { folderId: null, remoteId: remote.id, format: 'mp4' as const };
  const { state, copy, sending, bytes, id: job } = await wanted(id, wish);
  expect({ state, copy }).toEqual({ state: 'done', copy: null });
  expect(sending).toMatchObject({ state: 'sent', remoteName: 'Films', size: bytes });
  const there = (name: string) => join(testFolder('remote films'), name);
  expect(sending?.name.endsWith('.mp4')).toBe(true);
  expect(shownIn(there(sending?.name ?? '')).numbers).toEqual(
    Array.from({ length: 20 }, (_, n) => n),
  );
  const tags = execFileSync('ffprobe', [
    '-loglevel',
    'error',
    '-show_entries',
    'format_tags',
    there(sending?.name ?? ''),
  ]);
  expect(tags.toString()).not.toContain('Seeds');
  const again = await wanted(id, { ...wish, format: 'webm' });
  const third = await wanted(id, wish);
  const names = [sending, again.sending, third.sending].map((one) => one?.name);
  expect(new Set(names).size).toBe(3);
  expect(await listSendings(id)).toHaveLength(3);
  // What went there is not to be fetched here, and nothing of it is left.
  expect(await codeOf(await made(request('/x'), at({ id, job })))).toEqual([404, 'not-found']);
  expect(readdirSync(mediaDir()).filter((name) => name.includes('.made.'))).toEqual([]);
});

test('where nobody answers it waits, as pictures do; to two places at once it does not go', async () => {
  const silent = await remoteOf('Away', 'http://127.0.0.1:9/');
  const { id } = await recorded(film(5));
  const { state, sending } = await wanted(id, {
    ...{ folderId: null, remoteId: silent.id, format: 'webm' },
  });
  expect(state).toBe('done');
  expect(sending).toMatchObject({ state: 'waiting', remoteName: 'Away' });
  expect(sending?.problem).toBeTruthy();
  const folder = await addFolder({ name: 'Both', path: testFolder('both') });
  const ask = (wish: object) =>
    copies(jsonRequest('/x', 'POST', { format: 'webm', ...wish }), at({ id }));
  expect(await codeOf(await ask({ folderId: folder.id, remoteId: silent.id }))).toEqual([
    400,
    'does-not-fit',
  ]);
  expect(await codeOf(await ask({ folderId: null, remoteId: id }))).toEqual([404, 'not-found']);
});
