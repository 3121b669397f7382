import { setTimeout as pause } from 'node:timers/promises';
import { settledPictures } from '@/core/clip/settled';
import { documentAt } from '@/core/document/atPicture';
import type { LaterWords } from '@/core/search/match';
import type { Paragraph } from '@/core/recognition/words';
import { sql } from '../db/sql';
import { filmPath } from '../media/files';
import { pictureOf } from '../media/pictures';
import { getShot, type Paintable } from '../shots/rows';
import { isBusy } from '../words/quiet';
import { packWords } from '../words/rows';

/** So many pictures of a clip are read: each takes some seconds of one core. */
const MOST = 20;
/** Looked so often whether a person is busy, ms. */
const LOOK = 500;

interface Row {
  file: string;
  times: number[];
  changes: number[] | null;
}

/** A person who takes or marks comes first. */
async function untilQuiet(signal: AbortSignal): Promise<void> {
  while (isBusy()) await pause(LOOK, undefined, { signal });
  signal.throwIfAborted();
}

/**
 * What stands on a clip's later pictures, each line where it is first seen, as it leaves.
 * @param read reads the words of what is painted
 * @param before lines that stand on its first picture
 */
export async function readLater(
  first: Paintable,
  read: (shot: Paintable) => Promise<Paragraph[]>,
  before: string,
  signal: AbortSignal,
): Promise<LaterWords[]> {
  const [row] = await sql()<Row[]>`
    select file, times, changes from clips where shot_id = ${first.id}`;
  // Not looked through yet: it is read again after that.
  if (!row?.changes) return [];
  const { document } = await getShot(first.id);
  const times = row.times.map((micros) => micros / 1e6);
  const known = new Set(before.split('\n'));
  const later: LaterWords[] = [];
  for (const picture of settledPictures(row.changes, times.length, MOST)) {
    await untilQuiet(signal);
    const frame = await pictureOf({ path: filmPath(row.file), times }, picture, signal);
    const shot = { ...first, frame, opaque: true, document: documentAt(document, picture, first) };
    const lines = packWords(await read(shot))
      .lines.split('\n')
      .filter((line) => line !== '' && !known.has(line));
    for (const line of lines) known.add(line);
    if (lines.length > 0) later.push({ at: times[picture] ?? 0, lines: lines.join('\n') });
  }
  return later;
}
