import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { existsSync, readdirSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { thenStepSchema, type ThenStep } from '@/core/places/registry';
import { doSteps, type Doers, type Hearer } from '@/core/take/run';
import { pageDoers } from '@/features/keep/places';
import { folderInputSchema } from '@/core/contracts/folder';
import { addFolder, removeFolder } from '../folders/folders';
import { serverDoers } from '../places';
import { storeShot } from '../shots/store';
import { begin, finish, gradientPng, request, testFolder } from './setup';

const NOBODY = '00000000-0000-4000-8000-000000000000';
let shot: string;
let path: string;

/** Answers a page's request by the route that the app would have called. */
async function answered(
  address: string,
  init: Parameters<typeof request>[1] = {},
): Promise<Response> {
  const url = new URL(address, 'http://127.0.0.1');
  const params: Record<string, string> = {};
  let folder = 'app';
  for (const part of url.pathname.split('/').filter(Boolean)) {
    const named = existsSync(join(folder, part));
    const any = readdirSync(folder).find((name) => name.startsWith('['));
    if (!named && any) params[any.slice(1, -1)] = part;
    folder = join(folder, named ? part : (any ?? part));
  }
  const routes = (await import(`@/${folder}/route`)) as Record<
    string,
    (request: Request, context: { params: Promise<object> }) => Promise<Response>
  >;
  const asked = request(`${url.pathname}${url.search}`, init);
  const act = routes[init.method ?? 'GET'];
  if (!act) throw new Error(`${folder} answers no ${init.method ?? 'GET'}`);
  return act(asked, { params: Promise.resolve(params) });
}

beforeAll(async () => {
  await begin();
  Object.assign(globalThis, { fetch: answered });
  shot = (await storeShot({ picture: await gradientPng(60, 40) })).id;
  path = testFolder('places');
});
afterAll(async () => {
  await rm(path, { recursive: true, force: true });
  await finish();
});

/** What is said of each step, in the order in which it is. */
async function said<S>(steps: readonly ThenStep[], of: S, doers: Doers<S>): Promise<string[]> {
  const lines: string[] = [];
  const hear: Hearer = {
    done: (_, words) => lines.push(words),
    failed: (_, words) => lines.push(words),
  };
  await doSteps(steps, of, { doers, hear });
  return lines;
}
const tag = (...tags: string[]): ThenStep => thenStepSchema.parse({ do: 'tag', tags });
const keep = (folderId: string | null): ThenStep => ({ do: 'keep', folderId });

/** The same for both: what one of them does otherwise is a mistake of one. */
describe.each([
  ['the page', pageDoers],
  ['the server', serverDoers],
])('%s', (side, doers) => {
  const run = (steps: readonly ThenStep[], id = shot) =>
    said(steps, { id, leaves: { format: null, size: null } }, doers as typeof serverDoers);

  test('says what is missing, and goes on with what follows', async () => {
    expect(await run([keep(null), tag('Frost'), keep(NOBODY), tag('Beds')])).toEqual([
      'Not kept in a folder. No default folder is set up yet.',
      'Tagged: Frost',
      'Not kept in a folder. Its folder is gone.',
      'Tagged: Beds',
    ]);
  });

  test('keeps, tags and hands on in order, in the format and size of the way', async () => {
    const name = `Beds of ${side}`;
    const input = { name, path, pattern: side.replace(' ', '-'), isDefault: true };
    const { id } = await addFolder(folderInputSchema.parse(input));
    const leaves = { format: 'webp' as const, size: { percent: 50 } };
    const steps = [keep(null), tag('Kept'), keep(id)];
    const lines = await said(steps, { id: shot, leaves }, doers as typeof serverDoers);
    expect(lines[0]).toMatch(/^Kept: .*\.webp$/);
    expect(lines[1]).toBe('Tagged: Kept');
    expect(lines[2]).toMatch(/^Kept: .*\.webp$/);
    await removeFolder(id);
  });

  test('makes a link, and says where it is unless it is on the clipboard', async () => {
    const [line] = await run([{ do: 'link' }]);
    expect(line).toMatch(/^(The link is copied|Link: http:\/\/127\.0\.0\.1.*)$/);
  });

  test('fails in the same words for what is not there', async () => {
    const steps: ThenStep[] = [{ do: 'program', program: 'Nothing' }, { do: 'link' }, tag('Frost')];
    expect(await run([{ do: 'send', remoteId: NOBODY }])).toEqual([
      'Not sent. There is no such remote folder.',
    ]);
    expect(await run(steps, NOBODY)).toEqual([
      'Not handed on. No default folder is set up yet.',
      'No link. There is no such shot.',
      'Not tagged. There is no such shot.',
    ]);
  });
});
