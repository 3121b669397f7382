import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { z } from 'zod';
import { dueSchema, seriesDaysSchema, seriesListSchema } from '@/core/contracts/series';
import { shotPageSchema } from '@/core/contracts/shot';
import { GET as listShots } from '@/app/api/shots/route';
import { GET as listed } from '@/app/api/series/route';
import * as one from '@/app/api/series/[id]/route';
import { POST as claimed } from '@/app/api/series/due/route';
import { POST as bring } from '@/app/api/series/due/[id]/route';
import { POST as bringNothing } from '@/app/api/series/due/[id]/missed/route';
import { POST as takeNow } from '@/app/api/series/[id]/now/route';
import { GET as days } from '@/app/api/series/[id]/days/route';
import { GET as missed } from '@/app/api/series/[id]/missed/route';
import { GET as shots } from '@/app/api/series/[id]/shots/route';
import { GET as times } from '@/app/api/series/[id]/times/route';
import { sql } from '../db/sql';
import { claimDue } from '../jobs/queue';
import { workDue } from '../jobs/run';
import { QUICK } from '../series/log';
import { startSeries, tick } from '../series/tick';
import { storeShot } from '../shots/store';
import { tagsOf } from '../tags/tags';
import { begun, change, comes, dueOf, entries, now, post, taken, wished } from './seriesLib';
import { at, begin, finish, formRequest, jsonRequest, request } from './setup';

const SECOND = 1000;
const HOUR = 3600 * SECOND;

beforeAll(begin, 60_000);
afterAll(finish);
beforeEach(async () => void (await sql()`delete from series`));

const told = { error: z.object({ code: z.string(), message: z.string() }) };

