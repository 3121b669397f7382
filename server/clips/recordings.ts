import { createHash, randomUUID } from 'node:crypto';
import { open, rm } from 'node:fs/promises';
import { setTimeout as pause } from 'node:timers/promises';
import type { z } from 'zod';
import { clipLimits, type clipBeginSchema, type Recording } from '@/core/contracts/clip';
import { Fault, notFound } from '../base/fault';
import { json, sql } from '../db/sql';
import { freeBytes } from '../folders/place';
import { addDue } from '../jobs/queue';
import { breakOff, workNow } from '../jobs/run';
import { makeMediaDir, mediaDir, partPath, syncPath } from '../media/files';
import { personActs } from '../words/quiet';
import { forgetFirst, readAhead } from './firstPicture';
import { forgetHeard, isHeard, noteHeard } from './silence';
import { forgetAlong, heardAlong, isWrappedAlong } from './wrapAlong';

/** The job that makes a clip of a recording. */
export const CLIP = 'clip';
/** So long whoever ends one waits for its clip, and looks so often, ms. */
const PATIENCE = 20_000;
const LOOK = 60;
/** With less room than this left nothing more is recorded, bytes. */
const ROOM = 300_000_000;

const OVER =
  'This recording is over: nothing was heard of it for half a minute. What had come until then is on the Shelf.';

interface Row {
  id: string;
  shotId: string;
  state: Recording['state'];
  pieces: number;
  bytes: string;
  lastSha256: string | null;
  soundDelay: number;
  problem: string | null;
}

async function rowOf(shot: string): Promise<Row> {
  const [row] = await sql()<Row[]>`
    select r.id, r.shot_id, r.state, r.pieces, r.bytes, r.last_sha256, r.sound_delay,
      j.problem
    from recordings r join jobs j on j.id = r.id where r.shot_id = ${shot}`;
  if (row) return row;
  const [clip] = await sql()`select 1 from clips where shot_id = ${shot}`;
  throw clip ? new Fault(409, 'over', OVER) : notFound('recording');
}

async function told({ shotId, state, pieces, bytes, problem }: Row): Promise<Recording> {
  const left = await leftBeside(toBeWritten(shotId, Number(bytes)));
  // The film that is made of it takes as much again.
  const room = left === null ? null : Math.max(0, Math.floor(left / 2));
  return { id: shotId, state, pieces, bytes: Number(bytes), room, problem };
}

/** @throws Fault 404 */
export const getRecording = async (shot: string): Promise<Recording> => told(await rowOf(shot));

/** Its film takes as much again as what came of it, unless that is written as it comes. */
const toBeWritten = (shot: string, bytes: number): number => (isWrappedAlong(shot) ? 0 : bytes);

/** Bytes that are free beyond what is kept back and what is to be written; null where nobody knows. */
async function leftBeside(toWrite: number): Promise<number | null> {
  const free = await freeBytes(mediaDir());
  return free === null ? null : free - ROOM - toWrite;
}

async function checkRoom(toWrite = 0): Promise<void> {
  const left = await leftBeside(toWrite);
  if (left !== null && left < 0)
    throw new Fault(507, 'disk-full', 'The disk is nearly full. What was recorded is kept.');
}

/** When nothing more is heard of a recording for so long, what there is becomes a clip. */
const silent = () => sql()`now() + ${clipLimits.silence} * interval '1 second'`;

/** Begins a recording; asked for twice there is one. @throws Fault 409, 507 */
export async function beginRecording({
  id,
  title,
  provenance,
  type,
  shown,
  soundDelay,
}: z.output<typeof clipBeginSchema>): Promise<Recording> {
  await makeMediaDir();
  await checkRoom();
  const shot = id.toLowerCase();
  const [stored] = await sql()`select 1 from shots where id = ${shot}`;
  if (stored) throw new Fault(409, 'recorded', 'There is a shot with that id already.');
  await sql().begin(async (tx) => {
    const job = randomUUID();
    const added = await tx`insert into recordings (id, shot_id, title, provenance, type, shown,
        sound_delay)
      values (${job}, ${shot}, ${title ?? null}, ${json(provenance)}, ${type},
        ${shown ? json(shown) : null}, ${soundDelay ?? 0})
      on conflict (shot_id) do nothing`;
    if (added.count === 0) return;
    await addDue(tx, job, CLIP);
    await tx`update jobs set due_at = ${silent()} where id = ${job}`;
  });
  noteHeard(shot);
  return getRecording(shot);
}

/**
 * Puts a piece after those that came before, on the disk before it is answered. The same piece
 * again changes nothing.
 * @param number from 0
 * @throws Fault 404, 409 with `expected` where it is not the next one, 413, 507
 */
