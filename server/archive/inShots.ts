import { lstat, readFile } from 'node:fs/promises';
import type postgres from 'postgres';
import { frameEntry, originalEntry, shotEntry } from '@/core/archive/entries';
import { issueWords, shotRecord, type ShotRecord } from '@/core/archive/records';
import { relationOf, type Relation } from '@/core/archive/relation';
import { documentFor, type ShotDocument } from '@/core/document/document';
import { stepSchema } from '@/core/document/steps';
import { limits } from '@/core/values/limits';
import { faultOf } from '../db/faultOf';
import { json, sql } from '../db/sql';
import { Fault } from '../base/fault';
import { checkHeld, sha256Of, takeIn, type Frame } from '../frames/intake';
import { keepFrame } from '../frames/rows';
import { pictureType } from '../frames/kind';
import { indexShot } from '../indexing/indexing';
import { getSteps } from '../shots/change';
import { getShots } from '../shots/rows';
import { wantWords } from '../words/wanted';
import { time } from './asHere';
import { bringMissingFilm, isCutOtherwise, withFilm } from './inFilms';
import { besideId, type Incoming, type Tx } from './incoming';
import { Damaged } from './zipIn';

type Copy = ShotRecord['copies'][number];

/** Said behind the name of what is put beside another one. */
const BESIDE = ' (brought in)';

/** Brings in one shot. What is wrong with it is told, and leaves the others alone. */
export async function bringShot(incoming: Incoming, id: string): Promise<void> {
  const entry = shotEntry(id);
  try {
    const record = await incoming.archive.json(entry, shotRecord);
    if (record.id !== id) throw new Damaged('it tells of another shot than its name does');
    await place(incoming, record);
  } catch (error) {
    const fault = error instanceof Fault ? error : faultOf(error);
    if (!(error instanceof Damaged) && !fault) throw error;
    incoming.reporting.damaged(entry, fault?.message ?? (error as Damaged).message);
  }
}

async function place(incoming: Incoming, record: ShotRecord): Promise<void> {
  const { reporting, ids } = incoming;
  const relation = await relationHere(incoming, record);
  if (relation === 'same' || relation === 'further') {
    await bringMissingFilm(incoming, record);
    return reporting.count('shots', 'here');
  }
  if (relation === 'absent') {
    await add(incoming, record, record.id);
    return reporting.count('shots', 'added');
  }
  // Kept, renamed or binned meanwhile it is still the same that came in before.
  const { clip } = record;
  const says = [record.id, record.frame.sha256, record.document];
  const id = besideId(clip ? [...says, clip.steps[clip.step - 1] ?? null] : says);
  ids.set(record.id, id);
  const [there] = await sql()`select 1 from shots where id = ${id}`;
  if (there) return reporting.count('shots', 'here');
  const title = record.title.slice(0, limits.titleLength - BESIDE.length) + BESIDE;
  await add(incoming, { ...record, title: title.trim(), copies: [], sent: [] }, id);
  reporting.count('shots', 'beside');
  reporting.tell(`“${record.title}” was changed here and in the archive; both are kept.`);
}

/** How it stands to the one here; where that is it but for the name, both names are told. */
async function relationHere(
  { reporting }: Incoming,
  record: ShotRecord,
): Promise<Relation | 'absent'> {
  const { id, title, document: written, frame } = record;
  const here = (await getShots([id])).get(id);
  if (here === undefined) return 'absent';
  // A newer Rezzik has marked the one that is here: what comes in may be older, or not.
  if (here === null) return 'other';
  const [row] = await sql()<{ sha256: string }[]>`select f.sha256 from shots s
    join frames f on f.id = s.frame_id where s.id = ${id}`;
  const document = documentFor(frame).safeParse(written).data;
  if (row?.sha256 !== frame.sha256 || !document || (await isCutOtherwise(record))) return 'other';
  const steps = await getSteps(id).catch(() => ({ steps: [], position: 0 }));
  const found = relationOf({ ...steps, document: here.document }, document);
  if (found !== 'other' && here.title !== title) {
    reporting.tell(`“${here.title}” is called “${title}” in the archive.`);
  }
  return found;
}

/** Checked as whatever comes from outside is. @throws Damaged, Fault */
function readDocument({ document, frame }: ShotRecord): ShotDocument {
  const read = documentFor(frame).safeParse(document);
  if (read.success) return read.data;
  throw new Damaged(`its marks: ${issueWords(read.error)}`);
}

async function add(incoming: Incoming, record: ShotRecord, id: string): Promise<void> {
  const document = readDocument(record);
  await checkHeld(document.pictures, undefined);
  const steps = soundSteps(incoming, record);
  const copies = await knownCopies(record);
  const frame = await frameOf(incoming, record);
  const store = (also: (tx: Tx) => Promise<void>) =>
    sql().begin(async (tx) => {
      // What a power cut takes back comes in again: the archive is there until its job is done.
      await tx`set local synchronous_commit = off`;
      const frameId = await frame(tx);
      const added = await tx`insert into shots (id, frame_id, title, title_own, document, revision,
        step_position, provenance, taken_at, changed_at, binned_at)
      values (${id}, ${frameId}, ${record.title}, ${record.titleOwn}, ${json(record.document)},
        ${record.revision}, ${steps.position}, ${json(record.provenance)}, ${time(record.takenAt)},
        ${time(record.changedAt)}, ${time(record.binnedAt)}) on conflict (id) do nothing`;
      if (added.count === 0) return;
      await tx`insert into steps (shot_id, position, step) select ${id}, place - 1, step
      from jsonb_array_elements(${json(steps.steps)}) with ordinality as added (step, place)`;
      await tx`insert into shot_tags (shot_id, tag_id)
      select ${id}, id from tags where id = any(${mapped(incoming, record.tags)}::uuid[])`;
      await addWords(tx, id, record);
      await addCopies(tx, incoming, id, { ...record, copies });
      await also(tx);
      await indexShot(tx, id);
    });
  await withFilm(incoming, record, id, store);
}

