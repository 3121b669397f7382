import { rm, truncate } from 'node:fs/promises';
import { provenanceSchema, type Provenance } from '@/core/contracts/provenance';
import { shownSchema, type Recording } from '@/core/contracts/clip';
import { filmEnds } from '@/core/clip/cuts';
import { viewOf } from '@/core/take/shownPart';
import { untouched } from '@/core/document/view';
import { Fault } from '../base/fault';
import { sql } from '../db/sql';
import { beginLater, jobsOf } from '../jobs/run';
import { digest, filmPath, partPath, putInPlace, syncPath } from '../media/files';
import type { Frame } from '../frames/intake';
import { asFilm, ffmpeg } from '../media/ffmpeg';
import { lookThrough } from '../media/pictures';
import { probe, type Probed } from '../media/probe';
import { binShot, storeShot } from '../shots/store';
import { wantWords } from '../words/wanted';
import { addClip, THROUGH, type NewFilm } from './added';
import { firstOf } from './firstPicture';
import { followOf } from './followed';
import { withPressed } from './pressed';
import { filmOf } from './rows';
import { CLIP, dropRecording } from './recordings';

interface Row {
  id: string;
  shotId: string;
  /** As it stood before: nobody has ended one that still went. */
  was: Recording['state'];
  title: string | null;
  provenance: unknown;
  /** What of it is shown; null for all of it. */
  shown: unknown;
  soundDelay: number;
  pressed: unknown;
  followed: unknown;
  toBin: boolean;
  bytes: string;
}

const REMUX = 120_000;
/** So long it takes at most until a clip that has ended plays, ms. */
const SEEN_BY_THEN = 1_000;

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

/** It says how many pictures there are, the last time when all are written. */
const COUNTING = ['-progress', 'pipe:1'];
const count = (told: Buffer): number =>
  Number([...told.toString('latin1').matchAll(/^frame=(\d+)/gm)].at(-1)?.[1]);

interface Sound {
  codec: string;
  /** It comes so much too late, ms. */
  delay: number;
}

interface Film extends NewFilm {
  /** Its first picture. */
  first: Frame;
}

/** The pictures as they were recorded, and the sound, where the wrapping takes it, in its time. */
function copied(path: string, sound: Sound | null, { extension }: Wrapping): string[] {
  const pictures = ['-map', '0:v:0', '-c:v', 'copy'];
  if (!sound) return [...asFilm(path), ...pictures];
  const { codec, delay } = sound;
  const isTaken = codec === 'opus' || (codec === 'aac' && extension !== 'webm');
  return [
    ...[...asFilm(path), '-itsoffset', String(-delay / 1000), ...asFilm(path)],
    ...[...pictures, '-map', '1:a:0', '-c:a', isTaken ? 'copy' : 'libopus'],
  ];
}

/** What is in a film: as was seen before it was wrapped, unless something was lost of it then. */
async function asCame(
  before: Promise<Probed | null> | null,
  counted: number,
  made: string,
  signal: AbortSignal,
): Promise<Probed> {
  const probed = await before;
  return probed?.times.length === counted ? probed : probe(made, signal, { eager: true });
}

/**
 * What a recorder wrote as it went has neither a length nor places to go to: these are added. A
 * person waits for it: what can be done at once is.
 */
