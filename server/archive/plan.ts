import { stat, unlink } from 'node:fs/promises';
import { basename, dirname } from 'node:path';
import type { Plan } from '@/core/contracts/archive';
import { sql } from '../db/sql';
import { inFolder } from '../folders/held';
import { readPlan } from './rows';
import { archiveTo } from './toFolder';

/** Between two looks whether one is due, ms. */
const EVERY = 10 * 60_000;
/** After one that failed the next is tried after this, ms. */
const AFTER_FAILURE = 6 * 3_600_000;
const DAY = 24 * 3_600_000;
/** Somewhat less than a whole one, so that it stays about the same time of day. */
const periods: Record<Plan['every'], number> = {
  day: 0.95 * DAY,
  week: 6.95 * DAY,
  month: 29.95 * DAY,
};

/** Begins one if that is due by the plan. @returns its id */
export async function archiveWhenDue(now = new Date()): Promise<string | null> {
  const plan = await readPlan();
  if (!plan) return null;
  const [last] = await sql()<{ beganAt: Date; done: boolean; going: boolean }[]>`
    select a.began_at, j.state = 'done' as done, j.state = 'waiting' as going
    from archives a join jobs j on j.id = a.id where a.planned
    order by a.began_at desc limit 1`;
  if (last?.going) return null;
  if (plan.keep !== null) await dropOlder(plan.keep);
  const since = last ? now.getTime() - last.beganAt.getTime() : Infinity;
  // A clock that was set back is no reason to wait for it.
  if (since >= 0 && since < (last?.done ? periods[plan.every] : AFTER_FAILURE)) return null;
  return archiveTo(plan.folderId, '', true);
}

/** Of those the plan wrote, the latest ones are left; a file that is another one by now stays. */
export async function dropOlder(keep: number): Promise<void> {
  const rows = await sql()<{ id: string; path: string; bytes: string }[]>`
    select a.id, a.path, a.bytes from archives a join jobs j on j.id = a.id
    where a.planned and j.state = 'done' and a.bytes is not null
    order by a.began_at desc offset ${keep}`;
  for (const { id, path, bytes } of rows) {
    const gone = await inFolder(dirname(path), async (folder) => {
      const file = folder.at(basename(path));
      const size = await stat(file).then(
        (found) => found.size,
        () => null,
      );
      if (size === null) return true;
      if (size !== Number(bytes)) return false;
      await unlink(file);
      return true;
    }).catch(() => false);
    if (gone) await sql()`delete from archives where id = ${id}`;
  }
}

/** From now on it is looked whether an archive is due. */
export function watchPlan(): void {
  const look = () =>
    archiveWhenDue().catch((error: unknown) => console.error('No archive by the plan:', error));
  setTimeout(() => void look(), 60_000).unref();
  setInterval(() => void look(), EVERY).unref();
}
