import { expect, test } from '@jest/globals';
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { z } from 'zod';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import { filesHolding } from '@/tests/lib/stored';
import { OwnApp } from './lib/ownApp';
import { busyPng } from '@/tests/lib/pictures';

const SECRET = 'the tank code is 4711';
const SIZE = { width: 320, height: 200 };

const told = z.object({ revision: z.int() });

/** Starts a private database in a data folder, says where, and stops it when its input ends. */
const DATABASE = `
  const { startDatabase } = await import(process.argv[1]);
  const database = await startDatabase(process.argv[2]);
  console.log('at ' + database.url);
  process.stdin.resume().on('end', () => database.stop());`;

async function withDatabase<T>(data: string, act: (url: string) => Promise<T>): Promise<T> {
  const program = ['--input-type=module', '-e', DATABASE, resolve('bin/lib/database.mjs'), data];
  const child = spawn(process.execPath, program, { stdio: ['pipe', 'pipe', 'ignore'] });
  let said = '';
  child.stdout.setEncoding('utf8').on('data', (part: string) => (said += part));
  while (!said.includes('at ')) await once(child.stdout, 'data');
  try {
    return await act(/at (\S+)/.exec(said)?.[1] ?? '');
  } finally {
    child.stdin.end();
    if (child.exitCode === null) await once(child, 'exit');
  }
}

/** A shot with words and pixels that are dropped for good, made and dropped by a Rezzik of its own. */
const droppedIn = (data: string): Promise<readonly Buffer[]> =>
  withDatabase(data, async (databaseUrl) => {
    const app = await OwnApp.start({ data, databaseUrl });
    const id = await app.addShot(await busyPng(SIZE.width, SIZE.height, 5), 'Tank');
    const stored = await fetch(`${app.url}/api/shots/${id}/frame`);
    const frame = Buffer.from(await stored.arrayBuffer());
    const json = (method: string, path: string, body: unknown) =>
      fetch(`${app.url}/api/shots/${id}${path}`, {
        method,
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      });
    const words = { kind: 'text', x: 4, y: 4, width: 90, textSize: 8, colour: '#000000' } as const;
    const outside = markSchema.parse({ ...words, id: 'outside', text: SECRET });
    const crop = { x: 160, y: 100, width: 120, height: 80 };
    const document = { ...untouched(SIZE), view: { crop }, marks: [outside] };
    const { revision } = told.parse(
      await (await json('PUT', '', { revision: 1, document })).json(),
    );
    expect((await fetch(`${app.url}/api/shots/${id}/thumbnail`)).status).toBe(200);
    expect((await json('POST', '/rest', { revision })).status).toBe(200);
    await app.end();
    // Of the picture: what its middle rows became in the file, which no other picture has.
    const middle = frame.length >> 1;
    return [Buffer.from(SECRET), frame.subarray(middle, middle + 48)];
  });

const scrub = (data: string) =>
  spawnSync(process.execPath, ['bin/scrub.mjs'], {
    env: { ...process.env, REZZIK_DATA: data, DATABASE_URL: '' },
    encoding: 'utf8',
  });

test('what was dropped for good is in no file any more once the database is scrubbed', async () => {
  const data = mkdtempSync(join(tmpdir(), 'rezzik-scrub-'));
  chmodSync(data, 0o755);
  try {
    const dropped = await droppedIn(data);
    // Until then the log still has it: this search can find.
    for (const one of dropped) {
      expect(filesHolding(data, one).map((file) => file.includes('pg_wal'))).toContain(true);
    }
    const { status, stdout, stderr } = scrub(data);
    expect([status, stderr]).toEqual([0, '']);
    expect(stdout).toContain('nothing that was erased is left');
    for (const one of dropped) expect(filesHolding(data, one)).toEqual([]);
  } finally {
    rmSync(data, { recursive: true, force: true });
  }
}, 240_000);

test('without a database, and on one that belongs to others, scrubbing says so', () => {
  const data = mkdtempSync(join(tmpdir(), 'rezzik-scrub-'));
  expect(scrub(data).stderr).toContain('There is no database');
  const others = spawnSync(process.execPath, ['bin/scrub.mjs'], {
    env: { ...process.env, DATABASE_URL: 'postgres://127.0.0.1:9/x' },
    encoding: 'utf8',
  });
  expect(others.stderr).toContain('DATABASE_URL');
  rmSync(data, { recursive: true });
});
