import { clipSchema, type Clip, type Recording } from '@/core/contracts/clip';
import { wholeSize } from '@/core/paint/whole';
import { serverShaper } from '../paint/shaper';
import { Fault, notFound } from '../base/fault';
import { sql } from '../db/sql';
import { filmPath } from '../media/files';
import { getShot } from '../shots/rows';
import { stepsOf } from './cuts';
import { getRecording } from './recordings';

interface Row {
  file: string;
  type: string;
  bytes: string;
  sha256: string;
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
  const [row] = await sql()<Row[]>`select file, type, bytes, sha256, width, height, codec,
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
  sha256: string;
  width: number;
  height: number;
  times: number[];
}

/** The film as it was recorded. @throws Fault 404 */
export async function filmOf(shot: string): Promise<Film> {
  const row = await rowOf(shot);
  const { type, sha256, width, height } = row;
  return { path: filmPath(row.file), type, sha256, width, height, times: secondsOf(row) };
}
