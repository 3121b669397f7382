import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { rmdir, unlink } from 'node:fs/promises';
import type { z } from 'zod';
import type {
  GuideCopies,
  guideCopyInputSchema,
  GuideFile,
  GuideFormat,
} from '@/core/contracts/guide';
import { numbered } from '@/core/naming/safeName';
import { Fault } from '../base/fault';
import { sql } from '../db/sql';
import { usableFolder } from '../folders/folders';
import { below, holdFolder, type HeldFolder } from '../folders/held';
import { keepFault } from '../folders/place';
import type { GuideBytes } from '../guideFormats/contract';
import { dropPart, placePart, syncFolder, writePart, partIn } from '../keep/write';
import { readyGuide, withMoving, writeGuide } from './write';

/** Tries before giving up on finding a free name. */
const MOST_ATTEMPTS = 10_000;

/**
 * Keeps a guide in a folder, never over another file. @throws Fault 404, or what stands in the way
 * of a file, in plain words; what was kept before that stays
 */
export async function keepGuide(
  id: string,
  { folderId, formats }: z.output<typeof guideCopyInputSchema>,
  signal?: AbortSignal,
): Promise<GuideCopies> {
  const [folder, ready] = await Promise.all([usableFolder(folderId), readyGuide(id, signal)]);
  const { shows, left } = ready;
  const files: GuideFile[] = [];
  for (const format of new Set(formats)) {
    const material = await withMoving(ready, format, signal);
    const write = (name: string) => writeGuide(format, { ...material, name }, signal);
    const file = await keepIn(folder.path, format, material.name, write);
    // Whoever drops the rest of a shot for good is told what shows it still.
    await sql()`insert into guide_files (id, path, shows)
      values (${randomUUID()}, ${file.path}, ${shows})`;
    files.push(file);
  }
  return { files, left };
}

async function keepIn(
  folder: string,
  format: GuideFormat,
  wanted: string,
  write: (name: string) => Promise<GuideBytes[]>,
): Promise<GuideFile> {
  const held = await holdFolder(folder).catch((error: unknown) => {
    throw error instanceof Fault ? error : keepFault(error, folder);
  });
  try {
    // What lies beside a text is called by its name, so a text is written anew for another one.
    let written = await write(wanted);
    for (let attempt = 1; attempt <= MOST_ATTEMPTS; attempt += 1) {
      const name = numbered(wanted, attempt);
      const alone = written.length === 1;
      if (attempt > 1 && !alone) written = await write(name);
      const extension = (written[0]?.path[0] ?? '').split('.').at(-1) ?? '';
      const named = alone
        ? written.map(({ bytes }) => ({ path: [`${name}.${extension}`], bytes }))
        : written;
      const path = await placeAll(held, named);
      if (path) {
        const bytes = named.reduce((sum, file) => sum + file.bytes.length, 0);
        return { path: join(folder, path), format, bytes };
      }
    }
    throw new Fault(409, 'no-free-name', 'There is no free name in this folder.');
  } catch (error) {
    if (error instanceof Fault || (error instanceof Error && error.name === 'AbortError'))
      throw error;
    throw keepFault(error, folder);
  } finally {
    await held.close();
  }
}

/**
 * Puts files into a folder, the guide itself last, so that it never shows a picture that is not
 * there. @returns where the guide lies; null when a name is taken, and then nothing is left
 */
async function placeAll(held: HeldFolder, files: readonly GuideBytes[]): Promise<string | null> {
  const placed: GuideBytes[] = [];
  try {
    for (const file of [...files.slice(1), ...files.slice(0, 1)]) {
      if (!(await place(held, file))) {
        await takeBack(held, placed);
        return null;
      }
      placed.push(file);
    }
    return files[0]?.path.join('/') ?? null;
  } catch (error) {
    await takeBack(held, placed);
    throw error;
  }
}

const place = (held: HeldFolder, { path, bytes }: GuideBytes): Promise<boolean> =>
  below(held, path.slice(0, -1), async (within) => {
    const part = { path: within.at(partIn('').path) };
    try {
      await writePart(part, bytes);
      const done = await placePart(part, within.at(path.at(-1) ?? ''));
      await syncFolder(within.at('.'));
      return done;
    } finally {
      await dropPart(part);
    }
  });

async function takeBack(held: HeldFolder, placed: readonly GuideBytes[]): Promise<void> {
  for (const { path } of placed) {
    const [name = '', ...folders] = [...path].reverse();
    const last = below(held, folders.reverse(), (within) => unlink(within.at(name)));
    await last.catch(() => undefined);
  }
  // One in which something else lies stays.
  for (const folder of new Set(placed.flatMap(({ path }) => path.slice(0, -1))))
    await rmdir(held.at(folder)).catch(() => undefined);
}
