import type postgres from 'postgres';
import type { z } from 'zod';
import { cutsSchema, type clipChangeSchema, type CutState } from '@/core/contracts/clip';
import { keptStretches, UNCUT, type Cuts } from '@/core/clip/cuts';
import { Fault, notFound } from '../base/fault';
import { json, sql } from '../db/sql';
import { cutTo } from './added';

const STALE = 'The clip was changed meanwhile, in another tab or by a program. Look at it again.';

interface Row {
  /** Millionths of a second. */
  times: number[];
  revision: number;
  step: number;
}

/**
 * Cuts a clip anew, which is a step more, or goes to a step that was made.
 * @throws Fault 400 where nothing of it would stay, 404, 409 when it was changed since `revision`
 */
export const changeCuts = (
  shot: string,
  change: z.output<typeof clipChangeSchema>,
): Promise<CutState> =>
  sql().begin(async (tx) => {
    const [row] = await tx<Row[]>`select times, revision, step
      from clips where shot_id = ${shot} for update`;
    if (!row) throw notFound('clip');
    if (row.revision !== change.revision) throw new Fault(409, 'stale-cuts', STALE);
    const step = change.step ?? row.step + 1;
    const cuts = change.cuts
      ? await addStep(tx, shot, row, change.cuts)
      : await cutsAt(tx, shot, step);
    await cutTo(tx, shot, cuts, row.times);
    await tx`update clips set step = ${step}, revision = revision + 1 where shot_id = ${shot}`;
    const steps = await stepsOf(shot, tx);
    return { revision: row.revision + 1, cuts: cutsSchema.parse(cuts), step, steps };
  });

async function cutsAt(tx: postgres.TransactionSql, shot: string, step: number): Promise<Cuts> {
  if (step === 0) return UNCUT;
  const [row] = await tx<{ cuts: unknown }[]>`select cuts from clip_steps
    where shot_id = ${shot} and position = ${step}`;
  if (!row) throw new Fault(404, 'not-found', 'There is no such step.');
  return cutsSchema.parse(row.cuts);
}

/** What was undone before it is gone. */
async function addStep(
  tx: postgres.TransactionSql,
  shot: string,
  { times, step }: Row,
  cuts: Cuts,
): Promise<Cuts> {
  if (keptStretches(cuts, times.length).length === 0)
    throw new Fault(400, 'does-not-fit', 'cuts.away: nothing of the clip would stay');
  await tx`delete from clip_steps where shot_id = ${shot} and position > ${step}`;
  await tx`insert into clip_steps (shot_id, position, cuts)
    values (${shot}, ${step + 1}, ${json(cuts)})`;
  return cuts;
}

/** How many steps there are, undone ones too. */
export async function stepsOf(
  shot: string,
  connection: postgres.Sql | postgres.TransactionSql = sql(),
): Promise<number> {
  const [row] = await connection<{ steps: number }[]>`
    select coalesce(max(position), 0)::int as steps from clip_steps where shot_id = ${shot}`;
  return row?.steps ?? 0;
}
