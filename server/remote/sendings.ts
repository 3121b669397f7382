import { leavingTitle } from '@/core/keep/leaving';
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import type postgres from 'postgres';
import { sendingSchema, type Sending } from '@/core/contracts/remote';
import type { Shot } from '@/core/contracts/shot';
import type { Size } from '@/core/geometry/size';
import { hasNumber } from '@/core/naming/pattern';
import { sql } from '../db/sql';
import { Fault, notFound } from '../base/fault';
import { addLeased } from '../jobs/queue';
import { jobsOf, stopJob, work, workNow } from '../jobs/run';
import { namesFor } from '../keep/keepFile';
import { encodeShot } from '../keep/encode';
import { formats } from '../formats';
import { getPaintable } from '../shots/rows';
import { publicAddress } from './publicAddress';
import { remoteRow, type RemoteRow } from './remotes';
import { unseal } from './sealed';
import { sendFile } from './send';

/** The kind of its jobs. */
const SEND = 'send';
/** How long whoever sends waits to hear how it went, ms; it goes on all the same. */
const SOON = 6_000;

interface Row {
  id: string;
  remoteId: string;
  remoteName: string;
  name: string;
  size: string;
  state: string;
  tries: number;
  problem: string | null;
  address: string | null;
  addressProblem: string | null;
  dueAt: Date;
  madeAt: Date;
}

const toSending = (row: Row): Sending =>
  sendingSchema.parse({
    id: row.id,
    remoteName: row.remoteName,
    name: row.name,
    size: Number(row.size),
    state: row.state === 'done' ? 'sent' : row.state,
    tries: row.tries,
    problem: row.problem,
    address: row.address,
    addressProblem: row.addressProblem,
    nextTry: row.dueAt.toISOString(),
    madeAt: row.madeAt.toISOString(),
  });

const select = () => sql()`select s.id, s.remote_id, r.name as remote_name, s.name, s.size,
  s.address, s.address_problem, j.state, j.tries, j.problem, j.due_at, j.made_at from sendings s join jobs j on j.id = s.id
  join remotes r on r.id = s.remote_id`;

export async function getSending(id: string): Promise<Sending> {
  const [row] = await sql()<Row[]>`${select()} where s.id = ${id}`;
  if (!row) throw notFound('sending');
  return toSending(row);
}

/** What was sent of a shot, or of all shots what still waits; newest first. */
export async function listSendings(shotId?: string): Promise<Sending[]> {
  const which = shotId ? sql()`s.shot_id = ${shotId}` : sql()`j.state <> 'done'`;
  const rows = await sql()<Row[]>`${select()} where ${which} order by j.made_at desc limit 500`;
  return rows.map(toSending);
}

/**
 * Makes a copy for a remote folder and tries to send it at once. If that fails it waits in the
 * database, and the answer says why. @throws Fault 404
 */
export async function sendTo(shotId: string, remoteId: string): Promise<Sending> {
  const [shot, remote] = await Promise.all([getPaintable(shotId), usableRemote(remoteId)]);
  const format = formats[remote.format];
  const encoded = await encodeShot(shot, {
    ...remote.size,
    format: remote.format,
    quality: remote.quality,
    options: remote.options,
    maxBytes: remote.maxBytes ?? undefined,
    facts: remote.facts,
    look: remote.look ?? undefined,
  });
  return sendFileOf(shot, remote, {
    ...{ bytes: encoded.bytes, size: encoded },
    ...{ extension: format.extension, mediaType: format.mediaType },
  });
}

/** @throws Fault 404, 409 for one that came in with an archive */
export async function usableRemote(id: string): Promise<RemoteRow> {
  const remote = await remoteRow(id);
  if (!remote.unconfirmed) return remote;
  const words =
    'This remote folder came in with an archive. Nothing is sent there before it is confirmed in Setup › Sending.';
  throw new Fault(409, 'unconfirmed', words);
}

interface FileToSend {
  bytes: Uint8Array;
  /** Of its pictures, for its name. */
  size: Size;
  extension: string;
  mediaType: string;
}

