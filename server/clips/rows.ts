import type { z } from 'zod';
import {
  clipSchema,
  type Clip,
  type clipChangeSchema,
  type Recording,
} from '@/core/contracts/clip';
import { keptStretches } from '@/core/clip/cuts';
import { wholeSize } from '@/core/paint/whole';
import { serverShaper } from '../paint/shaper';
import { Fault, notFound } from '../base/fault';
import { json, sql } from '../db/sql';
import { filmPath } from '../media/files';
import { getShot } from '../shots/rows';
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
  times: number[];
  changes: number[] | null;
  cuts: unknown;
  revision: number;
}

async function rowOf(shot: string): Promise<Row> {
  const [row] = await sql()<Row[]>`select file, type, bytes, sha256, width, height, codec,
    fine_colours, times, changes, cuts, revision from clips where shot_id = ${shot}`;
  if (!row) throw notFound('clip');
  return row;
}

const secondsOf = ({ times }: Row): number[] => times.map((micros) => micros / 1e6);

/** @throws Fault 404 */
export async function getClip(shot: string): Promise<Clip> {
  const [row, shown, shaper] = await Promise.all([rowOf(shot), getShot(shot), serverShaper()]);
  const { title, titleOwn, provenance, binnedAt, document } = shown;
  const { type, width, height, codec, fineColours, changes, cuts, revision } = row;
  return clipSchema.parse({
    ...{ id: shot, state: 'ready', title, titleOwn, provenance, binnedAt },
    ...{ document, marksRevision: shown.revision, leaves: wholeSize(document, shaper) },
    ...{ revision, type, width, height, codec, fineColours, changes, cuts },
    ...{ bytes: Number(row.bytes), times: secondsOf(row) },
  });
}

/** The clip, or the recording that will be one. @throws Fault 404 */
export async function clipOrRecording(shot: string): Promise<Clip | Recording> {
  try {
    return await getClip(shot);
  } catch (error) {
    if (!(error instanceof Fault && error.status === 404)) throw error;
    return getRecording(shot).catch(() => {
      throw notFound('clip');
    });
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

const STALE = 'The clip was changed meanwhile, in another tab or by a program. Look at it again.';

/** @throws Fault 400 where nothing of it would stay, 404, 409 when it was changed since `revision` */
export async function changeCuts(
  shot: string,
  { revision, cuts }: z.output<typeof clipChangeSchema>,
): Promise<number> {
  const { times } = await rowOf(shot);
  if (keptStretches(cuts, times.length).length === 0)
    throw new Fault(400, 'does-not-fit', 'cuts.away: nothing of the clip would stay');
  const [done] = await sql()<{ revision: number }[]>`update clips
    set cuts = ${json(cuts)}, revision = revision + 1
    where shot_id = ${shot} and revision = ${revision} returning revision`;
  if (!done) throw new Fault(409, 'stale-cuts', STALE);
  return done.revision;
}