const mapped = ({ ids }: Incoming, all: readonly string[]): string[] =>
  all.map((one) => ids.get(one) ?? one);

/** Steps that lead through anything unsound would break undo in the middle: then there are none. */
function soundSteps(
  { reporting }: Incoming,
  { id, steps, position }: ShotRecord,
): Pick<ShotRecord, 'steps' | 'position'> {
  const sound =
    position <= steps.length && steps.every((step) => stepSchema.safeParse(step).success);
  if (sound) return { steps, position };
  reporting.damaged(shotEntry(id), 'its steps of undo cannot be read; it comes in without them');
  return { steps: [], position: 0 };
}

/** The frame that is here already, or the one of the archive, read and checked like every picture. */
async function frameOf(
  { archive }: Incoming,
  { frame }: ShotRecord,
): Promise<(tx: Tx) => Promise<string>> {
  const here = (tx: postgres.ISql) => tx<{ id: string }[]>`select id from frames
    where sha256 = ${frame.sha256} and (width, height) = (${frame.width}, ${frame.height})
      and (original is null or id = ${frame.id})
    order by id = ${frame.id} desc limit 1 for key share`;
  const isIt = (row: { id: string } | undefined): boolean =>
    row !== undefined && (!frame.original || row.id === frame.id);
  const [there] = await here(sql());
  const taken = isIt(there) ? null : await read();
  return async (tx) => {
    // Of two shots of one frame the second one finds what the first one stored.
    await tx`select pg_advisory_xact_lock(hashtextextended(${frame.id}, 0))`;
    const [same] = await here(tx);
    if (same && isIt(same)) return same.id;
    const [other] = await tx`select 1 from frames where id = ${frame.id}`;
    return keepFrame(tx, taken ?? (await read()), other ? undefined : frame.id);
  };

  async function read(): Promise<Frame> {
    const entry = frameEntry(frame.id);
    if (archive.sha256(entry) !== frame.sha256)
      throw new Damaged(`its picture ${entry} is another one`);
    const bytes = await archive.bytes(entry).catch((error: unknown) => {
      if (error instanceof Damaged) throw new Damaged(`its picture ${entry}: ${error.message}`);
      throw error;
    });
    const taken = await takeIn(bytes, limits.frameBytes);
    if (taken.width !== frame.width || taken.height !== frame.height) {
      throw new Damaged(`its picture ${entry} has another size`);
    }
    return { ...taken, original: await original() };
  }

  async function original(): Promise<Frame['original']> {
    if (!frame.original) return null;
    const bytes = await archive.bytes(originalEntry(frame.id));
    const type = pictureType(bytes);
    if (!type || `image/${type}` !== frame.original) {
      throw new Damaged(`the file it was opened from is no ${frame.original}`);
    }
    return { bytes, type };
  }
}

/** Words are read anew where they are not of this picture. */
async function addWords(tx: Tx, id: string, { words, revision }: ShotRecord): Promise<void> {
  if (words) {
    await tx`insert into words (shot_id, revision, lines, boxes)
      values (${id}, ${words.revision}, ${words.lines}, ${Buffer.from(words.boxes, 'base64')})`;
  }
  if (words?.revision !== revision) await wantWords(tx, id, 'taken');
}

/**
 * A copy whose file lies here goes on following the name of its shot. Of one that is not there, as
 * on another computer, it is known that it was kept; where something else lies by now, there is none.
 */
async function knownCopies({ copies }: ShotRecord): Promise<ShotRecord['copies']> {
  const known: ShotRecord['copies'] = [];
  for (const copy of copies) {
    const found = await lstat(copy.path).catch(() => null);
    if (!found) known.push({ ...copy, named: null });
    else if (found.isFile() && (await isThat(copy, found.size))) known.push(copy);
  }
  return known;
}

async function isThat({ path, bytes, sha256 }: Copy, size: number): Promise<boolean> {
  if (size !== bytes || size > limits.frameBytes) return false;
  return readFile(path)
    .then(sha256Of)
    .then(
      (found) => found === sha256,
      () => false,
    );
}

async function addCopies(
  tx: Tx,
  { ids }: Incoming,
  shot: string,
  { copies, sent }: ShotRecord,
): Promise<void> {
  for (const { id, folder, path, format, bytes, sha256, named, keptAt } of copies) {
    await tx`insert into copies (id, shot_id, folder_id, path, part_path, format, bytes, sha256,
        named, confirmed, kept_at)
      values (${id}, ${shot}, (select id from folders where id = ${folder && (ids.get(folder) ?? folder)}),
        ${path}, '', ${format}, ${bytes}, ${sha256}, ${named}, true, ${time(keptAt)})
      on conflict (id) do nothing`;
  }
  for (const { id, remote, name, mediaType, bytes, address, madeAt, sentAt } of sent) {
    const [to] = await tx`select 1 from remotes where id = ${ids.get(remote) ?? remote}`;
    const [known] = await tx`select 1 from jobs where id = ${id}`;
    if (!to || known) continue;
    await tx`insert into jobs (id, kind, state, due_at, made_at, done_at)
      values (${id}, 'send', 'done', ${time(madeAt)}, ${time(madeAt)},
        ${time(sentAt)})`;
    await tx`insert into sendings (id, shot_id, remote_id, name, media_type, size, address)
      values (${id}, ${shot}, ${ids.get(remote) ?? remote}, ${name}, ${mediaType}, ${bytes}, ${address})`;
  }
}
