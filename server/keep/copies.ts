import { randomUUID } from 'node:crypto';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { z } from 'zod';
import type { Copy, copyInputSchema, Folder } from '@/core/contracts/folder';
import type { FormatName } from '@/core/contracts/format';
import type { Shot } from '@/core/contracts/shot';
import { nameFactsOf } from '@/core/naming/nameFacts';
import { hasNumber, pathFrom } from '@/core/naming/pattern';
import { numbered } from '@/core/naming/safeName';
import { sql } from '../db/sql';
import { getFolder } from '../folders/folders';
import { allowedPath, keepFault } from '../folders/place';
import { sha256 } from '../frames/intake';
import { Fault } from '../http/fault';
import { getShot } from '../shots/rows';
import { getCopy } from './copyRows';
import { encodeShot, type Encoded, type EncodeWish } from './encode';
import { formats } from './formats';
import { dropPart, partIn, placePart, syncFolder, writePart, type Part } from './write';

/** Tries before giving up on finding a free name. */
const MOST_ATTEMPTS = 100_000;

const timeZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The subfolders and the name, without extension, that a pattern gives a shot. */
export function namesFor(
  pattern: string,
  shot: Shot,
  size: { width: number; height: number },
  number: number,
): string[] {
  return pathFrom(pattern, nameFactsOf(shot, size, number, timeZone()));
}

/**
 * Keeps a shot as a file. The shot itself is never touched, whatever happens here.
 * @throws Fault 404, or what stands in the way of the file, in plain words
 */
export async function keepCopy(
  shotId: string,
  input: z.output<typeof copyInputSchema>,
): Promise<Copy> {
  const [shot, folder] = await Promise.all([getShot(shotId), getFolder(input.folderId)]);
  await allowedPath(folder.path);
  const format = input.format ?? folder.format;
  const encoded = await encodeShot(shotId, wishFor(folder, input));
  const copy = { id: randomUUID(), shot, folder, format, encoded, part: partIn(folder.path) };
  await announce(copy);
  try {
    await writePart(copy.part, encoded.bytes);
    return await place(copy, input.name ?? folder.pattern);
  } catch (error) {
    await dropPart(copy.part);
    await sql()`delete from copies where id = ${copy.id} and not confirmed`;
    throw error instanceof Fault ? error : keepFault(error, folder.path);
  }
}

type CopyInput = z.output<typeof copyInputSchema>;

/** What a folder's rules and the wish of this once make together. */
function wishFor(folder: Folder, input: CopyInput): EncodeWish {
  const { folderId: _, name: __, format, options, ...wish } = input;
  const own = format === undefined || format === folder.format;
  const sized = ['width', 'height', 'longest', 'percent'].some((field) => field in wish);
  return {
    ...(sized ? {} : folder.size),
    maxBytes: folder.maxBytes ?? undefined,
    facts: folder.facts,
    quality: folder.quality,
    ...wish,
    format: format ?? folder.format,
    options: options ?? (own ? folder.options : {}),
  };
}

interface Pending {
  id: string;
  shot: Shot;
  folder: Folder;
  format: FormatName;
  encoded: Encoded;
  part: Part;
}

/** The row comes before the file, so that a start after a crash knows of whatever was left. */
async function announce({ id, shot, folder, format, encoded, part }: Pending): Promise<void> {
  const { bytes } = encoded;
  await sql()`insert into copies (id, shot_id, folder_id, path, part_path, format, bytes, sha256)
    values (${id}, ${shot.id}, ${folder.id}, '', ${part.path}, ${format}, ${bytes.length},
      ${sha256(bytes)})`;
}

async function place(copy: Pending, pattern: string): Promise<Copy> {
  const { id, shot, folder, format, encoded, part } = copy;
  const counts = hasNumber(pattern);
  for (let attempt = 1; attempt <= MOST_ATTEMPTS; attempt += 1) {
    const number = counts ? await nextNumber(folder, pattern) : 1;
    const parts = namesFor(pattern, shot, encoded, number);
    const name = numbered(parts.pop() ?? 'shot', counts ? 1 : attempt);
    const place = parts.length ? await subfolder(folder.path, parts) : folder.path;
    const path = join(place, `${name}.${formats[format].extension}`);
    await sql()`update copies set path = ${path} where id = ${id}`;
    if (await placePart(part, path)) {
      await syncFolder(place);
      await sql()`update copies set confirmed = true, kept_at = now() where id = ${id}`;
      return getCopy(id);
    }
  }
  throw new Fault(409, 'no-free-name', 'Every name that the pattern gives is taken.');
}

/** Makes the folders that a name asks for, inside the folder and through no link. */
async function subfolder(base: string, parts: readonly string[]): Promise<string> {
  const path = await allowedPath(join(base, ...parts));
  try {
    await mkdir(path, { recursive: true });
  } catch (error) {
    throw keepFault(error, path);
  }
  return allowedPath(path);
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
