import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import postgres from 'postgres';
import { z } from 'zod';
import { archiveSchema } from '@/core/contracts/archive';
import { OwnApp } from './lib/ownApp';
import { busyPng } from '@/tests/lib/pictures';

jest.setTimeout(120_000);

const data = join(process.env.REZZIK_DATA ?? '', 'archived');
const databaseUrl = process.env.DATABASE_URL ?? '';
const file = join(data, 'out', 'all.zip');

beforeAll(() => void mkdirSync(join(data, 'out'), { recursive: true }));
afterAll(() => rmSync(data, { recursive: true }));

/** Runs the command as a person does. */
function archive(...given: string[]): { code: number | null; said: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['bin/archive.mjs', ...given], {
    env: { ...process.env, DATABASE_URL: databaseUrl, REZZIK_DATA: data, DISPLAY: '' },
    encoding: 'utf8',
  });
  return { code: status, said: stdout + stderr };
}

test('the Rezzik that runs writes everything, or what fits; what cannot be done is said', async () => {
  const app = await OwnApp.start({ data, databaseUrl });
  writeFileSync(
    join(data, 'running.json'),
    JSON.stringify({ starter: app.pid, app: app.pid, port: app.port }),
  );
  await app.addShot(await busyPng(60, 40, 3), 'Bed');
  await app.addShot(await busyPng(70, 40, 4), 'Seed list');
  const out = archive(file);
  expect(out.said).toMatch(/all\.zip, [\d.]+ MB/);
  expect(out.said).not.toContain('Starting Rezzik');
  expect(out.code).toBe(0);
  expect(readdirSync(join(data, 'out'))).toEqual(['all.zip']);
  const again = archive(file);
  expect(again).toMatchObject({ code: 1, said: expect.stringContaining('is there already') });
  const only = join(data, 'out', 'one.zip');
  expect(archive(only, '--only', 'Bed').code).toBe(0);
  const listed = spawnSync('unzip', ['-Z1', only], { encoding: 'utf8' }).stdout;
  expect(listed.match(/^shots\//gm)).toHaveLength(1);
  for (const wrong of [[], ['--in'], ['a', 'b'], ['--all'], ['--in', file, '--only', 'Bed']]) {
    expect(archive(...wrong)).toMatchObject({
      code: 1,
      said: expect.stringContaining('npm run archive'),
    });
  }
  expect(archive('--in', join(data, 'nowhere.zip')).said).toContain('is not there');
  await app.end();
  rmSync(join(data, 'running.json'));
});

test('tested by another maker’s program; brought in again by a Rezzik that is started for it', () => {
  const tested = spawnSync('unzip', ['-t', file], { encoding: 'utf8' });
  expect(tested.stdout).toContain('No errors detected');
  const back = archive('--in', file);
  expect(back.said).toContain('Starting Rezzik');
  expect(back.said).toContain('shots: 0 new, 2 here already, 0 kept beside another one');
  expect(back.code).toBe(0);
  // What was uploaded does not stay.
  expect(readdirSync(join(data, 'archives'))).toEqual([]);
});

test('killed in the middle of bringing in, it goes on at the next start, and doubles nothing', async () => {
  const own = { data: join(data, 'killed'), databaseUrl };
  const sql = postgres(databaseUrl, { max: 1, onnotice: () => undefined });
  const count = async () =>
    (await sql<{ n: number }[]>`select count(*)::int as n from shots`)[0]?.n ?? 0;
  let app = await OwnApp.start(own);
  for (let i = 0; i < 40; i += 1) await app.addShot(await busyPng(300, 200, 100 + i), `Bed ${i}`);
  const all = await count();
  const zip = await (await fetch(`${app.url}/api/archive`)).arrayBuffer();
  await sql`truncate shots, frames cascade`;
  const answer = await fetch(`${app.url}/api/archive`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/zip' },
    body: zip,
  });
  const { id } = z.object({ id: z.uuid() }).parse(await answer.json());
  while ((await count()) < 5) await pause(5);
  await app.end('SIGKILL');
  const some = await count();
  expect(some).toBeLessThan(all);
  // Nobody has it any more; else that is known after a minute.
  await sql`update jobs set leased_until = now() where id = ${id}`;
  app = await OwnApp.start(own);
  const state = async () =>
    archiveSchema.parse(await (await fetch(`${app.url}/api/archives/${id}`)).json());
  while ((await state()).state !== 'done') await pause(100);
  const { report } = await state();
  expect(report?.brought?.shots).toEqual({ added: all - some, here: some, beside: 0 });
  expect(report?.damaged).toEqual([]);
  expect(await count()).toBe(all);
  await app.end();
  await sql.end();
});
