import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { env } from '../base/env';
import { errorCode } from '../base/errorCode';
import { shared } from '../base/shared';
import { sql } from '../db/sql';

/** Films of clips lie here, what is being recorded, and what is written of them. */
export const mediaDir = (): string => join(env().dataDir, 'media');
/** What comes of a recording, by the id of its shot. */
export const partPath = (shot: string): string => join(mediaDir(), `${shot}.part`);
/** What is wrapped of a recording while it goes on. */
export const alongPath = (shot: string): string => join(mediaDir(), `${shot}.along`);
export const filmPath = (file: string): string => join(mediaDir(), file);
/** Small pictures of a film, side by side. */
export const stripPath = (shot: string): string => join(mediaDir(), `${shot}.strip.jpg`);
/** A film in usual colours, by the id of its shot and its own. */
export const usualPath = (shot: string, id: string): string =>
  join(mediaDir(), `${shot}.${id}.usual`);
/** A file that is written of a clip, by the id of its writing. */
export const writingPath = (writing: string, extension: string): string =>
  join(mediaDir(), `${writing}.made.${extension}`);

export const makeMediaDir = (): Promise<unknown> =>
  mkdir(mediaDir(), { recursive: true, mode: 0o700 });

/** A file and its name are on the disk. */
export async function syncPath(path: string): Promise<void> {
  for (const one of [path, mediaDir()]) {
    const handle = await open(one, 'r');
    await handle.sync().finally(() => handle.close());
  }
}

/** Gives a finished file its name, so that it is there whole or not at all. */
export async function putInPlace(from: string, to: string): Promise<void> {
  await syncPath(from);
  await rename(from, to);
  await syncPath(to);
}

/** Read at a time, bytes: each time costs, and none is to hold up what else goes on. */
const PIECE = 1_000_000;

/** @returns the SHA-256 and the length of a file, which is never held as a whole */
export async function digest(path: string): Promise<{ sha256: string; bytes: number }> {
  const hash = createHash('sha256');
  let bytes = 0;
  for await (const piece of createReadStream(path, { highWaterMark: PIECE })) {
    const read = piece as Buffer;
    hash.update(read);
    bytes += read.length;
  }
  return { sha256: hash.digest('hex'), bytes };
}

/** Shots whose films come in just now, and have no row yet. */
export const arriving = shared('arriving', () => new Set<string>());

const ID = /^[0-9a-f-]{36}/;
/** Of a clip, by the id of its shot and what tells it from another one. */
const FILM = /^[0-9a-f-]{36}(?:\.[0-9a-f-]{36})?\.(?:webm|mp4|mkv)$/;
const USUAL = /^[0-9a-f-]{36}\.([0-9a-f-]{36})\.usual/;

/**
 * Files of films that no clip, no recording and no writing has any more are removed: their shots are
 * gone, or a crash left them.
 */
export async function sweepMedia(): Promise<void> {
  const files = await readdir(mediaDir()).catch((error: unknown) => {
    if (errorCode(error) === 'ENOENT') return [];
    throw error;
  });
  const ids = [...new Set(files.flatMap((file) => ID.exec(file) ?? []))];
  if (ids.length === 0) return;
  const films = await sql()<{ id: string; file: string }[]>`
    select shot_id as id, file from clips where shot_id = any(${ids}::uuid[])`;
  const fileOf = new Map(films.map(({ id, file }) => [id, file]));
  const rows = await sql()<{ id: string }[]>`
    select shot_id as id from clips where shot_id = any(${ids}::uuid[])
    union all select shot_id from recordings where shot_id = any(${ids}::uuid[])
    union all select id from clip_writings where id = any(${ids}::uuid[])
    union all select left(film, 36)::uuid from links where film is not null and not ended`;
  const usual = await sql()<{ id: string }[]>`select id from usual_films`;
  const usualIds = new Set(usual.map(({ id }) => id));
  const wanted = new Set([...rows.map(({ id }) => id), ...arriving]);
  const isGone = (file: string): boolean => {
    const id = ID.exec(file)?.[0] ?? '';
    // The film of before, where the rest of a clip was dropped.
    const now = fileOf.get(id);
    const [, usualId] = USUAL.exec(file) ?? [];
    if (usualId !== undefined) return !usualIds.has(usualId);
    return !wanted.has(id) || (now !== undefined && FILM.test(file) && file !== now);
  };
  const gone = files.filter(isGone);
  for (const file of gone) await rm(join(mediaDir(), file), { force: true });
}
