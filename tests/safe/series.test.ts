import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { seriesSchema } from '@/core/contracts/series';
import { randomFrom } from '@/core/random/random';
import { sql } from '@/server/db/sql';
import { begin, finish } from '@/server/tests/setup';
import { OwnApp } from './lib/ownApp';

const KILLS = 4;
const next = randomFrom(20261129);

beforeAll(begin);
afterAll(finish);

interface Row {
  at: Date;
  count: number;
  outcome: string;
  why: string | null;
  stored: boolean;
}

test('one a second, killed at random moments: every time is there once, taken or told why not', async () => {
  const data = join(process.env.REZZIK_DATA ?? '', 'series');
  mkdirSync(data, { recursive: true });
  const start = () => OwnApp.start({ data, databaseUrl: process.env.DATABASE_URL ?? '' });
  let app = await start();
  const { body } = await app.post('/api/series', {
    ...{ name: 'Killed', what: { source: 'desk', kind: 'window', window: 'Sensors' } },
    times: { when: { every: 1 } },
  });
  const { id } = seriesSchema.parse(body);
  for (let kill = 0; kill < KILLS; kill += 1) {
    await pause(1200 + next() * 1500);
    await app.end('SIGKILL');
    app = await start();
  }
  await pause(2500);
  await app.end();
  const rows = await sql()<Row[]>`
    select t.at, t.count, t.outcome, t.why, h.id is not null as stored
    from series_times t left join shots h on h.id = t.shot_id
    where t.series_id = ${id} order by t.at`;
  const moments = rows.flatMap(({ at, count }) =>
    Array.from({ length: count }, (_, i) => at.getTime() + i * 1000),
  );
  const [first = 0] = moments;
  expect(moments).toEqual(moments.map((_, i) => first + i * 1000));
  expect(rows.filter(({ outcome, stored }) => outcome === 'taken' && !stored)).toEqual([]);
  expect(rows.filter(({ outcome, stored }) => outcome === 'missed' && stored)).toEqual([]);
  expect(rows.filter(({ outcome, why }) => outcome === 'missed' && !why)).toEqual([]);
  const of = (outcome: string) => rows.filter((row) => row.outcome === outcome);
  expect(of('taken').length).toBeGreaterThan(0);
  expect(of('missed').map(({ why }) => why)).toContain('Rezzik was not running.');
  const [all] = await sql()<{ shots: number; taken: number }[]>`
    select (select count(*) from shots where provenance->>'series' = 'Killed')::int as shots,
      (select count(*) from series_times t join shots h on h.id = t.shot_id)::int as taken`;
  expect(all?.shots).toBe(all?.taken);
}, 120_000);
