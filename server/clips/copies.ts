import { randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { readFile, rm } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import type { z } from 'zod';
import type { Clip } from '@/core/contracts/clip';
import {
  clipDropSchema,
  clipFormats,
  clipWishSchema,
  type ClipDrop,
  type ClipJob,
  type ClipWish,
} from '@/core/contracts/clipCopy';
import type { FactsRule } from '@/core/contracts/format';
import type { Sending } from '@/core/contracts/remote';
import type { Size } from '@/core/geometry/size';
import { leavingDescription, leavingTitle } from '@/core/keep/leaving';
import { safeName } from '@/core/naming/safeName';
import { Fault, notFound } from '../base/fault';
import { secondsLeft, type HowFar } from '../base/howFar';
import { shared } from '../base/shared';
import { json, sql } from '../db/sql';
import { usableFolder } from '../folders/folders';
import { addDue } from '../jobs/queue';
import { begin, jobsOf, stopJob } from '../jobs/run';
import { getCopy } from '../keep/copyRows';
import { keepFile } from '../keep/keepFile';
import { openPart, type Part } from '../keep/write';
import { digest, sweepMedia, syncPath, writingPath } from '../media/files';
import type { RemoteRow } from '../remote/remotes';
import { getSending, sendFileOf, usableRemote } from '../remote/sendings';
import { getPaintable, getShot } from '../shots/rows';
import { checkUnchanged, replaceFilm } from './drop';
import { produceHidden } from './hidden';
import { WRITE } from './added';
import { produce } from './produce';
import type { Writing } from './written';
import { filmOf, getClip } from './rows';

type Wish = z.output<typeof clipWishSchema>;

/** A file that was only made is held so long. */
const HELD = '1 day';
const MB = 1_000_000;

const going = shared('clipWritings', () => new Map<string, HowFar>());

/**
 * Asks for a file of a clip. @returns the id of its job @throws Fault 404
 * @param drops it takes the place of the film, if nothing was changed since
 */
export async function wantFile(
  shot: string,
  wish: ClipWish,
  drops: ClipDrop | null = null,
): Promise<string> {
  await filmOf(shot);
  if (wish.folderId) await usableFolder(wish.folderId);
  if (wish.remoteId) await usableRemote(wish.remoteId);
  const id = randomUUID();
  await sql().begin(async (tx) => {
    await tx`delete from clip_writings where made_at < now() - ${HELD}::interval`;
    await tx`insert into clip_writings (id, shot_id, wish, drops)
      values (${id}, ${shot}, ${json(wish)}, ${drops && json(drops)})`;
    await addDue(tx, id, WRITE);
  });
  await sweepMedia();
  begin(WRITE);
  return id;
}

interface Row {
  id: string;
  shotId: string;
  wish: unknown;
  copyId: string | null;
  sendingId: string | null;
  marksRevision: number | null;
  drops: unknown;
  bytes: string | null;
  state: ClipJob['state'];
  problem: string | null;
  leased: boolean;
}

async function rowOf(shot: string, id: string): Promise<Row> {
  const [row] = await sql()<Row[]>`
    select w.id, w.shot_id, w.wish, w.copy_id, w.sending_id, w.marks_revision, w.drops, w.bytes, j.state, j.problem,
      coalesce(j.leased_until > now(), false) as leased
    from clip_writings w join jobs j on j.id = w.id where w.id = ${id} and w.shot_id = ${shot}`;
  if (!row) throw notFound('job');
  return row;
}

/** Where a file that was asked for stands. @throws Fault 404 */
export async function getWriting(shot: string, id: string): Promise<ClipJob> {
  const { state, problem, copyId, sendingId, drops, bytes, leased } = await rowOf(shot, id);
  const howFar = going.get(id) ?? { since: Date.now(), progress: 0 };
  return {
    id,
    state: state === 'waiting' && leased ? 'going on' : state,
    progress: state === 'done' ? 1 : howFar.progress,
    left: secondsLeft(howFar),
    problem: state === 'stopped' ? (problem ?? 'Stopped. Nothing of it is left.') : null,
    bytes: bytes === null ? null : Number(bytes),
    copy: copyId === null ? null : await getCopy(copyId),
    // One that was given up is gone.
    sending: sendingId === null ? null : await getSending(sendingId).catch(() => null),
    drops: drops !== null,
  };
}

/** Nothing of it is left, and nothing kept is taken away. @throws Fault 404 */
export async function stopWriting(shot: string, id: string): Promise<void> {
  await rowOf(shot, id);
  await stopJob(id);
}

export interface MadeFile {
  path: string;
  type: string;
  name: string;
  etag: string;
  wish: Wish;
  /** Of what lay on the clip then. */
  marksRevision: number | null;
}

/** The file that was made, to be fetched. @throws Fault 404, 409 */
export async function madeFile(shot: string, id: string): Promise<MadeFile> {
  const { state, wish: asked, marksRevision, drops } = await rowOf(shot, id);
  if (drops !== null) throw notFound('file');
  if (state !== 'done') throw new Fault(409, 'not-ready', 'It is not written yet.');
  const wish = clipWishSchema.parse(asked);
  const { format, folderId, remoteId } = wish;
  if (folderId !== null || remoteId !== null) throw notFound('file');
  const { extension, type } = clipFormats[format];
  const title = safeName(leavingTitle(await getShot(shot)));
  return {
    path: writingPath(id, extension),
    type,
    name: `${title}.${extension}`,
    etag: id,
    wish,
    marksRevision,
  };
}

/** @param facts what a folder lets out; without one a title that a person gave */
const saidOf = (clip: Clip, facts: FactsRule): Pick<Writing, 'title' | 'description'> => {
  if (!facts.words) return { title: null, description: null };
  const title = facts.origin ? clip.title : leavingTitle(clip);
  return { title, description: leavingDescription(clip) ?? null };
};

/** Writes what the clip shows, to take the place of its film. */
async function dropRest(
  id: string,
  shot: string,
  drops: ClipDrop,
  signal: AbortSignal,
): Promise<void> {
  const [clip, film] = await Promise.all([getClip(shot), filmOf(shot)]);
  checkUnchanged(clip, drops);
  const path = writingPath(id, clipFormats.mp4.extension);
  const since = Date.now();
  try {
    const heard = (progress: number) => going.set(id, { since, progress });
    heard(0);
    const form = { format: 'mp4', percent: 100, rate: null, sound: 'unhidden' } as const;
    const writing = { ...form, title: null, description: null, bits: null, fine: true };
    await produce({ clip, film, path, signal, heard }, writing, null);
    signal.throwIfAborted();
    const bytes = await replaceFilm(clip, path, drops);
    await sql()`update clip_writings set bytes = ${bytes} where id = ${id}`;
  } finally {
    going.delete(id);
    await rm(path, { force: true });
  }
}

async function write(id: string, signal: AbortSignal): Promise<void> {
  const [row] = await sql()<Pick<Row, 'shotId' | 'wish' | 'copyId' | 'sendingId' | 'drops'>[]>`
    select shot_id, wish, copy_id, sending_id, drops from clip_writings where id = ${id}`;
  // Kept already, before a crash: it is not kept twice.
  if (!row || row.copyId !== null || row.sendingId !== null) return;
  const { shotId: shot } = row;
  if (row.drops !== null) return dropRest(id, shot, clipDropSchema.parse(row.drops), signal);
  const wish = clipWishSchema.parse(row.wish);
  const [clip, film] = await Promise.all([getClip(shot), filmOf(shot)]);
  const folder = wish.folderId === null ? null : await usableFolder(wish.folderId);
  const remote = wish.remoteId === null ? null : await usableRemote(wish.remoteId);
  const { extension } = clipFormats[wish.format];
  const path = writingPath(id, extension);
  const said = saidOf(clip, (folder ?? remote)?.facts ?? { words: wish.words, origin: false });
  going.set(id, { since: Date.now(), progress: 0 });
  try {
    const heard = (progress: number) =>
      going.set(id, { ...(going.get(id) ?? { since: Date.now() }), progress });
    const most = wish.most === null ? null : wish.most * MB;
    const writing = { ...wish, ...said, bits: null };
    const { size, marksRevision } = await produceHidden(
      { clip, film, path, signal, heard },
      writing,
      most,
    );
    signal.throwIfAborted();
    // What is copied away is brought to the disk there.
    if (!folder && !remote) await syncPath(path);
    const { sha256, bytes } = await digest(path);
    const copy = folder
      ? await keepFile({
          ...{ shot: await getShot(shot), folder, format: wish.format, extension, sha256, bytes },
          size,
          pattern: wish.name ?? folder.pattern,
          write: (part) => copyTo(path, part),
        })
      : null;
    const sending = remote && (await sendMade(shot, remote, wish, { path, size, bytes }));
    await sql()`update clip_writings set bytes = ${bytes}, copy_id = ${copy?.id ?? null},
      sending_id = ${sending?.id ?? null}, marks_revision = ${marksRevision} where id = ${id}`;
  } catch (error) {
    await rm(path, { force: true });
    throw error;
  } finally {
    going.delete(id);
    if (folder ?? remote) await rm(path, { force: true });
  }
}

/** What waits to be sent lies in the database, bytes. */
const MOST_SENT = 500 * MB;

async function sendMade(
  shot: string,
  remote: RemoteRow,
  { format }: Wish,
  { path, size, bytes }: { path: string; size: Size; bytes: number },
): Promise<Sending> {
  if (bytes > MOST_SENT) {
    const words = 'To a remote folder goes a file of 500 MB at most. Say how many it may have.';
    throw new Fault(413, 'too-large', words);
  }
  const { extension, type: mediaType } = clipFormats[format];
  const file = { bytes: await readFile(path), size, extension, mediaType };
  return sendFileOf(await getPaintable(shot), remote, file);
}

/** At a time, bytes. */
const COPIED = 1_000_000;

async function copyTo(path: string, part: Part): Promise<void> {
  const file = await openPart(part);
  try {
    await pipeline(
      createReadStream(path, { highWaterMark: COPIED }),
      createWriteStream('', { fd: file.fd, autoClose: false, highWaterMark: COPIED }),
    );
    await file.sync();
  } finally {
    await file.close();
  }
}

jobsOf(WRITE, write, { alone: true, mostTries: 1 });
