import { clipSchema, type Clip, type Recording } from '@/core/contracts/clip';
import { wholeSize } from '@/core/paint/whole';
import { serverShaper } from '../paint/shaper';
import { Fault, notFound } from '../base/fault';
import { sql } from '../db/sql';
import { digest, filmPath } from '../media/files';
import { getShot } from '../shots/rows';
import { stepsOf } from './cuts';
import { getRecording } from './recordings';

interface Row {
  id: string;
  file: string;
  type: string;
  bytes: string;
  width: number;
  height: number;
  codec: string;
  fineColours: boolean;
  sound: boolean;
  times: number[];
  changes: number[] | null;
  cuts: unknown;
  revision: number;
  step: number;
}

async function rowOf(shot: string): Promise<Row> {
  const [row] = await sql()<Row[]>`select id, file, type, bytes, width, height, codec,
    fine_colours, sound, times, changes, cuts, revision, step from clips where shot_id = ${shot}`;
  if (!row) throw notFound('clip');
  return row;
}

const secondsOf = ({ times }: Row): number[] => times.map((micros) => micros / 1e6);

/** @throws Fault 404 */
export async function getClip(shot: string): Promise<Clip> {
  const [row, shown, shaper, steps] = await Promise.all([
    rowOf(shot),
    getShot(shot),
    serverShaper(),
    stepsOf(shot),
  ]);
  const { title, titleOwn, provenance, binnedAt, document } = shown;
  const { type, width, height, codec, fineColours, sound, changes, cuts, revision, step } = row;
  return clipSchema.parse({
    ...{ id: shot, state: 'ready', title, titleOwn, provenance, binnedAt },
    ...{ document, marksRevision: shown.revision, leaves: wholeSize(document, shaper) },
    ...{ revision, step, steps, type, width, height, codec, fineColours, sound, changes, cuts },
    ...{ bytes: Number(row.bytes), times: secondsOf(row) },
  });
}

/** The clip, or the recording that will be one. @throws Fault 404 */
export async function clipOrRecording(shot: string): Promise<Clip | Recording> {
  try {
    return await getClip(shot);
  } catch (error) {
    if (!(error instanceof Fault && error.status === 404)) throw error;
    // One that has ended just now is a clip meanwhile.
    return getRecording(shot).catch(() => getClip(shot));
  }
}

export interface Film {
  path: string;
  type: string;
  /** Another film, another one. */
  etag: string;
  width: number;
  height: number;
  times: number[];
}

/** The film as it was recorded. @throws Fault 404 */
export async function filmOf(shot: string): Promise<Film> {
  const row = await rowOf(shot);
  const { id: etag, type, width, height } = row;
  return { path: filmPath(row.file), type, etag, width, height, times: secondsOf(row) };
}

/** The sum over the film of a clip; worked out where it is not known yet. @throws Fault 404 */
export async function filmSum(shot: string): Promise<string> {
  const [row] = await sql()<{ file: string; sha256: string | null }[]>`
    select file, sha256 from clips where shot_id = ${shot}`;
  if (!row) throw notFound('clip');
  if (row.sha256 !== null) return row.sha256;
  const { sha256 } = await digest(filmPath(row.file));
  await sql()`update clips set sha256 = ${sha256} where shot_id = ${shot} and file = ${row.file}`;
  return sha256;
}
