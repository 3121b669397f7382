import { mkdir, open, readdir, unlink } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { asLine } from '@/core/values/text';
import { limits } from '@/core/values/limits';
import { sql } from '../db/sql';
import { env } from '../base/env';
import { Fault } from '../base/fault';
import { freeBytes, keepFault } from '../folders/place';
import { bodyPieces } from '../http/body';
import { addDue } from '../jobs/queue';
import { begin, jobsOf, stopJob } from '../jobs/run';
import { bringIn } from './bring';
import {
  addArchive,
  dropArchive,
  endArchive,
  forgetProgress,
  getArchive,
  IN,
  tellProgress,
} from './rows';

/** Bytes of an uploaded archive at most, and what is left of the disk. */
const MOST = 4_000_000_000_000;
const SPARE = 500_000_000;

const waitingPlace = (): string => join(env().dataDir, 'archives');
const fileOf = (id: string): string => join(waitingPlace(), `${id}.zip`);

/**
 * Takes an archive in as it arrives, and brings in what it holds once it is whole.
 * @throws Fault 400 cut short, 507 no room for it
 */
export async function archiveFrom(request: Request, name: string): Promise<string> {
  await mkdir(waitingPlace(), { recursive: true, mode: 0o700 });
  await needRoom(Number(request.headers.get('content-length') ?? 0));
  const path = asLine(name, limits.pathLength) || 'An archive';
  const { id } = await addArchive(sql(), { direction: 'in', path });
  try {
    const file = await open(fileOf(id), 'wx', 0o600);
    await pipeline(bodyPieces(request, MOST, false), file.createWriteStream());
    await sql().begin((tx) => addDue(tx, id, IN));
  } catch (error) {
    await unlink(fileOf(id)).catch(() => undefined);
    await dropArchive(id);
    throw error instanceof Fault ? error : keepFault(error, waitingPlace());
  }
  begin(IN);
  return id;
}

async function needRoom(bytes: number): Promise<void> {
  const free = await freeBytes(waitingPlace());
  if (free === null || free > bytes + SPARE) return;
  throw new Fault(507, 'disk-full', 'There is not enough room on this disk for that archive.');
}

/** Begun anew after it was cut off, it leaves what came in before: it goes on entry by entry. */
async function work(id: string, signal: AbortSignal): Promise<void> {
  const file = fileOf(id);
  try {
    const report = await bringIn(file, tellProgress(id), signal);
    await endArchive(id, { report });
  } catch (error) {
    // Where it was taken from us, somebody goes on with it; where a person stopped it, it is gone.
    if (signal.aborted) throw error;
    await unlink(file).catch(() => undefined);
    throw error;
  } finally {
    forgetProgress(id);
  }
  await unlink(file).catch(() => undefined);
}

/** Stops what goes on; what was written is taken away, what came in stays. @throws Fault 404, 409 */
export async function stopArchive(id: string): Promise<void> {
  const archive = await getArchive(id);
  if (!(await stopJob(id))) {
    throw new Fault(409, 'not-going-on', 'This archive is not being worked on.');
  }
  if (archive.direction === 'in') await unlink(fileOf(id)).catch(() => undefined);
}

/** After a crash: what was handed out ended with it, and files that nobody waits for go. */
export async function mendArchives(): Promise<void> {
  await sql()`update archives set ended_at = now() where ended_at is null and direction = 'out'
    and not exists (select 1 from jobs j where j.id = archives.id)`;
  await sql()`delete from archives where direction = 'in'
    and not exists (select 1 from jobs j where j.id = archives.id)`;
  const waiting = await sql()<{ id: string }[]>`
    select id from jobs where kind = ${IN} and state = 'waiting'`;
  const wanted = new Set(waiting.map(({ id }) => `${id}.zip`));
  const files = await readdir(waitingPlace()).catch(() => []);
  for (const name of files) {
    if (!wanted.has(name)) await unlink(join(waitingPlace(), name)).catch(() => undefined);
  }
}

jobsOf(IN, work, { alone: true, mostTries: 1 });
