import { readdirSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { z } from 'zod';
import { stepsSchema, shotSchema } from '@/core/contracts/shot';
import { untouched } from '@/core/document/view';
import { json, sql } from '../db/sql';
import { storeShot } from '../shots/store';
import { at, begin, finish, gradientPng, jsonRequest, request } from './setup';

type Route = (request: Request, context: ReturnType<typeof at>) => Promise<Response>;
type Routes = Partial<Record<'GET' | 'POST' | 'PUT', Route>>;

/** What is sent to each address of a shot that takes something; the others are only asked. */
const bodies: Record<string, [method: 'POST' | 'PUT', body: unknown][]> = {
  '.': [['PUT', { revision: 1, document: untouched({ width: 60, height: 40 }) }]],
  bin: [['POST', undefined]],
  restore: [['POST', undefined]],
  copies: [['POST', { folderId: '00000000-0000-4000-8000-000000000000' }]],
  duplicates: [['POST', {}]],
  links: [['POST', { format: 'png', hours: 1 }]],
  mail: [['POST', { to: '', subject: '', format: 'png' }]],
  rest: [['POST', { revision: 1, others: false }]],
  sendings: [['POST', { remoteId: '00000000-0000-4000-8000-000000000000' }]],
  words: [['POST', undefined]],
};
const folder = 'app/api/shots/[id]';
/** Below a shot's own address, `.`; those that name another one, too. */
const addresses = readdirSync(folder, { recursive: true, encoding: 'utf8' })
  .filter((path) => basename(path) === 'route.ts')
  .map((path) => dirname(path));

let picture: Buffer;
beforeAll(async () => {
  await begin();
  picture = await gradientPng(60, 40);
});
afterAll(finish);

/** A shot with the document and the step of undo that a later Rezzik has stored. */
async function newerShot(): Promise<string> {
  const { id } = await storeShot({ picture });
  const document = { version: 99, view: {}, marks: [{ kind: 'hologram' }] };
  const step = { version: 99, label: 'Bend light', patches: [], inverse: [] };
  await sql()`update shots set document = ${json(document)} where id = ${id}`;
  await sql()`insert into steps (shot_id, position, step) values (${id}, 0, ${json(step)})`;
  return id;
}

const errorSchema = z.object({ error: z.object({ code: z.string(), message: z.string() }) });

test.each(addresses)('%s of a shot of a newer Rezzik never fails inside', async (name) => {
  const id = await newerShot();
  const routes = (await import(`@/${folder}/${name === '.' ? '' : `${name}/`}route`)) as Routes;
  const address = `/api/shots/${id}/${name.replace('[other]', id)}`;
  const params = at({ id, other: id });
  const answers = [await routes.GET?.(request(address), params)];
  for (const [method, body] of bodies[name] ?? []) {
    answers.push(await routes[method]?.(jsonRequest(address, method, body), params));
  }
  expect(answers.some((answer) => answer)).toBe(true);
  for (const answer of answers) {
    expect(answer?.status ?? 0).toBeLessThan(500);
    if (answer?.status !== 409) continue;
    const { error } = errorSchema.parse(await answer.json());
    expect(error).toEqual({
      code: 'newer-document',
      message: 'A newer Rezzik has marked this shot. It is safe; open it with that one.',
    });
  }
});

test('it stands on the Shelf, and is as it was whatever was asked', async () => {
  const id = await newerShot();
  const { GET } = await import('@/app/api/shots/route');
  const page = await GET(request('/api/shots'), at({}));
  expect(page.status).toBe(200);
  expect(JSON.stringify(await page.json())).toContain(id);
  const [row] = await sql()`select document ->> 'version' as version from shots where id = ${id}`;
  expect(row?.version).toBe('99');
});

test('what an older Rezzik stored is read as this one would have, its steps too', async () => {
  const { id } = await storeShot({ picture });
  const box = { x: 4, y: 4, width: 20, height: 12, colour: '#0072B2', outline: 2 };
  const mark = { id: 'a', kind: 'box', ...box, plain: true };
  const { view } = untouched({ width: 60, height: 40 });
  const patch = { op: 'add', path: ['marks', 0], value: mark };
  const step = { label: 'Add box', patches: [patch], inverse: [] };
  await sql()`update shots set document = ${json({ version: 1, view, marks: [mark] })},
    step_position = 1 where id = ${id}`;
  await sql()`insert into steps (shot_id, position, step) values (${id}, 0, ${json(step)})`;
  const [shots, steps] = await Promise.all([
    import('@/app/api/shots/[id]/route'),
    import('@/app/api/shots/[id]/steps/route'),
  ]);
  const shot = shotSchema.parse(await (await shots.GET(request('/'), at({ id }))).json());
  expect(shot.document).toMatchObject({ version: 6, marks: [{ standsOut: false }] });
  const stored = stepsSchema.parse(await (await steps.GET(request('/'), at({ id }))).json());
  expect(stored.steps).toMatchObject([{ version: 6, patches: [{ value: { standsOut: false } }] }]);
});