/** Sends a file of a shot; where that fails it waits in the database. @throws Fault 404, 409 */
export async function sendFileOf(
  shot: Shot & { frameId: string },
  remote: RemoteRow,
  { bytes, size, extension, mediaType }: FileToSend,
): Promise<Sending> {
  const number = hasNumber(remote.pattern) ? await countOf(remote.id) : 1;
  const named = remote.facts.origin ? shot : { ...shot, title: leavingTitle(shot) };
  const name = `${namesFor(remote.pattern, named, size, number).join('/')}.${extension}`;
  const id = randomUUID();
  const job = await sql().begin(async (tx) => {
    // What was dropped for good while this was encoded must not leave any more.
    const [now] = await frameOf(tx, shot.id);
    if (now?.frameId !== shot.frameId) return null;
    const leased = await addLeased(tx, id, SEND);
    await tx`insert into sendings (id, shot_id, remote_id, name, media_type, bytes, size)
      values (${id}, ${shot.id}, ${remote.id}, ${name}, ${mediaType},
        ${Buffer.from(bytes)}, ${bytes.length})`;
    return leased;
  });
  if (!job) throw new Fault(409, 'stale', 'This shot was changed meanwhile. Send it once more.');
  await soon(work(job));
  return getSending(id);
}

/** The frame a shot shows; held as it is until the transaction ends. */
const frameOf = (tx: postgres.ISql, shotId: string) =>
  tx<{ frameId: string }[]>`select frame_id from shots where id = ${shotId} for share`;

const soon = (done: Promise<void>): Promise<unknown> =>
  Promise.race([done, pause(SOON, undefined, { ref: false })]);

async function countOf(remoteId: string): Promise<number> {
  const [row] = await sql()<{ n: number }[]>`
    select count(*)::int + 1 as n from sendings where remote_id = ${remoteId}`;
  return row?.n ?? 1;
}

/** One try, outside any transaction: the other end may take its time. */
async function send(id: string, signal: AbortSignal): Promise<void> {
  const [row] = await sql()<
    { remoteId: string; name: string; bytes: Buffer | null; trying: string | null }[]
  >`select remote_id, name, bytes, trying from sendings where id = ${id}`;
  if (!row?.bytes) return;
  const remote = await remoteRow(row.remoteId);
  const { name, guard } = await sendFile(
    { ...remote, password: await unseal(remote.password) },
    {
      name: row.name,
      bytes: row.bytes,
      guard: remote.guard,
      trying: row.trying,
      note: async (trying) =>
        void (await sql()`update sendings set trying = ${trying} where id = ${id}`),
      signal,
    },
  );
  if (guard !== remote.guard)
    await sql()`update remotes set guard = ${guard} where id = ${row.remoteId}`;
  const seen = remote.address ? await publicAddress(remote.address, name, signal) : null;
  await sql()`update sendings set name = ${name}, bytes = null, trying = null,
    address = ${seen?.address ?? null}, address_problem = ${seen?.problem ?? null} where id = ${id}`;
}

jobsOf(SEND, send);

/** Tries again now, whenever the next try would have been. @throws Fault 404 */
export async function sendAgain(id: string): Promise<Sending> {
  await getSending(id);
  await soon(workNow(id));
  return getSending(id);
}

/** Stops a copy that waits or is being sent; it stays, and can be sent again. @throws Fault 404 */
export async function stopSending(id: string): Promise<Sending> {
  await stopJob(id);
  return getSending(id);
}

/** Gives up on a copy that waits. @throws Fault 404 */
export async function dropSending(id: string): Promise<void> {
  await stopJob(id);
  const gone = await sql()`delete from sendings where id = ${id}`;
  if (gone.count === 0) throw notFound('sending');
}

/**
 * Erases what waits to be sent of a shot, in the transaction that erases what it shows.
 * @returns what may be on its way just now, to be broken off
 */
export async function eraseWaiting(
  tx: postgres.TransactionSql,
  shotId: string,
): Promise<readonly string[]> {
  const gone = await tx<{ id: string }[]>`delete from sendings s using jobs j
    where j.id = s.id and j.state <> 'done' and s.shot_id = ${shotId} returning s.id`;
  return gone.map(({ id }) => id);
}
