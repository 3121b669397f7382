import type postgres from 'postgres';
import { breakOff } from '../jobs/run';

/** The kind of the jobs that read words. */
export const WORDS = 'words';

/** Whoever is still drawing on a shot is not read over the shoulder. */
const AFTER_CHANGE = '15 seconds';
const AFTER_TAKE = '2 seconds';

/**
 * A shot's words shall be read, in the transaction of what changed it.
 * @param why a change that hides something, or shows less or more, forgets at once what was read
 */
export async function wantWords(
  tx: postgres.TransactionSql,
  id: string,
  why: 'taken' | 'changed' | 'hidden',
): Promise<void> {
  await tx`insert into words (shot_id) values (${id}) on conflict (shot_id) do nothing`;
  if (why === 'hidden') {
    await tx`update words set revision = null, lines = null, boxes = null, later = null
      where shot_id = ${id}`;
  }
  const after = why === 'taken' ? AFTER_TAKE : AFTER_CHANGE;
  await tx`insert into jobs (id, kind, due_at) values (${id}, ${WORDS}, now() + ${after}::interval)
    on conflict (id) do update set state = 'waiting', tries = 0, problem = null,
      due_at = excluded.due_at, lease = null, leased_until = null, done_at = null`;
  breakOff(id);
}

/** Nothing that can be read has changed: what was read is of this revision, too. */
export async function keepWords(
  tx: postgres.TransactionSql,
  id: string,
  before: number,
): Promise<void> {
  await tx`update words set revision = ${before + 1} where shot_id = ${id} and revision = ${before}`;
}