export async function addPiece(
  shot: string,
  number: number,
  bytes: Uint8Array,
): Promise<Recording> {
  // Nothing is read meanwhile: pictures would be missing.
  personActs();
  const row = await rowOf(shot);
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  if (number === row.pieces - 1 && sha256 === row.lastSha256) return told(row);
  if (row.state === 'ended') throw new Fault(409, 'over', OVER);
  if (number !== row.pieces)
    throw new Fault(409, 'not-next', `Piece ${row.pieces} comes next.`, { expected: row.pieces });
  const before = Number(row.bytes);
  if (before + bytes.length > clipLimits.bytes)
    throw new Fault(413, 'too-large', 'That is more than a clip may have. What came is kept.');
  await checkRoom(toBeWritten(shot, before + bytes.length));
  await append(partPath(shot), before, bytes);
  const kept = await sql()`update recordings set pieces = pieces + 1, last_at = now(),
      bytes = bytes + ${bytes.length}, last_sha256 = ${sha256}
    where id = ${row.id} and pieces = ${number} and state = 'going'`;
  if (kept.count === 0) throw new Fault(409, 'not-next', 'This piece came twice at once.');
  heardAlong(shot, before, bytes);
  // The first ones may hold less than a picture: it is tried again, ever more seldom.
  if (number > 0 && Number.isInteger(Math.log2(number))) readAhead(shot, row.soundDelay);
  await notSilent(row);
  return getRecording(shot);
}

async function notSilent({ id, shotId }: Row): Promise<void> {
  noteHeard(shotId);
  await sql()`update jobs set due_at = ${silent()} where id = ${id} and lease is null`;
}

/** Whether one that its job takes to have fallen silent goes on. */
export async function goesOn(id: string): Promise<boolean> {
  const [row] = await sql()<{ shotId: string }[]>`
    select shot_id from recordings where id = ${id} and state = 'going'`;
  return row !== undefined && isHeard(row.shotId);
}

/**
 * Somebody records it still, although nothing comes: it pauses, or nothing moves.
 * @throws Fault 404, 409 when it is over
 */
export async function stillRecorded(shot: string): Promise<void> {
  const row = await rowOf(shot);
  if (row.state === 'ended') throw new Fault(409, 'over', OVER);
  await notSilent(row);
}

/** Beyond what counts, a crash may have left something, which is written over. */
async function append(path: string, at: number, bytes: Uint8Array): Promise<void> {
  // Opened for writing in its middle: that never makes a file, so it is made first.
  await (await open(path, 'a', 0o600)).close();
  const file = await open(path, 'r+');
  try {
    await file.truncate(at);
    await file.write(bytes, 0, bytes.length, at);
    await file.datasync();
  } finally {
    await file.close();
  }
  if (at === 0) await syncPath(path);
}

/**
 * Nothing more comes: what there is becomes a clip now.
 * @throws Fault 404, 409 with `expected` where not all pieces have come
 */
export async function endRecording(
  shot: string,
  { pieces, bin }: { pieces: number; bin: boolean },
): Promise<void> {
  const row = await rowOf(shot);
  if (row.pieces < pieces)
    throw new Fault(409, 'not-next', `Piece ${row.pieces} comes next.`, { expected: row.pieces });
  await sql()`update recordings set state = 'ended', to_bin = to_bin or ${bin} where id = ${row.id}`;
  await sql()`update jobs set due_at = now() where id = ${row.id}`;
  await workNow(row.id);
  await settled(row.id);
}

/**
 * What came of one that is no clip yet is dropped, and what is done with it broken off.
 * @throws Fault 404, 409 where it is a clip: that is deleted as every shot is
 */
export async function letGoOf(shot: string): Promise<void> {
  const [clip] = await sql()`select 1 from clips where shot_id = ${shot}`;
  if (clip)
    throw new Fault(409, 'is-clip', 'It is a clip already, and is deleted as every shot is.');
  const { id, shotId } = await rowOf(shot);
  breakOff(id);
  await dropRecording({ id, shotId });
}

/** It is gone, with what there is of it. */
export async function dropRecording({ id, shotId }: Pick<Row, 'id' | 'shotId'>): Promise<void> {
  await sql()`delete from recordings where id = ${id}`;
  forgetFirst(shotId);
  forgetHeard(shotId);
  await forgetAlong(shotId);
  await rm(partPath(shotId), { force: true });
}

/** Somebody else may be at it; it is waited for, for a while. */
async function settled(id: string): Promise<void> {
  const until = Date.now() + PATIENCE;
  while (Date.now() < until) {
    const [waits] = await sql()`select 1 from recordings r join jobs j on j.id = r.id
      where r.id = ${id} and j.leased_until > now()`;
    if (!waits) return;
    await pause(LOOK);
  }
}
