import { rm } from 'node:fs/promises';
import { deepEqual } from 'fast-equals';
import { filmEntry, filmName } from '@/core/archive/entries';
import type { ClipRecord, ShotRecord } from '@/core/archive/records';
import { keptStretches, UNCUT, type Cuts } from '@/core/clip/cuts';
import { Fault } from '../base/fault';
import { addClip, THROUGH, type NewFilm } from '../clips/added';
import { json, sql } from '../db/sql';
import { freeBytes } from '../folders/place';
import { begin } from '../jobs/run';
import { arriving, filmPath, makeMediaDir, mediaDir, putInPlace } from '../media/files';
import { headOf, probe } from '../media/probe';
import type { Incoming, Tx } from './incoming';
import { Damaged } from './zipIn';

/** What is left of the disk, bytes. */
const SPARE = 500_000_000;

const cutsOf = ({ steps, step }: ClipRecord): Cuts | undefined =>
  step === 0 ? UNCUT : steps[step - 1];

/**
 * The clip that is here was never cut as the one that comes in is: to take that for the same would
 * lose how it is cut there.
 */
export async function isCutOtherwise({ id, clip }: ShotRecord): Promise<boolean> {
  if (!clip || !(await hasFilm(id))) return false;
  const rows = await sql()<{ cuts: unknown }[]>`
    select cuts from clip_steps where shot_id = ${id}`;
  return ![UNCUT, ...rows.map(({ cuts }) => cuts)].some((cuts) => deepEqual(cuts, cutsOf(clip)));
}

async function hasFilm(id: string): Promise<boolean> {
  const [clip] = await sql()`select 1 from clips where shot_id = ${id}`;
  return clip !== undefined;
}

/** A shot that is here without its film, as an archive without films left it, has it again. */
export async function bringMissingFilm(incoming: Incoming, record: ShotRecord): Promise<void> {
  if (!record.clip || (await hasFilm(record.id))) return;
  await withFilm(incoming, record, record.id, async (also) => {
    await sql().begin(also);
  });
}

/**
 * Puts the film of a clip in its place, checked as whatever comes from outside is, and has its shot
 * stored. @param id of the shot as it will be here
 * @param store adds to its transaction what it is given
 * @throws Damaged, Fault
 */
export async function withFilm(
  incoming: Incoming,
  record: ShotRecord,
  id: string,
  store: (also: (tx: Tx) => Promise<void>) => Promise<void>,
): Promise<void> {
  const { clip } = record;
  if (!clip) return store(() => Promise.resolve());
  // Until there is a row that wants it, it would be swept away.
  arriving.add(id);
  try {
    const film = await filmOf(incoming, record, clip, id);
    const cuts = cutsOf(clip);
    if (!cuts || keptStretches(cuts, film.times.length).length === 0)
      throw new Damaged('nothing of its film would be left');
    await store((tx) => add(tx, id, film, clip));
  } finally {
    arriving.delete(id);
  }
  begin(THROUGH);
}

async function add(tx: Tx, id: string, film: NewFilm, clip: ClipRecord): Promise<void> {
  await addClip(tx, id, film, cutsOf(clip));
  await tx`insert into clip_steps (shot_id, position, cuts) select ${id}, place, cuts
    from jsonb_array_elements(${json(clip.steps)}) with ordinality as added (cuts, place)`;
  await tx`update clips set step = ${clip.step} where shot_id = ${id}`;
}

async function filmOf(
  { archive }: Incoming,
  record: ShotRecord,
  { type, bytes, sha256 }: ClipRecord,
  id: string,
): Promise<NewFilm> {
  const entry = filmEntry(record.id, type);
  if (archive.sha256(entry) !== sha256) throw new Damaged(`its film ${entry} is another one`);
  await makeMediaDir();
  const free = await freeBytes(mediaDir());
  if (free !== null && free < bytes + SPARE)
    throw new Fault(507, 'disk-full', 'There is not enough room on this disk for its film.');
  const file = filmName(id, type);
  const part = filmPath(`${id}.brought`);
  await rm(part, { force: true });
  try {
    await archive.toFile(entry, part);
    const [read, { sound }] = [await probe(part), await headOf(part)];
    const { width, height } = record.frame;
    if (read.width !== width || read.height !== height)
      throw new Damaged(`its film ${entry} has another size than its picture`);
    await putInPlace(part, filmPath(file));
    return { ...read, file, type, sha256, bytes, sound: sound !== null };
  } catch (error) {
    if (error instanceof Fault) throw new Damaged(`its film ${entry}: ${error.message}`);
    throw error;
  } finally {
    await rm(part, { force: true });
  }
}
