import type postgres from 'postgres';
import { randomUUID } from 'node:crypto';
import { firstKept, type Cuts } from '@/core/clip/cuts';
import { keptSeconds } from '@/core/clip/played';
import { json } from '../db/sql';
import { addDue } from '../jobs/queue';
import type { Probed } from '../media/probe';

/** The job that looks through a clip. */
export const THROUGH = 'clipLook';
/** The job that writes a file of one. */
export const WRITE = 'clipWrite';

/** A film that lies in its place, whole. */
export interface NewFilm extends Probed {
  file: string;
  type: string;
  /** Sound goes with its pictures. */
  sound: boolean;
  bytes: number;
  /** Where it is known already: else it is worked out once the film was looked through. */
  sha256?: string;
}

/**
 * Makes a clip of a shot that is the first picture of a film, in the transaction that stores the
 * shot; of one that is a clip already, another one, whole. It shall be looked through: whoever calls begins with that (`THROUGH`) afterwards.
 */
export async function addClip(
  tx: postgres.TransactionSql,
  shot: string,
  film: NewFilm,
  cuts?: Cuts,
): Promise<void> {
  const { file, type, sound, sha256, bytes, width, height, codec, fineColours } = film;
  const micros = film.times.map((at) => Math.round(at * 1e6));
  const look = randomUUID();
  await tx`insert into clips
    (id, shot_id, file, type, bytes, sha256, width, height, codec, fine_colours, sound, times)
    values (${look}, ${shot}, ${file}, ${type}, ${bytes}, ${sha256 ?? null}, ${width}, ${height},
      ${codec}, ${fineColours}, ${sound}, ${micros})
    on conflict (shot_id) do update set id = excluded.id, file = excluded.file,
      type = excluded.type, bytes = excluded.bytes, sha256 = excluded.sha256,
      width = excluded.width, height = excluded.height, codec = excluded.codec,
      fine_colours = excluded.fine_colours, sound = excluded.sound, times = excluded.times,
      changes = null, cuts = default, cover = default, kept = null, step = 0, revision = clips.revision + 1`;
  // Of the film of before.
  await tx`delete from usual_films where shot_id = ${shot}`;
  if (cuts) await cutTo(tx, shot, cuts, micros);
  await addDue(tx, look, THROUGH);
}

/**
 * Cuts a clip so; the first picture that is kept stands for it.
 * @param micros when each of its pictures comes, millionths of a second
 */
export async function cutTo(
  tx: postgres.TransactionSql,
  shot: string,
  cuts: Cuts,
  micros: readonly number[],
): Promise<void> {
  const times = micros.map((at) => at / 1e6);
  await tx`update clips set cuts = ${json(cuts)}, cover = ${firstKept(cuts, times.length)},
    kept = ${keptSeconds(cuts, times)} where shot_id = ${shot}`;
}
