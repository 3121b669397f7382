import type postgres from 'postgres';
import { documentFor, type ShotDocument } from '@/core/document/document';
import type { ShotChange } from '@/core/contracts/shot';
import { patchesSchema, stepSchema, type Step } from '@/core/document/steps';
import { DOCUMENT_VERSION } from '@/core/document/version';
import { json, sql } from '../db/sql';
import { checkHeld } from '../frames/intake';
import { fit } from '../http/body';
import { Fault, notFound } from '../base/fault';
import { indexShot } from '../indexing/indexing';
import { personActs } from '../words/quiet';
import { keepWords, wantWords } from '../words/wanted';
import { getShot, refuseNewer } from './rows';
import { shownChange } from '@/core/document/shownChange';

/**
 * Stores a changed document with the steps that led to it, if nobody changed it since.
 * @returns the new revision
 * @throws Fault 400 for steps that do not follow on, 404, 413, 415 or 422 for pictures in it, 409 with the current shot when stale
 */
export async function changeShot(id: string, change: ShotChange): Promise<number> {
  const before = await getShot(id);
  const document = fit(change.document, documentFor(before));
  await checkHeld(document.pictures, before.document.pictures);
  personActs();
  const revision = await sql().begin(async (tx) => {
    const [row] = await tx<{ revision: number; stepPosition: number }[]>`
      update shots set document = ${json(document)}, revision = revision + 1, changed_at = now(),
        title = coalesce(${change.title?.trim() || null}, title),
        title_own = title_own or ${Boolean(change.title?.trim())}
      where id = ${id} and revision = ${change.revision} returning revision, step_position`;
    if (!row) return null;
    const steps = change.steps ?? oneStep(before.document, document, row.stepPosition);
    await storeSteps(tx, id, steps);
    const shown = shownChange(before.document, document);
    if (shown === 'same') await keepWords(tx, id, change.revision);
    else await wantWords(tx, id, shown);
    await indexShot(tx, id);
    return row.revision;
  });
  if (revision === null) {
    const message = 'This shot was changed elsewhere since it was read.';
    throw new Fault(409, 'stale', message, { current: await getShot(id) });
  }
  return revision;
}

type StepsChange = NonNullable<ShotChange['steps']>;

/** A change that came without steps is one step, so that undo still leads back over it. */
export function oneStep(
  before: ShotDocument,
  after: ShotDocument,
  position: number,
  label = 'Changed by a program',
): StepsChange {
  const whole = (value: ShotDocument): Step['patches'] =>
    patchesSchema.parse([{ op: 'replace', path: [], value }]);
  const step: Step = {
    version: DOCUMENT_VERSION,
    label,
    patches: whole(after),
    inverse: whole(before),
  };
  return { keep: position, added: [step], position: position + 1 };
}

/** @throws Fault 400 for steps that do not follow on */
export async function storeSteps(
  tx: postgres.TransactionSql,
  id: string,
  steps: StepsChange,
): Promise<void> {
  const [row] = await tx<{ count: number }[]>`
    select count(*)::int as count from steps where shot_id = ${id}`;
  const count = row?.count ?? 0;
  if (steps.keep > count || steps.position > steps.keep + steps.added.length) {
    throw new Fault(400, 'steps-do-not-follow', 'The steps do not follow on the stored ones.');
  }
  await tx`delete from steps where shot_id = ${id} and position >= ${steps.keep}`;
  await tx`insert into steps (shot_id, position, step)
    select ${id}, ${steps.keep} + place - 1, step
    from jsonb_array_elements(${json(steps.added)}) with ordinality as added (step, place)`;
  await tx`update shots set step_position = ${steps.position} where id = ${id}`;
}

/** The undo steps of a shot, oldest first, and how many of them are done. @throws Fault 404, 409 for newer ones */
export async function getSteps(id: string): Promise<{ steps: Step[]; position: number }> {
  const [row] = await sql()<{ stepPosition: number }[]>`
    select step_position from shots where id = ${id}`;
  if (!row) throw notFound('shot');
  const rows = await sql()<{ step: unknown }[]>`
    select step from steps where shot_id = ${id} order by position`;
  rows.forEach(({ step }) => refuseNewer(step));
  return { steps: rows.map((r) => stepSchema.parse(r.step)), position: row.stepPosition };
}
