import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import type { Series, seriesInputSchema, seriesPatchSchema } from '@/core/contracts/series';
import { nextTime, type Times } from '@/core/series/times';
import { limits } from '@/core/values/limits';
import { Fault } from '../base/fault';
import { timeZone } from '../base/timeZone';
import { json, sql } from '../db/sql';
import { checkAllowed } from '../display/access';
import { checkPagesAllowed } from '../pages/reachNow';
import { stopJob } from '../jobs/run';
import { addTake } from './log';
import { getSeries } from './rows';
import { jobKind, lookSoon } from './tick';

const NO_TIME = 'There is no such time any more: these times are over before they begin.';

/** The first time at or after a moment. @throws Fault 400 where there is none */
function firstTime(times: Times, now: number): Date {
  const first = nextTime(times, now - 1);
  if (first === null) throw new Fault(400, 'no-time', NO_TIME);
  return new Date(first);
}

/** What could never be taken is not waited for. @throws Fault 403 */
async function checkMay({ source }: Series['what']): Promise<void> {
  if (source === 'display') await checkAllowed();
  if (source === 'web') await checkPagesAllowed();
}

/** Begins one. @throws Fault 400, 403, 409 */
export async function addSeries(
  { times: given, ...input }: z.output<typeof seriesInputSchema>,
  now = Date.now(),
): Promise<Series> {
  await checkMay(input.what);
  const times: Times = {
    ...given,
    zone: given.zone ?? timeZone(),
    // What runs on from its beginning begins with a whole second.
    begins: given.begins ?? new Date(Math.ceil(now / 1000) * 1000).toISOString(),
  };
  const id = randomUUID();
  const added = await sql()`
    insert into series (id, name, what, times, only_changed, then_steps, pattern, most_shots,
      most_megabytes, due_at)
    select ${id}, ${input.name}, ${json(input.what)}, ${json(times)},
      ${input.onlyChanged && json(input.onlyChanged)}, ${json(input.then)}, ${input.pattern},
      ${input.stopAt.shots}, ${input.stopAt.megabytes}, ${firstTime(times, now)}
    where (select count(*) from series) < ${limits.series}`;
  if (added.count === 0)
    throw new Fault(409, 'too-many', `There can be ${limits.series} series at most.`);
  lookSoon();
  return getSeries(id);
}

/**
 * Changes what is named, and nothing that somebody else changes meanwhile; what goes on goes on with
 * it. @throws Fault 400, 403, 404, 409
 */
export async function changeSeries(
  id: string,
  patch: z.output<typeof seriesPatchSchema>,
  now = Date.now(),
): Promise<Series> {
  if (patch.what) await checkMay(patch.what);
  await sql().begin(async (tx) => {
    await tx`select 1 from series where id = ${id} for update`;
    const before = await getSeries(id, tx);
    if (before.state === 'ended' && patch.state && patch.state !== 'ended')
      throw new Fault(409, 'ended', 'This series has ended. Begin a new one like it.');
    const { name, what, times, onlyChanged, then, pattern, stopAt, state } = {
      ...before,
      ...patch,
    };
    const why = state === 'ended' ? (before.why ?? 'You ended it.') : null;
    await tx`update series set name = ${name}, what = ${json(what)}, times = ${json(times)},
        only_changed = ${onlyChanged && json(onlyChanged)}, then_steps = ${json(then)},
        pattern = ${pattern}, most_shots = ${stopAt.shots}, most_megabytes = ${stopAt.megabytes},
        state = ${state}, why = ${why} where id = ${id}`;
    const begins = state === 'running' && (patch.times || before.state !== 'running');
    if (begins)
      await tx`update series set due_at = ${firstTime(times, now)}, last_at = null where id = ${id}`;
    else if (state !== 'running') await tx`update series set due_at = null where id = ${id}`;
  });
  lookSoon();
  return getSeries(id);
}

/** Takes once now, beside its times. @throws Fault 404, 409 */
export async function takeNow(id: string, now = Date.now()): Promise<Series> {
  const { what, times, state } = await getSeries(id);
  if (state === 'ended') throw new Fault(409, 'ended', 'This series has ended.');
  await sql().begin(async (tx) => {
    const [row] = await tx<{ round: number }[]>`
      select round from series where id = ${id} for update`;
    const of = { id, round: row?.round ?? 0, times };
    await addTake(tx, of, now, { kind: jobKind(what.source), byHand: true });
  });
  lookSoon();
  return getSeries(id);
}

/** Its shots stay. @throws Fault 404 */
export async function removeSeries(id: string): Promise<void> {
  await getSeries(id);
  const due = await sql()<{ id: string }[]>`
    select id from series_times where series_id = ${id} and outcome = 'due'`;
  for (const take of due) await stopJob(take.id);
  await sql()`delete from series where id = ${id}`;
}