describe('a series', () => {
  test('takes at its time, once, with nothing around it, and does what comes then', async () => {
    const series = await begun({ then: [{ do: 'tag', tags: ['Watched'] }] });
    expect(series).toMatchObject({ state: 'running', taken: 0, last: null });
    const due = await comes(series);
    await tick(due - SECOND);
    expect(await entries(times, series)).toEqual([]);
    // Two servers on one database look at the same time, and then once more.
    await Promise.all([taken(due + 10), taken(due + 10)]);
    await taken(due + 20);
    const after = await now(series);
    expect(after).toMatchObject({ taken: 1, missed: 0, state: 'running' });
    expect(dueOf(after)).toBe(due + 60 * SECOND);
    const [entry, ...others] = await entries(shots, series);
    expect(others).toEqual([]);
    expect(entry).toMatchObject({ title: 'Sensors 001', outcome: 'taken' });
    const id = entry?.shot?.id ?? '';
    expect(await tagsOf(id)).toEqual(['Watched']);
    const [frame] = await sql()<{ width: number; height: number; provenance: unknown }[]>`
      select f.width, f.height, s.provenance from shots s join frames f on f.id = s.frame_id
      where s.id = ${id}`;
    expect(frame).toMatchObject({
      ...{ width: 760, height: 430, provenance: { source: 'desk', windowTitle: 'Sensors' } },
    });
    // It is none of what a person took last.
    const idsOf = async (query: string) =>
      shotPageSchema
        .parse(await (await listShots(request(`/api/shots${query}`), at({}))).json())
        .shots.map((shot) => shot.id);
    expect(await idsOf('')).toContain(id);
    expect(await idsOf('?byHand=1')).not.toContain(id);
    expect(after.bytes).toBeGreaterThan(1000);
    expect(after.last?.id).toBe(id);
  });

  test('what was asked for by hand is taken beside its times', async () => {
    const series = await begun();
    expect((await takeNow(request('/x', { method: 'POST' }), at({ id: series.id }))).status).toBe(
      202,
    );
    await workDue();
    const after = await now(series);
    expect([after.taken, after.next]).toEqual([1, series.next]);
  });

  test('a take that nobody finished is finished once by whoever comes', async () => {
    const series = await begun({ times: { when: { every: 3600 } } });
    await tick(await comes(series));
    const dropped = await claimDue([QUICK]);
    await workDue();
    expect((await now(series)).taken).toBe(0);
    await sql()`update jobs set leased_until = now() - interval '1 second'`;
    await workDue();
    expect((await now(series)).taken).toBe(1);
    expect((await entries(shots, series)).map(({ id }) => id)).toEqual([dropped?.id]);
  });

  test('what was stored when the server fell is not taken a second time', async () => {
    const series = await begun({ times: { when: { every: 3600 } } });
    await tick(await comes(series));
    const [due] = await sql()<{ shotId: string }[]>`
      select shot_id from series_times where series_id = ${series.id}`;
    const picture = await sharp({ create: { width: 5, height: 5, channels: 3, background: 'red' } })
      .png()
      .toBuffer();
    await storeShot({ id: due?.shotId, picture });
    await workDue();
    const [entry, ...others] = await entries(shots, series);
    expect([entry?.shot?.id, others]).toEqual([due?.shotId, []]);
    // Its words are read all the same: that is a job of its own.
    const kinds = await sql()`select kind from jobs where id = ${entry?.shot?.id ?? null}`;
    expect(kinds).toMatchObject([{ kind: 'words' }]);
  });

  test('a clock set forward misses what it leaps over, and says so; one set back repeats nothing unsaid', async () => {
    const series = await begun({ times: { when: { every: 600 } } });
    const due = await comes(series);
    await taken(due);
    await tick(due + SECOND);
    await tick(due + 3 * HOUR + 400 * SECOND);
    // One for each day: at night it leaps over midnight.
    const leapt = await entries(missed, series);
    expect(leapt.reduce((sum, { count }) => sum + count, 0)).toBe(18);
    for (const { why } of leapt) expect(why).toContain('set forward');
    expect((await now(series)).missed).toBe(18);
    await tick(due + HOUR + 60 * SECOND);
    const note = (await entries(missed, series)).find(({ outcome }) => outcome === 'noted');
    expect(note?.why).toContain('set back');
    // Ten minutes after ten minutes, by the new clock.
    expect(dueOf(await now(series))).toBe(due + HOUR + 600 * SECOND);
    await tick(due + HOUR + 600 * SECOND);
    expect((await entries(times, series)).filter(({ outcome }) => outcome === 'due')).toHaveLength(
      1,
    );
  });

  test('of set times none is taken twice where the clock is set back, and one that nobody can read ends alone', async () => {
    const wall = new Date(Date.now() - 60 * SECOND);
    const time = `${String(wall.getUTCHours()).padStart(2, '0')}:${String(wall.getUTCMinutes()).padStart(2, '0')}`;
    const series = await begun({ times: { when: { at: [time] }, zone: 'UTC' } });
    const due = dueOf(series);
    await tick(due);
    await tick(due + SECOND);
    await tick(due - 600 * SECOND);
    expect((await entries(missed, series))[0]?.why).toContain('set back');
    expect(dueOf(await now(series))).toBe(due);
    await tick(due);
    const waiting = (await entries(times, series)).filter(({ outcome }) => outcome === 'due');
    expect(waiting).toHaveLength(1);
    expect(dueOf(await now(series))).toBe(due + 24 * HOUR);
    const odd = await begun();
    await sql()`update series set times = jsonb_set(times, '{zone}', '"Garden/Bed"') where id = ${odd.id}`;
    await tick(due + 25 * HOUR);
    const [ended] = await sql()`select state, why from series where id = ${odd.id}`;
    expect(ended).toMatchObject({ state: 'ended', why: expect.stringContaining('cannot be read') });
    expect(dueOf(await now(series))).toBe(due + 48 * HOUR);
  });

  test('what goes by while Rezzik is not running is told as that', async () => {
    const series = await begun({ times: { when: { every: 600 } } });
    await sql()`update series set due_at = due_at - interval '2 hours', times = jsonb_set(times,
      '{begins}', to_jsonb('2020-01-01T00:00:00Z'::text)) where id = ${series.id}`;
    await tick();
    const all = await entries(missed, series);
    expect(new Set(all.map(({ why }) => why))).toEqual(new Set(['Rezzik was not running.']));
    expect((await now(series)).missed).toBeGreaterThanOrEqual(11);
    const told = seriesDaysSchema.parse(await (await days(request('/x'), at(series))).json());
    expect(told.days.reduce((sum, day) => sum + day.missed, 0)).toBe((await now(series)).missed);
  });

  test('takes only what has changed where that is watched', async () => {
    const onlyChanged = { least: 0, watch: null, ignore: [] };
    const map = await begun({
      ...{ onlyChanged, what: { source: 'desk', kind: 'window', window: 'Bed map' } },
    });
    await taken(await comes(map));
    await taken(await comes(await now(map)));
    expect(await now(map)).toMatchObject({ taken: 1, unchanged: 1, missed: 0 });
    const [entry] = await entries(times, map);
    expect(entry).toMatchObject({ outcome: 'unchanged', shot: null });
    await sql()`delete from series`;
    // The readings change every second; where they stand nobody looks.
    const sensors = await begun({ onlyChanged });
    await taken(await comes(sensors));
    await new Promise((resolve) => setTimeout(resolve, 1100));
    await taken(await comes(await now(sensors)));
    expect(await now(sensors)).toMatchObject({ taken: 2, unchanged: 0 });
    const ignore = [{ x: 0, y: 0, width: 760, height: 430 }];
    await change(sensors, { onlyChanged: { ...onlyChanged, ignore } });
    await new Promise((resolve) => setTimeout(resolve, 1100));
    await taken(await comes(await now(sensors)));
    expect(await now(sensors)).toMatchObject({ taken: 2, unchanged: 1 });
  }, 30_000);

  test('a place that cannot be had is missed, with the reason', async () => {
    const gone = await begun({ what: { source: 'desk', kind: 'window', window: 'No such' } });
    await taken(await comes(gone));
    const [entry] = await entries(missed, gone);
    expect(entry?.why).toBe('No window was called “No such” then.');
    expect(await now(gone)).toMatchObject({ taken: 0, missed: 1, state: 'running' });
  });

  test('a disk that is full is said, and it goes on once there is room', async () => {
    const series = await begun();
    // Source: PostgreSQL, appendix A: 53100 is disk_full.
    await sql().unsafe(`create function disk_full() returns trigger language plpgsql as $$
      begin raise exception using errcode = 'disk_full', message = 'No space left on device'; end $$;
      create trigger disk_full before insert on shots execute function disk_full()`);
    await taken(await comes(series));
    await sql().unsafe('drop trigger disk_full on shots; drop function disk_full');
    expect((await entries(missed, series))[0]?.why).toContain('The disk of the database is full.');
    await taken(await comes(await now(series)));
    expect(await now(series)).toMatchObject({ taken: 1, missed: 1, state: 'running' });
  });

  test('ends by itself after so many shots, and when its time is over', async () => {
    const two = await begun({ stopAt: { shots: 2, megabytes: 10 } });
    await taken(await comes(two));
    await taken(await comes(await now(two)));
    expect(await now(two)).toMatchObject({
      state: 'ended',
      why: 'It has taken its 2 shots.',
      next: null,
    });
    const ends = new Date(Date.now() + 90 * SECOND).toISOString();
    const short = await begun({ times: { when: { every: 60 }, ends } });
    await tick(dueOf(short));
    await tick(dueOf(await now(short)));
    expect(await now(short)).toMatchObject({ state: 'ended', why: 'Its time is over.' });
  });

  test('pauses, goes on at its next time, and ends for good', async () => {
    const series = await begun();
    await change(series, { state: 'paused' });
    await tick(dueOf(series) + HOUR);
    expect(await now(series)).toMatchObject({ state: 'paused', missed: 0, next: null });
    const went = Date.now();
    await change(series, { state: 'running' });
    expect(dueOf(await now(series))).toBeGreaterThan(went);
    await change(series, { state: 'ended' });
    expect(await now(series)).toMatchObject({ state: 'ended', why: 'You ended it.' });
    expect((await change(series, { state: 'running' })).status).toBe(409);
    expect((await one.DELETE(request('/x'), at(series))).status).toBe(204);
    expect((await one.GET(request('/x'), at(series))).status).toBe(404);
  });

  test('one a second is taken by the clock, each once, and what it was too slow for is told', async () => {
    const end = startSeries();
    const series = await begun({ times: { when: { every: 1 } } });
    await new Promise((resolve) => setTimeout(resolve, 5500));
    end();
    await change(series, { state: 'paused' });
    await workDue();
    const all = await entries(times, series);
    const settled = all.filter(({ outcome }) => outcome !== 'due');
    const moments = settled.flatMap(({ at, count }) =>
      Array.from({ length: count }, (_, i) => Date.parse(at) + i * SECOND),
    );
    expect(new Set(moments).size).toBe(moments.length);
    expect(Math.max(...moments) - Math.min(...moments)).toBe((moments.length - 1) * SECOND);
    expect(moments.length).toBeGreaterThanOrEqual(4);
    expect((await now(series)).taken).toBeGreaterThan(0);
  }, 30_000);
});

