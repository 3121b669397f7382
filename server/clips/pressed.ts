import type postgres from 'postgres';
import { pressedSchema } from '@/core/contracts/clip';
import type { Pressed } from '@/core/clip/pressed';
import type { ShotDocument } from '@/core/document/document';
import { pressedMarks } from '@/core/document/pressedMarks';
import { limits } from '@/core/values/limits';
import { Fault } from '../base/fault';
import { json, sql } from '../db/sql';
import { oneStep, storeSteps } from '../shots/change';
import { getRecording } from './recordings';

/** What was pressed last ended the recording, and is nothing that is shown, seconds. */
const LAST = 0.4;

/** What a hand did while something is recorded; more than can be shown is left. @throws Fault 404, 409 */
export async function addPressed(shot: string, pressed: readonly Pressed[]): Promise<void> {
  const kept = await sql()`update recordings set pressed = pressed || ${json(pressed)}
    where shot_id = ${shot} and state = 'going'
      and jsonb_array_length(pressed) + ${pressed.length} <= ${limits.marks}`;
  if (kept.count > 0) return;
  const { state } = await getRecording(shot);
  if (state === 'ended') throw new Fault(409, 'over', 'This recording is over.');
}

/**
 * The document of a new clip with what a hand did on it, as a step that undo takes back.
 * @param pressed as it is stored of a recording
 */
export function withPressed(
  document: ShotDocument,
  pressed: unknown,
  times: readonly number[],
): { document: ShotDocument; step: (tx: postgres.TransactionSql, shot: string) => Promise<void> } {
  // Whatever is wrong with it, the film is more.
  const ends = (times.at(-1) ?? 0) - LAST;
  const all = pressedSchema
    .catch([])
    .parse(pressed)
    .filter(({ at }) => at < ends);
  if (all.length === 0) return { document, step: () => Promise.resolve() };
  const marked = { ...document, marks: pressedMarks(all, times, document.view) };
  const steps = oneStep(document, marked, 0, 'Clicks and keys shown');
  return { document: marked, step: (tx, shot) => storeSteps(tx, shot, steps) };
}
