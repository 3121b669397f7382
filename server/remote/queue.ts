import { randomUUID } from 'node:crypto';
import { sendingSchema, type Sending } from '@/core/contracts/remote';
import { hasNumber } from '@/core/naming/pattern';
import { sql } from '../db/sql';
import { notFound } from '../http/fault';
import { namesFor } from '../keep/copies';
import { encodeShot } from '../keep/encode';
import { formats } from '../keep/formats';
import { getShot } from '../shots/rows';
import { remoteRow } from './remotes';
import { sendFile } from './send';

/** Pauses before the next try, seconds; the last one is repeated. */
const PAUSES = [10, 30, 120, 600, 3600];
/** A next try further off than this was set by a clock that has been set back since. */
const LONGEST_PAUSE = Math.max(...PAUSES);
const TICK = 5_000;

interface Row {
  id: string;
  remote_id: string;
  remote_name: string;
  name: string;
  size: string;
  state: string;
  tries: number;
  problem: string | null;
  next_try: Date;
  made_at: Date;
}

const toSending = (row: Row): Sending =>
  sendingSchema.parse({
    id: row.id,
    remoteName: row.remote_name,
    name: row.name,
    size: Number(row.size),
    state: row.state,
    tries: row.tries,
    problem: row.problem,
    nextTry: row.next_try.toISOString(),
    madeAt: row.made_at.toISOString(),
  });

const select = () => sql()`select s.id, s.remote_id, r.name as remote_name, s.name, s.size, s.state,
  s.tries, s.problem, s.next_try, s.made_at from sendings s join remotes r on r.id = s.remote_id`;

async function getSending(id: string): Promise<Sending> {
  const [row] = await sql()<Row[]>`${select()} where s.id = ${id}`;
  if (!row) throw notFound('sending');
  return toSending(row);
}

/** What was sent of a shot, or of all shots what still waits; newest first. */
export async function listSendings(shotId?: string): Promise<Sending[]> {
  const which = shotId ? sql()`s.shot_id = ${shotId}` : sql()`s.state = 'waiting'`;
  const rows = await sql()<Row[]>`${select()} where ${which} order by s.made_at desc limit 500`;
  return rows.map(toSending);
}

/**
 * Makes a copy for a remote folder and tries to send it at once. If that fails it waits in the
 * database, and the answer says why. @throws Fault 404
 */
export async function sendTo(shotId: string, remoteId: string): Promise<Sending> {
  const [shot, remote] = await Promise.all([getShot(shotId), remoteRow(remoteId)]);
  const format = formats[remote.format];
  const encoded = await encodeShot(shotId, {
    ...remote.size,
    format: remote.format,
    quality: remote.quality,
    options: remote.options,
    maxBytes: remote.maxBytes ?? undefined,
    facts: remote.facts,
  });
  const number = hasNumber(remote.pattern) ? await countOf(remoteId) : 1;
  const name = `${namesFor(remote.pattern, shot, encoded, number).join('/')}.${format.extension}`;
  const id = randomUUID();
  await sql()`insert into sendings (id, shot_id, remote_id, name, media_type, bytes, size)
    values (${id}, ${shotId}, ${remoteId}, ${name}, ${format.mediaType},
      ${Buffer.from(encoded.bytes)}, ${encoded.bytes.length})`;
  await trySending(id);
  return getSending(id);
}

async function countOf(remoteId: string): Promise<number> {
  const [row] = await sql()<{ n: number }[]>`
    select count(*)::int + 1 as n from sendings where remote_id = ${remoteId}`;
  return row?.n ?? 1;
}

/** One try; what comes of it is written down. Two never send the same at once. */
export async function trySending(id: string): Promise<void> {
  await sql().begin(async (tx) => {
    const [row] = await tx<{ remote_id: string; name: string; bytes: Buffer; tries: number }[]>`
      select remote_id, name, bytes, tries from sendings
      where id = ${id} and state = 'waiting' for update skip locked`;
    if (!row) return;
    try {
      const name = await sendFile(await remoteRow(row.remote_id), row.name, row.bytes);
      await tx`update sendings set state = 'sent', name = ${name}, bytes = null, problem = null,
        tries = tries + 1, sent_at = now() where id = ${id}`;
    } catch (error) {
      const pause = PAUSES[Math.min(row.tries, PAUSES.length - 1)] ?? 60;
      const problem = error instanceof Error ? error.message : String(error);
      await tx`update sendings set tries = tries + 1, problem = ${problem},
        next_try = now() + ${pause} * interval '1 second' where id = ${id}`;
    }
  });
}

/** Tries again now, whenever the next try would have been. @throws Fault 404 */
export async function sendAgain(id: string): Promise<Sending> {
  await trySending(id);
  return getSending(id);
}

/** Gives up on a copy that waits. @throws Fault 404 */
export async function dropSending(id: string): Promise<void> {
  const gone = await sql()`delete from sendings where id = ${id}`;
  if (gone.count === 0) throw notFound('sending');
}

interface Held {
  rezzikSender?: NodeJS.Timeout;
}
const held = globalThis as Held;
let busy = false;

/** From now on what waits is sent when its time comes. */
export function startSendingAgain(): void {
  clearInterval(held.rezzikSender);
  held.rezzikSender = setInterval(() => void sendDue(), TICK);
  held.rezzikSender.unref();
}

/** Sends what is due now. */
export async function sendDue(): Promise<void> {
  if (busy) return;
  busy = true;
  try {
    const due = await sql()<{ id: string }[]>`select id from sendings
      where state = 'waiting' and (next_try <= now()
        or next_try > now() + ${LONGEST_PAUSE} * interval '1 second') order by next_try limit 20`;
    for (const { id } of due) await trySending(id);
  } catch (error) {
    console.error('What waits to be sent could not be looked at:', error);
  } finally {
    busy = false;
  }
}
