import { ZodError } from 'zod';
import {
  ABOUT,
  filmEntry,
  frameEntry,
  guideEntry,
  LISTS,
  mostBytes,
  originalEntry,
  shotEntry,
} from '@/core/archive/entries';
import { ARCHIVE_VERSION, issueWords, type About, type ShotRecord } from '@/core/archive/records';
import type { Report } from '@/core/contracts/archive';
import { DOCUMENT_VERSION } from '@/core/document/version';
import { sql } from '../db/sql';
import { frameBytes } from '../frames/rows';
import { guideIds, readGuide, readLists, readShot, readTagsOf, shotIds } from './readOut';
import { Reporting } from './reporting';
import { jsonBytes, type ZipOut } from './zipOut';

/** How far it is. */
export type Progress = (done: number, all: number) => void;

export interface Wanted {
  /** When it was begun: what is taken afterwards is not in it. */
  began: Date;
  /** Only these shots; null for everything. */
  only: { query: string; ids: readonly string[] } | null;
}

/** Below every id. */
const FIRST = '00000000-0000-0000-0000-000000000000';
/** How often a shot that is changed for good just then is read anew. */
const TRIES = 5;

/** Writes everything, or some shots, into an archive, one entry after the other. @throws AbortError */
export async function writeArchive(
  zip: ZipOut,
  { began, only }: Wanted,
  progress: Progress,
  signal: AbortSignal,
): Promise<Report> {
  const about: About = {
    archive: 'Rezzik',
    version: ARCHIVE_VERSION,
    document: DOCUMENT_VERSION,
    made: began.toISOString(),
    query: only?.query ?? null,
  };
  const reporting = new Reporting();
  const out: Out = { zip, reporting, frames: new Set(), whole: only === null };
  await zip.add(ABOUT, jsonBytes(about), false);
  const all = only?.ids.length ?? (await countShots(began));
  if (only) await zip.add(LISTS.tags, jsonBytes(await readTagsOf(only.ids, reporting)), false);
  else {
    for await (const [entry, list] of readLists(reporting)) {
      await zip.add(entry, jsonBytes(list), false);
    }
  }
  const guides = only ? 0 : await writeGuides(out, signal);
  let shots = 0;
  let passed = 0;
  for await (const id of only ? only.ids : allShots(began)) {
    signal.throwIfAborted();
    if (await unlessOdd(out, shotEntry(id), () => writeShot(out, id))) shots += 1;
    passed += 1;
    progress(passed, Math.max(all, passed));
  }
  await zip.end();
  return { ...reporting.whole(), shots, guides };
}

interface Out {
  zip: ZipOut;
  reporting: Reporting;
  /** Those that are in it. */
  frames: Set<string>;
  /** With where copies of shots were kept and sent. */
  whole: boolean;
}

/** What an archive cannot say is told, and keeps nothing else out of it. */
async function unlessOdd(
  { reporting }: Out,
  entry: string,
  write: () => Promise<boolean>,
): Promise<boolean> {
  try {
    return await write();
  } catch (error) {
    if (!(error instanceof ZodError)) throw error;
    reporting.damaged(entry, issueWords(error));
    return false;
  }
}

async function countShots(began: Date): Promise<number> {
  const [row] = await sql()<{ n: number }[]>`
    select count(*)::int as n from shots where created_at <= ${began}`;
  return row?.n ?? 0;
}

async function* allShots(began: Date): AsyncGenerator<string> {
  let after = FIRST;
  for (;;) {
    const ids = await shotIds(after, began);
    yield* ids;
    const last = ids.at(-1);
    if (last === undefined) return;
    after = last;
  }
}

async function writeGuides(out: Out, signal: AbortSignal): Promise<number> {
  let written = 0;
  for (const id of await guideIds()) {
    signal.throwIfAborted();
    const isIn = await unlessOdd(out, guideEntry(id), async () => {
      const guide = await readGuide(id);
      if (guide) await out.zip.add(guideEntry(id), jsonBytes(guide), false);
      return guide !== null;
    });
    if (isIn) written += 1;
  }
  return written;
}

/**
 * A shot with its frame, where that is not in it yet. What is read and the frame are of one moment:
 * where the rest of a shot is dropped for good just then, both are read anew.
 */
async function writeShot(out: Out, id: string): Promise<boolean> {
  const { zip, reporting, frames, whole } = out;
  for (let attempt = 1; attempt <= TRIES; attempt += 1) {
    const shot = await readShot(id, whole);
    if (!shot) return false;
    const { record, length, originalLength, film } = shot;
    const { frame } = record;
    if (!frames.has(frame.id)) {
      const bytes = await frameBytes(frame.id, length);
      const original = frame.original
        ? await frameBytes(frame.id, originalLength, 'original')
        : null;
      if (!bytes || (frame.original && !original)) continue;
      await zip.add(frameEntry(frame.id), bytes, true);
      if (original) await zip.add(originalEntry(frame.id), original, true);
      frames.add(frame.id);
    }
    const { clip } = record;
    const add = (path: string) =>
      clip && zip.addFile(filmEntry(id, clip.type), path, mostBytes.film);
    if (film && !(await add(film))) {
      // Its shot may be gone just then, and the film with it.
      if (attempt < TRIES) continue;
      const why = 'its film is not there or has 4 GB and more; only its first picture is in it';
      reporting.damaged(shotEntry(id), why);
      delete record.clip;
    }
    await zip.add(shotEntry(id), recordBytes(out, record), false);
    return true;
  }
  throw new Error('A shot was changed again and again meanwhile.');
}

/** Never more than is read again: a history of whole documents can be as large as one likes. */
function recordBytes({ reporting }: Out, record: ShotRecord): Buffer {
  const bytes = jsonBytes(record);
  if (bytes.length <= mostBytes.shot) return bytes;
  const why = 'its steps of undo are too large for an archive; it is in it without them';
  reporting.damaged(shotEntry(record.id), why);
  return jsonBytes({ ...record, steps: [], position: 0 });
}
