import { link, rename, unlink } from 'node:fs/promises';
import { basename, dirname, extname, join } from 'node:path';
import { numbered, safeName } from '@/core/naming/safeName';
import { sql } from '../db/sql';
import { errorCode } from '../errorCode';
import { allowedPath } from '../folders/place';
import { syncFolder } from './write';

const MOST_NAMES = 1_000;

/** What became of the files of a shot that got another name. */
export interface Renamed {
  renamed: number;
  /** Files that stay as they are called, with the reason. */
  left: { path: string; problem: string }[];
}

/**
 * Gives the files of a shot's copies its new title, where the old one stands in their names. A
 * name that is taken gets the next number; nothing is overwritten, and a file that is not there any
 * more is said.
 */
export async function renameCopies(shotId: string, from: string, to: string): Promise<Renamed> {
  const rows = await sql()<{ id: string; path: string }[]>`
    select id, path from copies where shot_id = ${shotId} and confirmed order by kept_at`;
  const done: Renamed = { renamed: 0, left: [] };
  const [before, after] = [safeName(from), safeName(to)];
  for (const { id, path } of rows) {
    const extension = extname(path);
    const stem = basename(path, extension);
    if (!stem.includes(before) || before === after) continue;
    try {
      await allowedPath(dirname(path));
      const next = await move(path, stem.replace(before, after), extension);
      await sql()`update copies set path = ${next} where id = ${id}`;
      done.renamed += 1;
    } catch (error) {
      const problem =
        errorCode(error) === 'ENOENT'
          ? 'it is not there any more'
          : error instanceof Error
            ? error.message
            : String(error);
      done.left.push({ path, problem });
    }
  }
  return done;
}

async function move(path: string, stem: string, extension: string): Promise<string> {
  const folder = dirname(path);
  for (let attempt = 1; attempt <= MOST_NAMES; attempt += 1) {
    const next = join(folder, `${numbered(stem, attempt)}${extension}`);
    if (next === path) return path;
    try {
      await link(path, next);
      await unlink(path);
      await syncFolder(folder);
      return next;
    } catch (error) {
      if (errorCode(error) === 'EEXIST') continue;
      if (!['EPERM', 'ENOTSUP', 'EOPNOTSUPP', 'ENOSYS'].includes(errorCode(error))) throw error;
    }
    // No hard links there: a name that is free now is taken at once.
    await rename(path, next);
    return next;
  }
  throw new Error('every name is taken');
}
