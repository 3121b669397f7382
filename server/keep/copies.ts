import { randomUUID } from 'node:crypto';
import { mkdir, readFile, unlink } from 'node:fs/promises';
import { join } from 'node:path';
import type { z } from 'zod';
import { copySchema, type Copy, type copyInputSchema, type Folder } from '@/core/contracts/folder';
import type { FormatName } from '@/core/contracts/format';
import type { Shot } from '@/core/contracts/shot';
import { hasNumber, pathFrom } from '@/core/naming/pattern';
import { numbered } from '@/core/naming/safeName';
import { sql } from '../db/sql';
import { getFolder } from '../folders/folders';
import { allowedPath, keepFault } from '../folders/place';
import { sha256 } from '../frames/intake';
import { Fault } from '../http/fault';
import { getShot } from '../shots/rows';
import { encodeShot, type Encoded, type EncodeWish } from './encode';
import { formats } from './formats';
import { dropPart, placePart, syncFolder, writePart, type Part } from './write';

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
  return pathFrom(pattern, {
    title: shot.title,
    window: shot.provenance.windowTitle ?? '',
    takenAt: shot.provenance.takenAt,
    timeZone: timeZone(),
    width: size.width,
    height: size.height,
    number,
  });
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
  const part = await writePart(folder.path, encoded.bytes).catch((error: unknown) => {
    throw keepFault(error, folder.path);
  });
  try {
    const copy = { id: randomUUID(), shot, folder, format, encoded, part };
    return await place(copy, input.name ?? folder.pattern);
  } catch (error) {
    await dropPart(part);
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

async function place(copy: Pending, pattern: string): Promise<Copy> {
  const { id, shot, folder, format, encoded, part } = copy;
  const { bytes } = encoded;
  const counts = hasNumber(pattern);
  const hash = sha256(bytes);
  await sql()`insert into copies (id, shot_id, folder_id, path, part_path, format, bytes, sha256)
    values (${id}, ${shot.id}, ${folder.id}, '', ${part.path}, ${format}, ${bytes.length}, ${hash})`;
  try {
    for (let attempt = 1; attempt <= MOST_ATTEMPTS; attempt += 1) {
      const number = counts ? await nextNumber(folder.id) : 1;
      const parts = namesFor(pattern, shot, encoded, number);
      const name = numbered(parts.pop() ?? 'shot', counts ? 1 : attempt);
      const place = parts.length ? await subfolder(folder.path, parts) : folder.path;
      const path = join(place, `${name}.${formats[format].extension}`);
      await sql()`update copies set path = ${path} where id = ${id}`;
      if (await placePart(part, path)) {
        await syncFolder(place);
        await sql()`update copies set confirmed = true, kept_at = now() where id = ${id}`;
        return await getCopy(id);
      }
    }
    throw new Fault(409, 'no-free-name', 'Every name that the pattern gives is taken.');
  } catch (error) {
    await sql()`delete from copies where id = ${id} and not confirmed`;
    throw error;
  }
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

/** Counts a folder's number on; two at once never get the same. */
async function nextNumber(folderId: string): Promise<number> {
  const [row] = await sql()<{ number: number }[]>`update folders
    set next_number = next_number + 1 where id = ${folderId} returning next_number - 1 as number`;
  return row?.number ?? 1;
}

interface CopyRow {
  id: string;
  path: string;
  bytes: string;
  sha256: string;
  format: string;
  folder_name: string | null;
  kept_at: Date;
}

const toCopy = (row: CopyRow): Copy =>
  copySchema.parse({
    id: row.id,
    path: row.path,
    bytes: Number(row.bytes),
    sha256: row.sha256,
    format: row.format,
    folderName: row.folder_name,
    keptAt: row.kept_at.toISOString(),
  });

/** @throws Fault 404 */
export async function getCopy(id: string): Promise<Copy> {
  const [row] = await sql()<CopyRow[]>`select c.*, f.name as folder_name
    from copies c left join folders f on f.id = c.folder_id where c.id = ${id}`;
  if (!row) throw new Fault(404, 'not-found', 'There is no such copy.');
  return toCopy(row);
}

/** Every copy ever kept of a shot, newest first. @throws Fault 404 */
export async function listCopies(shotId: string): Promise<Copy[]> {
  await getShot(shotId);
  const rows = await sql()<CopyRow[]>`select c.*, f.name as folder_name
    from copies c left join folders f on f.id = c.folder_id
    where c.shot_id = ${shotId} and c.confirmed order by c.kept_at desc, c.id`;
  return rows.map(toCopy);
}

/**
 * Mends what a crash left between a file and its row: a file that is there whole gets its row
 * confirmed, a part that never got its name is removed with its row.
 */
export async function mendCopies(): Promise<{ confirmed: number; removed: number }> {
  const rows = await sql()<{ id: string; path: string; part_path: string; sha256: string }[]>`
    select id, path, part_path, sha256 from copies where not confirmed`;
  const done = { confirmed: 0, removed: 0 };
  for (const row of rows) {
    const bytes = row.path ? await readFile(row.path).catch(() => null) : null;
    await unlink(row.part_path).catch(() => undefined);
    if (bytes && sha256(bytes) === row.sha256) {
      await sql()`update copies set confirmed = true where id = ${row.id}`;
      done.confirmed += 1;
    } else {
      await sql()`delete from copies where id = ${row.id}`;
      done.removed += 1;
    }
  }
  return done;
}
