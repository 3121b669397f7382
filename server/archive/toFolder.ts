import { open, unlink } from 'node:fs/promises';
import { join } from 'node:path';
import { sql } from '../db/sql';
import { Fault } from '../base/fault';
import { usableFolder } from '../folders/folders';
import { holdFolder, type HeldFolder } from '../folders/held';
import { freeBytes, keepFault } from '../folders/place';
import { addDue } from '../jobs/queue';
import { begin, jobsOf } from '../jobs/run';
import { dropPart, placePart, syncFolder } from '../keep/write';
import { numbered } from '@/core/naming/safeName';
import { archiveName, wantedBy } from './handOut';
import { writeArchive, type Wanted } from './out';
import { addArchive, endArchive, forgetProgress, OUT, tellProgress } from './rows';
import { zipOut, type ZipOut } from './zipOut';

const MOST_ATTEMPTS = 1_000;
/** Any number of our own: whoever presses twice asks one after the other. */
const LOCK = 4312;
/** What is left of a disk at least, bytes: others write, too. */
const SPARE = 200_000_000;

/**
 * An archive shall be written into a folder; where just that waits already, it is that one.
 * @throws Fault 400, 404, 409
 */
export async function archiveTo(folderId: string, query: string, planned = false): Promise<string> {
  const folder = await usableFolder(folderId);
  const only = await wantedBy(query);
  const id = await sql().begin(async (tx) => {
    await tx`select pg_advisory_xact_lock(${LOCK})`;
    const [same] = await tx<{ id: string }[]>`select a.id from archives a
      join jobs j on j.id = a.id and j.kind = ${OUT} and j.state = 'waiting'
      where a.folder_id = ${folderId} and a.query = ${only?.query ?? ''} limit 1`;
    if (same) return same.id;
    const row = await addArchive(tx, {
      direction: 'out',
      path: folder.path,
      folderId,
      query: only?.query,
      planned,
      shows: only?.ids,
    });
    await addDue(tx, row.id, OUT);
    return row.id;
  });
  begin(OUT);
  return id;
}

interface Row {
  folderId: string | null;
  query: string;
  shows: string[] | null;
  beganAt: Date;
}

/** Writes it anew from its beginning, also where that was begun before. */
async function write(id: string, signal: AbortSignal): Promise<void> {
  const [row] = await sql()<Row[]>`
    select folder_id, query, shows, began_at from archives where id = ${id}`;
  if (!row?.folderId) throw new Fault(409, 'folder-gone', 'Its folder was removed from the list.');
  const folder = await usableFolder(row.folderId);
  const only = row.shows && { query: row.query, ids: row.shows };
  const held = await holdFolder(folder.path).catch((error: unknown) => {
    throw error instanceof Fault ? error : keepFault(error, folder.path);
  });
  try {
    await needRoom(folder.path, row.shows);
    const done = await fill(held, { began: row.beganAt, only }, id, signal);
    await endArchive(id, { ...done, path: join(folder.path, done.name) });
  } catch (error) {
    if (error instanceof Fault || signal.aborted) throw error;
    throw keepFault(error, folder.path);
  } finally {
    forgetProgress(id);
    await held.close();
  }
}

/** Said before, not after an hour: frames and films are most of it. @throws Fault 507 */
async function needRoom(path: string, shows: readonly string[] | null): Promise<void> {
  const which = shows
    ? sql()`where id in (select frame_id from shots where id = any(${[...shows]}::uuid[]))`
    : sql()``;
  const [row] = await sql()<{ bytes: string | null }[]>`
    select sum(octet_length(bytes) + coalesce(octet_length(original), 0)) as bytes
    from frames ${which}`;
  const clips = shows ? sql()`where shot_id = any(${[...shows]}::uuid[])` : sql()``;
  const [films] = await sql()<{ bytes: string | null }[]>`
    select sum(bytes) as bytes from clips ${clips}`;
  const free = await freeBytes(path);
  const wanted = Number(row?.bytes ?? 0) + Number(films?.bytes ?? 0);
  if (free === null || free > wanted + SPARE) return;
  const mb = (n: number): string => String(Math.ceil(n / 1_000_000));
  throw new Fault(
    507,
    'disk-full',
    `This archive will have ${mb(wanted)} MB or more, and only ${mb(free)} MB are free in ${path}.`,
  );
}

/** Beside its later place first, as copies are written, under a name that a crash leaves known. */
async function fill(held: HeldFolder, wanted: Wanted, id: string, signal: AbortSignal) {
  const part = { path: held.at(`.rezzik-${id}.part`) };
  await unlink(part.path).catch(() => undefined);
  const zip = zipOut(wanted.began);
  const failed = (error: unknown): never => {
    zip.fail(error);
    throw error;
  };
  try {
    // The first of both that fails is the reason; the other one fails because of it.
    const [report, bytes] = await Promise.all([
      writeArchive(zip, wanted, tellProgress(id), signal).catch(failed),
      written(zip, part.path).catch(failed),
    ]);
    const stem = archiveName(wanted.began).replace(/\.zip$/, '');
    for (let attempt = 1; attempt <= MOST_ATTEMPTS; attempt += 1) {
      const name = `${numbered(stem, attempt)}.zip`;
      if (!(await placePart(part, held.at(name)))) continue;
      await syncFolder(held.at('.'));
      return { name, bytes, report };
    }
    throw new Fault(409, 'no-free-name', 'There is no free name in this folder.');
  } finally {
    await dropPart(part);
  }
}

/** @returns bytes, once they are on the disk */
async function written(zip: ZipOut, path: string): Promise<number> {
  const file = await open(path, 'wx', 0o600);
  try {
    let bytes = 0;
    for await (const piece of zip.stream as AsyncIterable<Buffer>) {
      // Told at once: whoever fills it would else only hear that nobody reads any more.
      await file.appendFile(piece).catch((error: unknown) => zip.fail(error));
      bytes += piece.length;
    }
    await file.sync();
    return bytes;
  } finally {
    await file.close();
  }
}

jobsOf(OUT, write, { alone: true, mostTries: 1 });
