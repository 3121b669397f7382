import { randomUUID } from 'node:crypto';
import { rm, stat } from 'node:fs/promises';
import type postgres from 'postgres';
import { sql } from '../db/sql';
import { freeBytes } from '../folders/place';
import { addDue } from '../jobs/queue';
import { jobsOf } from '../jobs/run';
import { asFilm, ffmpeg } from '../media/ffmpeg';
import { mediaDir, putInPlace, usualPath } from '../media/files';
import { probe, type Pictures } from '../media/probe';
import { THROUGH, WRITE, type NewFilm } from './added';
import { filmOf, type Film } from './rows';

/** The job that packs a film of fine colours once more, in usual ones. */
export const USUAL = 'clipUsual';

const LONGEST = 3_600_000;
const TRIES = 2;
/** With less room than this beside it left it is not made, bytes. */
const ROOM = 1_000_000_000;
/** Both are written with thousandths of a second. */
const SAME = 0.002;
/** As good as what is packed when a clip is kept; in the order seen, with places to begin at. */
const packed = [
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '18', '-bf', '0', '-g', '30'],
  ...['-pix_fmt', 'yuv420p', '-fps_mode', 'passthrough', '-enc_time_base:v', '1:1000'],
];

export const usualArgs = ({ path }: Pick<Film, 'path'>, to: string): string[] => [
  ...[...asFilm(path), '-map', '0:v:0', ...packed, '-f', 'matroska', '-y', to],
];

const isEven = (side: number): boolean => side % 2 === 0;

/** What has such colours, and sides that usual ones can have, is packed so once it was looked through. */
export async function wantUsual(
  tx: postgres.TransactionSql,
  shot: string,
  { fineColours, width, height }: NewFilm,
): Promise<void> {
  if (!fineColours || !isEven(width) || !isEven(height)) return;
  const id = randomUUID();
  await tx`insert into usual_films (id, shot_id) values (${id}, ${shot})`;
  await addDue(tx, id, USUAL);
}

/** Neither while something is recorded or kept, nor before what the view of a clip shows. */
async function isCalm(): Promise<boolean> {
  const [busy] = await sql()`select 1 from recordings where state = 'going'
    union all select 1 from jobs where kind = ${THROUGH} and state = 'waiting'
    union all select 1 from jobs where kind = ${WRITE} and leased_until > now() limit 1`;
  return busy === undefined;
}

async function makeUsual(id: string, signal: AbortSignal): Promise<void> {
  const [row] = await sql()<{ shotId: string; bytes: string }[]>`
    select u.shot_id, c.bytes from usual_films u join clips c using (shot_id) where u.id = ${id}`;
  const free = await freeBytes(mediaDir());
  if (!row || (free !== null && free < ROOM + Number(row.bytes))) return;
  const film = await filmOf(row.shotId);
  const path = usualPath(row.shotId, id);
  const part = `${path}.part`;
  try {
    await ffmpeg(usualArgs(film, part), { most: LONGEST, signal });
    const { times } = await probe(part, signal);
    const isSame = times.every((time, i) => Math.abs(time - (film.times[i] ?? NaN)) < SAME);
    if (times.length !== film.times.length || !isSame) throw new Error('Its pictures are others.');
    await putInPlace(part, path);
    const { size } = await stat(path);
    const made = await sql()`update usual_films set bytes = ${size} where id = ${id}`;
    // The rest of the clip was dropped, or all of it erased, meanwhile.
    if (made.count === 0) await rm(path, { force: true });
  } finally {
    await rm(part, { force: true });
  }
}

/** The same film in usual colours, where it was made so; else null. */
export async function usualOf(
  shot: string,
  film: Film,
): Promise<{ film: Film; packed: Pick<Pictures, 'codec' | 'fineColours'> } | null> {
  const [row] = await sql()<{ id: string }[]>`
    select id from usual_films where shot_id = ${shot} and bytes is not null`;
  if (!row) return null;
  const path = usualPath(shot, row.id);
  const there = await stat(path).catch(() => null);
  return there && { film: { ...film, path }, packed: { codec: 'h264', fineColours: false } };
}

jobsOf(USUAL, makeUsual, { alone: true, may: isCalm, mostTries: TRIES });