test('of a shared screen, one page takes what is due; what none takes is missed and told', async () => {
  const region = { x: 1, y: 0, width: 2, height: 2 };
  const series = await begun({ what: { source: 'screen', kind: 'region', region } });
  const due = await comes(series);
  await tick(due);
  const claim = async () =>
    dueSchema.parse(
      await (await claimed(jsonRequest('/x', 'POST', { sources: ['screen'] }), at({}))).json(),
    );
  const [one, other] = await Promise.all([claim(), claim()]);
  const got = one.due ?? other.due;
  expect([one.due, other.due]).toContain(null);
  expect(got).toMatchObject({ source: 'screen', region });
  expect([one.waits, other.waits]).toEqual([true, true]);
  // While it is claimed it is not missed, though it takes a while.
  await tick(due + 15 * SECOND);
  const id = got?.id ?? '';
  const picture = await sharp({ create: { width: 2, height: 2, channels: 3, background: 'red' } })
    .png()
    .toBuffer();
  const provenance = JSON.stringify({ source: 'screen', takenAt: new Date(due).toISOString() });
  expect((await bring(await formRequest(picture, { provenance }), at({ id }))).status).toBe(204);
  expect((await bring(await formRequest(picture), at({ id }))).status).toBe(404);
  const [entry] = await entries(shots, series);
  expect(entry).toMatchObject({ title: 'Sensors 001', outcome: 'taken' });
  const next = await comes(await now(series));
  await tick(next);
  await tick(next + 11 * SECOND);
  const [gone] = await entries(missed, series);
  expect(gone?.why).toContain('No tab of Rezzik had it');
  await tick(await comes(await now(series)));
  const said = jsonRequest('/x', 'POST', { why: 'Sharing has ended.' });
  expect((await bringNothing(said, at({ id: (await claim()).due?.id ?? '' }))).status).toBe(204);
  expect((await entries(missed, series))[0]?.why).toBe('Sharing has ended.');
});

