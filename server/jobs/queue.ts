import { randomUUID } from 'node:crypto';
import type postgres from 'postgres';
import { sql } from '../db/sql';

/** Pauses before the next try, seconds; the last one is repeated. */
const PAUSES = [10, 30, 120, 600, 3600];
/** A next try further off than this was set by a clock that has been set back since. */
const LONGEST_PAUSE = Math.max(...PAUSES);
/** How long a job stays with whoever took it, seconds, unless that is renewed. */
const LEASE = 60;

/** A job that nobody else works on while its lease lasts. */
export interface Leased {
  id: string;
  kind: string;
  tries: number;
  lease: string;
}

const leased = () => sql()`leased_until = now() + ${LEASE} * interval '1 second'`;

/** Adds a job that is with its maker at once, in the transaction of what it is about. */
export async function addLeased(
  tx: postgres.TransactionSql,
  id: string,
  kind: string,
): Promise<Leased> {
  const lease = randomUUID();
  await tx`insert into jobs (id, kind, lease, leased_until)
    values (${id}, ${kind}, ${lease}, now() + ${LEASE} * interval '1 second')`;
  return { id, kind, tries: 0, lease };
}

/** Adds a job that waits for whoever does its kind, in the transaction of what it is about. */
export async function addDue(tx: postgres.TransactionSql, id: string, kind: string): Promise<void> {
  await tx`insert into jobs (id, kind) values (${id}, ${kind})`;
}

/** Takes the job that has been due the longest, or the shortest, or null. Two never get the same. */
export async function claimDue(
  kinds: readonly string[],
  newestFirst = false,
): Promise<Leased | null> {
  const [job] = await sql()<Leased[]>`
    update jobs set lease = ${randomUUID()}, ${leased()} where id = (
      select id from jobs where state = 'waiting' and kind = any(${[...kinds]})
        and (due_at <= now() or due_at > now() + ${LONGEST_PAUSE} * interval '1 second')
        and (leased_until is null or leased_until < now())
      order by due_at ${newestFirst ? sql()`desc` : sql()``} for update skip locked limit 1)
    returning id, kind, tries, lease`;
  return job ?? null;
}

/** Takes one job, whenever it is due, also one that was stopped; null while it is worked on. */
export async function claimNow(id: string): Promise<Leased | null> {
  const [job] = await sql()<Leased[]>`
    update jobs set lease = ${randomUUID()}, ${leased()}, state = 'waiting'
    where id = ${id} and state <> 'done' and (leased_until is null or leased_until < now())
    returning id, kind, tries, lease`;
  return job ?? null;
}

/** Keeps a job for longer. @returns false when it is not with us any more */
export async function renew({ id, lease }: Leased): Promise<boolean> {
  const kept = await sql()`update jobs set ${leased()} where id = ${id} and lease = ${lease}`;
  return kept.count > 0;
}

export async function finish({ id, lease }: Leased): Promise<void> {
  await sql()`update jobs set state = 'done', problem = null, tries = tries + 1, done_at = now(),
    lease = null, leased_until = null where id = ${id} and lease = ${lease}`;
}

/** The job was taken too soon, and waits for some seconds as if it had not been. */
export async function giveBack({ id, lease }: Leased, seconds: number): Promise<void> {
  await sql()`update jobs set due_at = now() + ${seconds} * interval '1 second',
    lease = null, leased_until = null where id = ${id} and lease = ${lease}`;
}

/** The job waits for its next try, with what stood in the way in words. */
export async function putOff({ id, lease, tries }: Leased, problem: string): Promise<void> {
  const pause = PAUSES[Math.min(tries, PAUSES.length - 1)] ?? LONGEST_PAUSE;
  await sql()`update jobs set tries = tries + 1, problem = ${problem},
    due_at = now() + ${pause} * interval '1 second', lease = null, leased_until = null
    where id = ${id} and lease = ${lease}`;
}

/** The job is given up until a person asks for it again. */
export async function giveUp({ id, lease }: Leased, problem: string): Promise<void> {
  await sql()`update jobs set state = 'stopped', tries = tries + 1, problem = ${problem},
    lease = null, leased_until = null where id = ${id} and lease = ${lease}`;
}

/** It is not tried again by itself; whoever works on it finds that it has lost it. */
export async function stop(id: string): Promise<boolean> {
  const stopped = await sql()`update jobs set state = 'stopped', lease = null, leased_until = null
    where id = ${id} and state = 'waiting'`;
  return stopped.count > 0;
}
