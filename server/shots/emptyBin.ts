import { sql } from '../db/sql';
import { Fault } from '../base/fault';
import { getSettings } from '../settings/settings';
import { eraseShot } from './store';

/** Between two looks, ms: days are what counts. */
const HOUR = 3_600_000;
const AT_ONCE = 200;

/** Deletes for good what has lain in the bin for as long as the person's rule says; by default nothing. */
export async function emptyBin(now = new Date()): Promise<number> {
  const { binDays } = await getSettings();
  if (binDays === null) return 0;
  const before = new Date(now.getTime() - binDays * 24 * HOUR);
  const rows = await sql()<{ id: string }[]>`
    select id from shots where binned_at < ${before} order by binned_at limit ${AT_ONCE}`;
  for (const { id } of rows) {
    // Somebody may have restored or erased it meanwhile.
    await eraseShot(id, before).catch((error: unknown) => {
      if (!(error instanceof Fault)) throw error;
    });
  }
  return rows.length;
}

/** From now on the bin is looked into every hour. */
export function watchBin(): void {
  const look = () =>
    emptyBin().catch((error: unknown) => console.error('The bin could not be looked into:', error));
  void look();
  setInterval(() => void look(), HOUR).unref();
}