test('nonsense is refused in words, and what may not be taken is not begun', async () => {
  const refused = async (input: unknown) => {
    const answer = await post(input);
    const { error } = z.object(told).parse(await answer.json());
    return [answer.status, error.message] as const;
  };
  expect(await refused({ ...wished(), name: ' ' })).toMatchObject([400, expect.any(String)]);
  const nowhere = { ...wished().times, zone: 'Garden/Bed' };
  expect(await refused({ ...wished(), times: nowhere })).toMatchObject([
    400,
    expect.stringContaining('time zone'),
  ]);
  const ends = '2020-01-01T00:00:00Z';
  expect(await refused(wished({ times: { when: { every: 60 }, ends } }))).toMatchObject([
    400,
    expect.stringContaining('over before'),
  ]);
  expect(await refused(wished({ pattern: '{nothing}' }))).toMatchObject([
    400,
    expect.stringContaining('{nothing}'),
  ]);
  expect(await refused(wished({ then: [{ do: 'copy' }] }))).toMatchObject([
    400,
    expect.stringContaining('nobody is there'),
  ]);
  const region = { source: 'desk', kind: 'region' } as const;
  expect(await refused(wished({ what: region }))).toMatchObject([400, expect.any(String)]);
  const display = { source: 'display', kind: 'full' } as const;
  expect(await refused(wished({ what: display }))).toMatchObject([
    403,
    expect.stringContaining('may not read'),
  ]);
  const page = { source: 'web', page: { address: 'example.org' } } as const;
  expect((await refused(wished({ what: page })))[0]).toBe(403);
  const gone = at({ id: '00000000-0000-4000-8000-000000000000' });
  expect((await one.GET(request('/x'), gone)).status).toBe(404);
  expect((await times(request('/x?day=tomorrow'), at(await begun()))).status).toBe(400);
});

test('a thousand are looked at together, and one more is refused', async () => {
  await begun();
  await sql()`insert into series (id, name, what, times, pattern, most_shots, most_megabytes, due_at)
    select gen_random_uuid(), name || ' ' || n, what, times, pattern, 1, 1, due_at
    from series, generate_series(2, 1000) n`;
  const { series } = seriesListSchema.parse(await (await listed(request('/x'), at({}))).json());
  expect(series).toHaveLength(1000);
  expect((await post(wished())).status).toBe(409);
  await tick(Date.now() + HOUR);
  const [counts] = await sql()<{ all: number }[]>`
    select count(*)::int as all from series where missed > 0 and due_at > now() + interval '59 min'`;
  expect(counts?.all).toBe(1000);
}, 60_000);