async function wrap(
  { shotId: shot, soundDelay }: Pick<Row, 'shotId' | 'soundDelay'>,
  signal: AbortSignal,
): Promise<Film> {
  const from = partPath(shot);
  const first = firstOf(shot, signal);
  // What is wrong with the film is said first.
  const { pictures, sound } = await first.codecs;
  const wrapping = wrappings[pictures] ?? other;
  const { extension, type, args } = wrapping;
  const made = filmPath(`${shot}.wrapped`);
  try {
    const heard = sound === null ? null : { codec: sound, delay: soundDelay };
    const to = ['-avoid_negative_ts', 'make_zero', ...args, ...COUNTING, '-y', made];
    // Silent, its pictures come when they came: both at once.
    const before = heard ? null : probe(from, signal, { eager: true }).catch(() => null);
    const run = { most: REMUX, signal, eager: true };
    const counted = count(await ffmpeg([...copied(from, heard, wrapping), ...to], run));
    // Bringing it to the disk takes as long as looking at it.
    const looked = [asCame(before, counted, made, signal), digest(made), syncPath(made)] as const;
    const [probed, digested] = await Promise.all(looked);
    const file = `${shot}.${extension}`;
    await putInPlace(made, filmPath(file));
    return { file, type, sound: sound !== null, first: await first.frame, ...digested, ...probed };
  } catch (error) {
    signal.throwIfAborted();
    // One without any picture cannot be wrapped, and is told from one that is damaged.
    await probe(from, signal);
    throw error;
  } finally {
    await rm(made, { force: true });
  }
}

/** It was not recorded here, and nobody knows when. */
const isOfFile = ({ source }: Provenance): boolean =>
  source === 'opened' || source === 'dropped' || source === 'pasted';

/** Until when it was recorded, and of how many pictures. */
function grown(first: Provenance, { times }: Film): Provenance {
  if (isOfFile(first)) return { ...first, frames: times.length };
  const ended = Date.parse(first.takenAt) + Math.round(filmEnds(times) * 1000);
  return { ...first, until: new Date(ended).toISOString(), frames: times.length };
}

/** Whether it was tried before, and said why it is none. */
async function wasTold(id: string): Promise<boolean> {
  const [job] = await sql()`select 1 from jobs where id = ${id} and problem is not null`;
  return job !== undefined;
}

/** What there is of a recording becomes a clip. @throws what stands in the way: it is tried again */
async function finish(id: string, signal: AbortSignal): Promise<void> {
  const [row] = await sql()<Row[]>`update recordings r set state = 'ended'
    from (select id, state from recordings where id = ${id} for update) before
    where r.id = before.id returning r.id, before.state as was, shot_id, title, provenance, shown,
      sound_delay, pressed, followed, to_bin, bytes`;
  if (!row) return;
  const { shotId: shot } = row;
  const isFile = isOfFile(provenanceSchema.parse(row.provenance));
  const isHalf = row.was === 'going' && isFile;
  // Of a file that did not come whole nothing is wanted: it lies where it was.
  if (Number(row.bytes) === 0 || isHalf) return dropRecording(row);
  // Beyond what counts a crash may have left a piece that came half.
  await truncate(partPath(shot), Number(row.bytes));
  const film = await wrap(row, signal).catch(async (error: unknown) => {
    if (!(error instanceof Fault)) throw error;
    if (error.code === 'empty-film') return null;
    // That a file is none was told once; it is not tried for ever.
    if (isFile && error.status < 500 && (await wasTold(id))) return null;
    throw error;
  });
  if (!film) return dropRecording(row);
  await store(row, film);
  if (row.toBin) await binShot(shot);
  await dropRecording(row);
  // It takes all there is of the machine: first it shall be seen.
  beginLater(THROUGH, SEEN_BY_THEN);
}

async function store(row: Row, film: Film): Promise<void> {
  const whole = untouched(film);
  const shown = row.shown === null ? null : shownSchema.parse(row.shown);
  const follow = followOf(row, film);
  const view = shown && { ...viewOf(shown, film), ...(follow && { follow }) };
  const first = view ? { ...whole, view } : whole;
  const { document, step } = withPressed(first, row.pressed, film.times);
  const provenance = provenanceSchema.parse(row.provenance);
  await storeShot({
    ...{ id: row.shotId, picture: film.first, byItself: true },
    provenance: grown(provenance, film),
    // A file was named by a person.
    ...(row.title !== null && { title: row.title, titleMade: !isOfFile(provenance) }),
    document,
    also: async (tx) => {
      await addClip(tx, row.shotId, film);
      await step(tx, row.shotId);
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
