import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { env } from '../base/env';
import { errorCode } from '../base/errorCode';
import { sql } from '../db/sql';

/** Films of clips lie here, what is being recorded, and what is written of them. */
export const mediaDir = (): string => join(env().dataDir, 'media');
/** What comes of a recording, by the id of its shot. */
export const partPath = (shot: string): string => join(mediaDir(), `${shot}.part`);
export const filmPath = (file: string): string => join(mediaDir(), file);
/** Small pictures of a film, side by side. */
export const stripPath = (shot: string): string => join(mediaDir(), `${shot}.strip.jpg`);
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

/** @returns the SHA-256 and the length of a file, which is never held as a whole */
export async function digest(path: string): Promise<{ sha256: string; bytes: number }> {
  const hash = createHash('sha256');
  let bytes = 0;
  for await (const piece of createReadStream(path)) {
    const read = piece as Buffer;
    hash.update(read);
    bytes += read.length;
  }
  return { sha256: hash.digest('hex'), bytes };
}

const ID = /^[0-9a-f-]{36}/;

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
  const rows = await sql()<{ id: string }[]>`
    select shot_id as id from clips where shot_id = any(${ids}::uuid[])
    union all select shot_id from recordings where shot_id = any(${ids}::uuid[])
    union all select id from clip_writings where id = any(${ids}::uuid[])
    union all select left(film, 36)::uuid from links where film is not null and not ended`;
  const wanted = new Set(rows.map(({ id }) => id));
  const gone = files.filter((file) => !wanted.has(ID.exec(file)?.[0] ?? ''));
  for (const file of gone) await rm(join(mediaDir(), file), { force: true });
}
