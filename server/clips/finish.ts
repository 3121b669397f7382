import { rm, truncate } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { provenanceSchema, type Provenance } from '@/core/contracts/provenance';
import { shownSchema } from '@/core/contracts/clip';
import { filmEnds } from '@/core/clip/cuts';
import { viewOf } from '@/core/take/shownPart';
import { untouched } from '@/core/document/view';
import { Fault } from '../base/fault';
import { sql } from '../db/sql';
import { addDue } from '../jobs/queue';
import { begin, jobsOf } from '../jobs/run';
import { digest, filmPath, partPath, putInPlace } from '../media/files';
import { asFilm, ffmpeg } from '../media/ffmpeg';
import { lookThrough, pictureOf } from '../media/pictures';
import { codecOf, probe, type Probed } from '../media/probe';
import { binShot, storeShot } from '../shots/store';
import { wantWords } from '../words/wanted';
import { filmOf } from './rows';
import { CLIP } from './recordings';

interface Row {
  id: string;
  shotId: string;
  title: string | null;
  provenance: unknown;
  /** What of it is shown; null for all of it. */
  shown: unknown;
  toBin: boolean;
  bytes: string;
}

const REMUX = 120_000;
/** The job that looks through a clip. */
const THROUGH = 'clipLook';

interface Wrapping {
  extension: string;
  type: string;
  args: string[];
}

const webm: Wrapping = { extension: 'webm', type: 'video/webm', args: ['-f', 'webm'] };
/** Without a list of edits, which would leave the last picture out: how long it lasts is not told. */
const MP4 = ['-use_editlist', '0', '-movflags', '+faststart', '-f', 'mp4'];
/** Which wrapping fits what is in it, so that it plays and is sought in everywhere. */
const wrappings: Partial<Record<string, Wrapping>> = {
  ...{ vp8: webm, vp9: webm, av1: webm },
  h264: { extension: 'mp4', type: 'video/mp4', args: MP4 },
};
const other: Wrapping = { extension: 'mkv', type: 'video/x-matroska', args: ['-f', 'matroska'] };

interface Film extends Probed {
  file: string;
  type: string;
  sha256: string;
  bytes: number;
  /** Its first picture, as PNG. */
  first: Uint8Array;
}

/**
 * What a recorder wrote as it went has neither a length nor places to go to: these are added. A
 * person waits for it: what can be done at once is.
 */
async function wrap(shot: string, signal: AbortSignal): Promise<Film> {
  const from = partPath(shot);
  const first = pictureOf({ path: from, times: [0] }, 0, signal);
  // What is wrong with the film is said first.
  first.catch(() => undefined);
  const codec = await codecOf(from, signal);
  const { extension, type, args } = wrappings[codec] ?? other;
  const made = filmPath(`${shot}.wrapped`);
  try {
    const to = ['-map', '0:v:0', '-c', 'copy', '-avoid_negative_ts', 'make_zero', ...args, '-y'];
    await ffmpeg([...asFilm(from), ...to, made], { most: REMUX, signal, eager: true });
    const [probed, digested] = await Promise.all([probe(made, signal), digest(made)]);
    const file = `${shot}.${extension}`;
    await putInPlace(made, filmPath(file));
    return { file, type, first: await first, ...digested, ...probed };
  } catch (error) {
    signal.throwIfAborted();
    // One without any picture cannot be wrapped, and is told from one that is damaged.
    await probe(from, signal);
    throw error;
  } finally {
    await rm(made, { force: true });
  }
}

/** Until when it was recorded, and of how many pictures. */
function grown(first: Provenance, { times }: Film): Provenance {
  const ended = Date.parse(first.takenAt) + Math.round(filmEnds(times) * 1000);
  return { ...first, until: new Date(ended).toISOString(), frames: times.length };
}

/** Nothing of it can be seen: its row goes with what there is. */
async function drop({ id, shotId }: Row): Promise<void> {
  await sql()`delete from recordings where id = ${id}`;
  await rm(partPath(shotId), { force: true });
}

/** What there is of a recording becomes a clip. @throws what stands in the way: it is tried again */
async function finish(id: string, signal: AbortSignal): Promise<void> {
  const [row] = await sql()<Row[]>`update recordings set state = 'ended' where id = ${id}
    returning id, shot_id, title, provenance, shown, to_bin, bytes`;
  if (!row) return;
  const { shotId: shot } = row;
  if (Number(row.bytes) === 0) return drop(row);
  // Beyond what counts a crash may have left a piece that came half.
  await truncate(partPath(shot), Number(row.bytes));
  const film = await wrap(shot, signal).catch((error: unknown) => {
    if (error instanceof Fault && error.code === 'empty-film') return null;
    throw error;
  });
  if (!film) return drop(row);
  await store(row, film);
  if (row.toBin) await binShot(shot);
  await drop(row);
  begin(THROUGH);
}

async function store(row: Row, film: Film): Promise<void> {
  const { file, type, sha256, bytes, width, height, codec, fineColours } = film;
  const micros = film.times.map((at) => Math.round(at * 1e6));
  await storeShot({
    ...{ id: row.shotId, picture: film.first, byItself: true },
    provenance: grown(provenanceSchema.parse(row.provenance), film),
    ...(row.title !== null && { title: row.title, titleMade: true }),
    ...(row.shown !== null && {
      document: { ...untouched(film), view: viewOf(shownSchema.parse(row.shown), film) },
    }),
    also: async (tx) => {
      const look = randomUUID();
      await tx`insert into clips
        (id, shot_id, file, type, bytes, sha256, width, height, codec, fine_colours, times)
        values (${look}, ${row.shotId}, ${file}, ${type}, ${bytes}, ${sha256}, ${width}, ${height},
          ${codec}, ${fineColours}, ${micros})`;
      await addDue(tx, look, THROUGH);
    },
  });
}

/** Where something changes on a clip, and its small pictures. */
async function through(id: string, signal: AbortSignal): Promise<void> {
  const [row] = await sql()<{ shotId: string }[]>`select shot_id from clips where id = ${id}`;
  if (!row) return;
  const film = await filmOf(row.shotId);
  const { changes } = await lookThrough(row.shotId, film.path, film, signal);
  await sql().begin(async (tx) => {
    await tx`update clips set changes = ${changes} where id = ${id}`;
    // Its later pictures can be read from now on.
    await wantWords(tx, row.shotId, 'taken');
  });
}

jobsOf(CLIP, finish, { alone: true });
jobsOf(THROUGH, through, { alone: true, mostTries: 3 });
