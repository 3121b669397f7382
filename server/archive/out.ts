import {
  ABOUT,
  frameEntry,
  guideEntry,
  LISTS,
  originalEntry,
  shotEntry,
} from '@/core/archive/entries';
import { ARCHIVE_VERSION, type About } from '@/core/archive/records';
import type { Report } from '@/core/contracts/archive';
import { DOCUMENT_VERSION } from '@/core/document/version';
import { sql } from '../db/sql';
import { frameBytes } from '../frames/rows';
import { guideIds, readGuide, readLists, readShot, readTags, shotIds } from './readOut';
import type { ZipOut } from './zipOut';

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
  await zip.addJson(ABOUT, about);
  const all = only?.ids.length ?? (await countShots(began));
  if (only) await zip.addJson(LISTS.tags, await readTags(only.ids));
  else await writeLists(zip);
  const guides = only ? 0 : await writeGuides(zip, signal);
  const frames = new Set<string>();
  let shots = 0;
  let passed = 0;
  for await (const id of only ? only.ids : allShots(began)) {
    signal.throwIfAborted();
    if (await writeShot(zip, id, frames, only === null)) shots += 1;
    passed += 1;
    progress(passed, Math.max(all, passed));
  }
  await zip.end();
  return { shots, guides, told: [], damaged: [], more: 0 };
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

async function writeLists(zip: ZipOut): Promise<void> {
  const lists = await readLists();
  for (const [name, entry] of Object.entries(LISTS)) {
    await zip.addJson(entry, lists[name as keyof typeof LISTS]);
  }
}

async function writeGuides(zip: ZipOut, signal: AbortSignal): Promise<number> {
  let written = 0;
  for (const id of await guideIds()) {
    signal.throwIfAborted();
    const guide = await readGuide(id);
    if (!guide) continue;
    await zip.addJson(guideEntry(id), guide);
    written += 1;
  }
  return written;
}

/**
 * A shot with its frame, where that is not in it yet. What is read and the frame are of one moment:
 * where the rest of a shot is dropped for good just then, both are read anew.
 */
async function writeShot(
  zip: ZipOut,
  id: string,
  frames: Set<string>,
  whole: boolean,
): Promise<boolean> {
  for (let attempt = 1; attempt <= TRIES; attempt += 1) {
    const shot = await readShot(id, whole);
    if (!shot) return false;
    const { record, length, originalLength } = shot;
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
    await zip.addJson(shotEntry(id), record);
    return true;
  }
  throw new Error('A shot was changed again and again meanwhile.');
}
