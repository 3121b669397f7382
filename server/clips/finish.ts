import { truncate } from 'node:fs/promises';
import { provenanceSchema, type Provenance } from '@/core/contracts/provenance';
import { clipLimits, shownSchema, type Recording } from '@/core/contracts/clip';
import { filmEnds } from '@/core/clip/cuts';
import { viewOf } from '@/core/take/shownPart';
import { untouched } from '@/core/document/view';
import { Fault } from '../base/fault';
import { sql } from '../db/sql';
import { beginLater, jobsOf } from '../jobs/run';
import { partPath } from '../media/files';
import { lookThrough } from '../media/pictures';
import { binShot, storeShot } from '../shots/store';
import { wantWords } from '../words/wanted';
import { addClip, THROUGH } from './added';
import { followOf } from './followed';
import { withPressed } from './pressed';
import { filmOf, filmSum } from './rows';
import { CLIP, dropRecording, goesOn } from './recordings';
import { wantUsual } from './usual';
import { wrap, type Film } from './wrap';

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

/** So long it takes at most until a clip that has ended plays, ms. */
const SEEN_BY_THEN = 1_000;

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
async function finish(id: string, signal: AbortSignal): Promise<number | void> {
  if (await goesOn(id)) return clipLimits.silence;
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
  const film = await wrap({ ...row, bytes: Number(row.bytes) }, signal).catch(
    async (error: unknown) => {
      if (!(error instanceof Fault)) throw error;
      if (error.code === 'empty-film') return null;
      // That a file is none was told once; it is not tried for ever.
      if (isFile && error.status < 500 && (await wasTold(id))) return null;
      throw error;
    },
  );
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
      await wantUsual(tx, row.shotId, film);
      await step(tx, row.shotId);
    },
  });
}

/** Where something changes on a clip, and its small pictures. */
async function through(id: string, signal: AbortSignal): Promise<void> {
  const [row] = await sql()<{ shotId: string }[]>`select shot_id from clips where id = ${id}`;
  if (!row) return;
  const film = await filmOf(row.shotId);
  const [{ changes }] = await Promise.all([
    lookThrough(row.shotId, film.path, film, signal),
    filmSum(row.shotId),
  ]);
  await sql().begin(async (tx) => {
    await tx`update clips set changes = ${changes} where id = ${id}`;
    // Its later pictures can be read from now on.
    await wantWords(tx, row.shotId, 'taken');
  });
}

jobsOf(CLIP, finish, { alone: true });
jobsOf(THROUGH, through, { alone: true, mostTries: 3 });
