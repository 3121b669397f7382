import { settle, SLACK, type Settled } from '@/core/series/settle';
import { isOfPage, type SeriesWhat } from '@/core/contracts/series';
import { shared } from '../base/shared';
import { sql } from '../db/sql';
import { begin, workDue } from '../jobs/run';
import { addMissed, addTake, BUSY_BEFORE, note, oneAt, PAGE, QUICK } from './log';
import { missUnclaimed } from './ofPage';
import { holdDue, nextDue, type Held } from './rows';
import type postgres from 'postgres';

const SECOND = 1000;
/** The clock is looked at so often at least, ms: one that is set forward or back is seen. */
const LONGEST = 20 * SECOND;
const SHORTEST = 20;
const AGAIN = 5 * SECOND;
/** Looks that lie further apart were not made by a computer that was awake, ms. */
const ASLEEP = 40 * SECOND;
/** Done jobs are of no use any more after a while. */
const TIDY = 600 * SECOND;

interface Kept {
  timer?: NodeJS.Timeout;
  running: boolean;
  looking: boolean;
  /** Another look is wanted as soon as this one is over. */
  wanted: boolean;
  begun: number;
  /** The last look that went well, and whether one did not since. */
  looked: number;
  failed: boolean;
  tidied: number;
}
const kept = shared<Kept>('series', () => ({
  ...{ running: false, looking: false, wanted: false },
  ...{ begun: Date.now(), looked: Date.now(), failed: false, tidied: 0 },
}));

/** The job that takes it; null for what a page of Rezzik takes that has it. */
export const jobKind = (source: SeriesWhat['source']): string | null =>
  isOfPage(source) ? null : source === 'web' ? PAGE : QUICK;

/** Since when this process looks: what was due before, nobody saw. */
export const lookingSince = (): number => kept.begun;

const BUSY = 'The take before was still going on.';
const NOT_HAD = 'No tab of Rezzik had it then, or it was still busy with the time before.';

/** Why a time was not dealt with when it came. */
function whyMissed(at: number, now: number): string {
  if (at < kept.begun) return 'Rezzik was not running.';
  if (now - kept.looked > ASLEEP)
    return kept.failed
      ? 'The database did not answer.'
      : 'The computer was asleep, or its clock was set forward.';
  return BUSY_BEFORE;
}

const OVER = 'Its time is over.';
const UNREAD = 'Its times cannot be read here. Begin a new one like it.';

/** Null where its times cannot be read, as of a time zone that this system does not have: the others go on. */
function settledOf({ times, due, last }: Held, now: number): Settled | null {
  try {
    return settle(times, { due: due ?? Infinity, last }, now);
  } catch (error) {
    console.error('The times of a series cannot be read:', error);
    return null;
  }
}

async function deal(
  tx: postgres.TransactionSql,
  held: Held,
  done: Settled,
  now: number,
): Promise<void> {
  const { id, times, last } = held;
  if (done.setBack) {
    const until = new Date(last ?? now).toISOString().slice(0, 16).replace('T', ' ');
    await note(
      tx,
      held,
      now,
      `The clock was set back: there are takes up to ${until} UTC already.`,
    );
    // The same times come once more: what is taken again and again is, of set times none is twice.
    if ('every' in times.when) await tx`update series set round = round + 1 where id = ${id}`;
    return goOn(tx, id, done.due, null);
  }
  for (const span of done.missed) await addMissed(tx, held, span, whyMissed(span.until, now));
  if (done.take !== null && held.busy)
    await addMissed(tx, held, oneAt(done.take, times), isOfPage(held.source) ? NOT_HAD : BUSY);
  else if (done.take !== null) await addTake(tx, held, done.take, { kind: jobKind(held.source) });
  const dealt = Math.max(last ?? 0, done.take ?? 0, ...done.missed.map(({ until }) => until));
  await goOn(tx, id, done.due, dealt > 0 ? dealt : null);
}

const date = (moment: number | null): Date | null => (moment === null ? null : new Date(moment));

/** It waits for its next time, or has none any more. */
async function goOn(
  tx: postgres.TransactionSql,
  id: string,
  due: number | null,
  last: number | null,
): Promise<void> {
  await tx`update series set due_at = ${date(due)}, last_at = ${date(last)} where id = ${id}`;
  if (due === null) await tx`update series set state = 'ended', why = ${OVER} where id = ${id}`;
}

/** Deals with everything that is due. @param now the clock, ms since 1970 */
export async function tick(now = Date.now()): Promise<void> {
  const dealSome = () =>
    sql().begin(async (tx) => {
      const some = await holdDue(tx, now, SLACK);
      for (const held of some) {
        const done = settledOf(held, now);
        if (done) await deal(tx, held, done, now);
        else await tx`update series set state = 'ended', why = ${UNREAD} where id = ${held.id}`;
      }
      return some.length > 0;
    });
  await missUnclaimed(now, NOT_HAD);
  while (await dealSome());
  kept.looked = now;
  kept.failed = false;
  if (Math.abs(now - kept.tidied) > TIDY) {
    kept.tidied = now;
    await sql()`delete from jobs where state <> 'waiting' and kind = any(${[QUICK, PAGE]})`;
  }
}

/** Takes what is due now. */
export function takeDue(): void {
  begin(PAGE);
  workDue().catch((error: unknown) => console.error('A series could not be taken:', error));
}

/** How long until the next look, ms. */
async function lookNow(): Promise<number> {
  try {
    await tick();
    takeDue();
    const due = await nextDue();
    return due === null ? LONGEST : Math.min(LONGEST, Math.max(SHORTEST, due - Date.now()));
  } catch (error) {
    if (!kept.failed) console.error('Series could not be looked at:', error);
    kept.failed = true;
    return AGAIN;
  }
}

/** One look after the other: whoever wants one meanwhile gets it right after. */
async function look(): Promise<void> {
  kept.looking = true;
  kept.wanted = false;
  const next = await lookNow();
  kept.looking = false;
  if (kept.running) wait(kept.wanted ? 0 : next);
}

function wait(ms: number): void {
  clearTimeout(kept.timer);
  kept.timer = setTimeout(() => void look(), ms).unref();
}

/** From now on series are taken when their times come. @returns what ends that */
export function startSeries(): () => void {
  if (!kept.running) {
    kept.running = true;
    kept.begun = Date.now();
    kept.looked = kept.begun;
    wait(0);
  }
  return () => {
    kept.running = false;
    clearTimeout(kept.timer);
  };
}

/** One was made or changed: its time may be now. */
export function lookSoon(): void {
  kept.wanted = true;
  if (kept.running && !kept.looking) wait(0);
}
