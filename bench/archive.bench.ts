import { afterAll, beforeAll, test } from '@jest/globals';
import { createReadStream, createWriteStream, statSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { untouched } from '@/core/document/view';
import { closeSql, sql } from '@/server/db/sql';
import { migrate } from '@/server/db/migrate';
import { storeShot } from '@/server/shots/store';
import { archived, broughtIn, otherDatabase, somewhere } from '@/server/tests/archived';
import { busyPng } from '@/tests/lib/pictures';
import { report, time } from './measure';

// Fifty thousand shots out and in again. What a row holds is made up by the database itself.

const SHOTS = 50_000;
const SIZE = { width: 400, height: 300 };

beforeAll(async () => {
  await migrate();
  const { id } = await storeShot({
    picture: await busyPng(SIZE.width, SIZE.height, 5),
    title: 'Bed',
  });
  await sql()`delete from jobs`;
  // Every second one has a frame of its own, of 40 KB; the others share one.
  await sql()`insert into frames (id, sha256, width, height, opaque, bytes)
    select gen_random_uuid(), encode(sha256(i::text::bytea), 'hex'), ${SIZE.width}, ${SIZE.height},
      true, decode(repeat(md5(i::text), 2500), 'hex') from generate_series(1, ${SHOTS / 2}) i`;
  await sql()`insert into shots (id, frame_id, title, document, provenance, taken_at)
    select gen_random_uuid(), id, 'Bed ' || row_number() over (), ${sql().json(untouched(SIZE))},
      ${sql().json({ source: 'api', takenAt: '2026-11-01T10:00:00Z' })}, now() from frames`;
  await sql()`insert into shots (id, frame_id, title, document, provenance, taken_at)
    select gen_random_uuid(), s.frame_id, 'Seed ' || i, s.document, s.provenance, now()
    from shots s, generate_series(1, ${SHOTS / 2}) i where s.id = ${id}`;
}, 600_000);
afterAll(() => closeSql());

/** What was held at most while something went on, beyond what was held before, MB. */
async function heldBy<T>(
  act: () => Promise<T>,
): Promise<{ result: T; mb: number; seconds: number }> {
  const before = process.memoryUsage.rss();
  let most = before;
  const watch = setInterval(() => (most = Math.max(most, process.memoryUsage.rss())), 50);
  const began = performance.now();
  const result = await act().finally(() => clearInterval(watch));
  return { result, mb: (most - before) / 1e6, seconds: (performance.now() - began) / 1000 };
}

test('everything out, and in again', async () => {
  const out = await heldBy(() => archived());
  const { size } = statSync(out.result);
  const copy = await somewhere();
  const bare = await time(() => pipeline(createReadStream(out.result), createWriteStream(copy)));
  report(
    `${SHOTS} shots out, ${Math.round(size / 1e6)} MB`,
    `${out.mb.toFixed(0)} MB more held, ${out.seconds.toFixed(0)} s`,
    'memory ≤ 200 MB',
  );
  report('… against copying the file', `${((out.seconds * 1000) / bare).toFixed(0)}×`);
  // Only the shots of the one frame that is a picture can come in.
  await sql()`delete from shots where title like 'Bed %'`;
  const some = await archived();
  await otherDatabase();
  const back = await heldBy(() => broughtIn(some));
  const came = back.result.brought?.shots?.added ?? 0;
  report(
    `${came} shots in again`,
    `${back.mb.toFixed(0)} MB more held, ${back.seconds.toFixed(0)} s`,
    'memory ≤ 200 MB',
  );
}, 1_200_000);
