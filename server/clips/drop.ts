import { randomUUID } from 'node:crypto';
import { rm, stat } from 'node:fs/promises';
import type { Clip } from '@/core/contracts/clip';
import type { ClipDrop } from '@/core/contracts/clipCopy';
import { untouched } from '@/core/document/view';
import { Fault } from '../base/fault';
import { sql } from '../db/sql';
import { clearPages, eraseElsewhere, replaceShown } from '../erase/replace';
import { takeIn } from '../frames/intake';
import { begin } from '../jobs/run';
import { filmPath, putInPlace, stripPath, sweepMedia } from '../media/files';
import { pictureOf } from '../media/pictures';
import { headOf, probe } from '../media/probe';
import { addClip, THROUGH } from './added';
import { wantUsual } from './usual';

const STALE = 'The clip was changed meanwhile. Nothing was dropped; look at it, and drop it then.';

/** @throws Fault 409 */
export function checkUnchanged(
  { revision, marksRevision }: Pick<Clip, 'revision' | 'marksRevision'>,
  drops: ClipDrop,
): void {
  if (revision !== drops.revision || marksRevision !== drops.marksRevision)
    throw new Fault(409, 'stale', STALE);
}

/**
 * Puts what was written of a clip in the place of its film, for good: the old film, how it was cut,
 * what lay on it, its links and what else was written of it are erased.
 * @param path of what was written, which is moved away
 * @returns bytes of the film
 * @throws Fault 409 when it was changed since
 */
export async function replaceFilm(
  { id: shot, document: { description } }: Pick<Clip, 'id' | 'document'>,
  path: string,
  drops: ClipDrop,
): Promise<number> {
  const [read, { sound }, { size: bytes }] = await Promise.all([
    probe(path),
    headOf(path),
    stat(path),
  ]);
  const frame = await takeIn(await pictureOf({ path, times: read.times }, 0));
  // Never a name that it had: what is half done leaves the film that the row tells of.
  const file = `${shot}.${randomUUID()}.mp4`;
  await putInPlace(path, filmPath(file));
  const film = { ...read, bytes, file, type: 'video/mp4', sound: sound !== null };
  const replaced = await sql()
    .begin(async (tx) => {
      const [row] = await tx<{ revision: number; marksRevision: number }[]>`
        select c.revision, s.revision as marks_revision from clips c
        join shots s on s.id = c.shot_id where c.shot_id = ${shot} for update`;
      if (!row) throw new Fault(409, 'stale', STALE);
      checkUnchanged(row, drops);
      // What is to be seen on it is told on.
      const document = { ...untouched(frame), description };
      const done = await replaceShown(tx, shot, row.marksRevision, { frame, document });
      if (!done) throw new Fault(409, 'stale', STALE);
      await tx`delete from clip_steps where shot_id = ${shot}`;
      await tx`delete from clip_writings where shot_id = ${shot} and drops is null`;
      await addClip(tx, shot, film);
      await wantUsual(tx, shot, film);
      return done;
    })
    .catch(async (error: unknown) => {
      await rm(filmPath(file), { force: true });
      throw error;
    });
  await rm(stripPath(shot), { force: true });
  await sweepMedia();
  await eraseElsewhere(shot, replaced);
  await clearPages();
  await sql()`vacuum clips`;
  await sql()`vacuum clip_steps`;
  await sql()`vacuum clip_writings`;
  begin(THROUGH);
  return bytes;
}
