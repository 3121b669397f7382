import { randomUUID } from 'node:crypto';
import { unlink } from 'node:fs/promises';
import { join } from 'node:path';
import type { Copy, Folder } from '@/core/contracts/folder';
import type { Shot } from '@/core/contracts/shot';
import type { Size } from '@/core/geometry/size';
import { nameFactsOf } from '@/core/keep/nameFacts';
import { hasNumber, pathFrom } from '@/core/naming/pattern';
import { numbered } from '@/core/naming/safeName';
import { Fault, notFound } from '../base/fault';
import { timeZone } from '../base/timeZone';
import { faultOf } from '../db/faultOf';
import { sql } from '../db/sql';
import { below, holdFolder, type HeldFolder } from '../folders/held';
import { keepFault } from '../folders/place';
import { confirmCopy } from './copyRows';
import { dropPart, partIn, placePart, syncFolder, type Part } from './write';

/** Tries before giving up on finding a free name. */
const MOST_ATTEMPTS = 100_000;

/** The subfolders and the name, without extension, that a pattern gives a shot. */
export function namesFor(pattern: string, shot: Shot, size: Size, number: number): string[] {
  return pathFrom(pattern, nameFactsOf(shot, size, number, timeZone()));
}

/** A file that is kept of a shot. */
export interface FileToKeep {
  shot: Shot;
  folder: Folder;
  format: Copy['format'];
  extension: string;
  /** Of its picture, for its name. */
  size: Size;
  bytes: number;
  sha256: string;
  pattern: string;
  /** Writes it, and makes sure that it is on the disk. */
  write: (part: Part) => Promise<void>;
}

/**
 * Puts a file into a folder, never over another. @throws Fault 404, or what stands in the way of the
 * file, in plain words
 */
export async function keepFile(file: FileToKeep): Promise<Copy> {
  const { folder } = file;
  const held = await holdFolder(folder.path).catch((error: unknown) => {
    throw error instanceof Fault ? error : keepFault(error, folder.path);
  });
  const { path: name } = partIn('');
  const part = { path: held.at(name) };
  const copy = { ...file, id: randomUUID(), part, held };
  try {
    await announce(copy, join(folder.path, name));
    await file.write(part);
    return await place(copy);
  } catch (error) {
    await dropPart(part);
    await sql()`delete from copies where id = ${copy.id} and not confirmed`;
    if (error instanceof Fault) throw error;
    throw faultOf(error) ?? keepFault(error, folder.path);
  } finally {
    await held.close();
  }
}

interface Pending extends FileToKeep {
  id: string;
  /** Written through the held folder. */
  part: Part;
  held: HeldFolder;
}

/** The row comes before the file, so that a start after a crash knows of whatever was left. */
async function announce(
  { id, shot, folder, format, bytes, sha256 }: Pending,
  part: string,
): Promise<void> {
  await sql()`insert into copies
    (id, shot_id, folder_id, path, part_path, format, bytes, sha256, named)
    values (${id}, ${shot.id}, ${folder.id}, '', ${part}, ${format}, ${bytes},
      ${sha256}, ${shot.title})`;
}

async function place(copy: Pending): Promise<Copy> {
  const { id, shot, folder, extension, size, part, held, pattern } = copy;
  const counts = hasNumber(pattern);
  for (let attempt = 1; attempt <= MOST_ATTEMPTS; attempt += 1) {
    const number = counts ? await nextNumber(folder, pattern) : 1;
    const parts = namesFor(pattern, shot, size, number);
    const name = numbered(parts.pop() ?? 'shot', counts ? 1 : attempt);
    const file = `${name}.${extension}`;
    checkLength(join(folder.path, ...parts, file), folder.path);
    const kept = await below(held, parts, async (within) => {
      const path = join(within.path, file);
      const announced = await sql()`update copies set path = ${path} where id = ${id}`;
      if (announced.count === 0) throw notFound('shot');
      if (!(await placePart(part, within.at(file)))) return null;
      try {
        await syncFolder(within.at('.'));
        const confirmed = await confirmCopy(id);
        if (!confirmed) throw notFound('shot');
        return confirmed;
      } catch (error) {
        // Never a file that nobody knows of.
        await unlink(within.at(file));
        throw error;
      }
    });
    if (kept) return kept;
  }
  throw new Fault(409, 'no-free-name', 'Every name that the pattern gives is taken.');
}

/** Longest path that programs can open, in bytes (PATH_MAX of Linux, with its end). */
const MOST_PATH = 4_095;

/** Step by step a path may become longer than anybody can open as a whole. @throws Fault 400 */
function checkLength(path: string, folder: string): void {
  if (Buffer.byteLength(path) > MOST_PATH)
    throw keepFault(Object.assign(new Error('ENAMETOOLONG'), { code: 'ENAMETOOLONG' }), folder);
}

/** Counts on in the folder or for the pattern; two at once never get the same. */
async function nextNumber({ id, numberBy }: Folder, pattern: string): Promise<number> {
  const [row] = await (numberBy === 'folder'
    ? sql()<{ number: number }[]>`update folders set next_number = next_number + 1
        where id = ${id} returning next_number - 1 as number`
    : sql()<{ number: number }[]>`insert into pattern_numbers (pattern, next_number)
        values (${pattern}, 2) on conflict (pattern)
        do update set next_number = pattern_numbers.next_number + 1
        returning next_number - 1 as number`);
  return row?.number ?? 1;
}
