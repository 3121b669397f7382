import { basename, dirname, extname, join } from 'node:path';
import type { Renamed } from '@/core/contracts/folder';
import { numbered, safeName } from '@/core/naming/safeName';
import { sql } from '../db/sql';
import { errorCode } from '../base/errorCode';
import { inFolder } from '../folders/held';
import { placePart, syncFolder } from './write';

const MOST_NAMES = 1_000;

/**
 * Gives the files of a shot's copies its title, wherever the name they were called by stands in
 * theirs, however many names ago that was. A name that is taken gets the next number; nothing is
 * overwritten, and a file that cannot follow is said.
 */
export async function renameCopies(shotId: string, to: string): Promise<Renamed> {
  const rows = await sql()<{ id: string; path: string; named: string | null }[]>`
    select id, path, named from copies where shot_id = ${shotId} and confirmed order by kept_at`;
  const done: Renamed = { renamed: 0, left: [] };
  for (const { id, path, named } of rows) {
    const [before, after] = [safeName(named ?? to), safeName(to)];
    const extension = extname(path);
    const stem = basename(path, extension);
    if (!stem.includes(before) || before === after) continue;
    try {
      const next = await move(path, stem.replace(before, after), extension);
      await sql()`update copies set path = ${next}, named = ${to} where id = ${id}`;
      done.renamed += 1;
    } catch (error) {
      done.left.push({ path, problem: problemOf(error) });
    }
  }
  return done;
}

function problemOf(error: unknown): string {
  if (errorCode(error) === 'ENOENT') return 'it is not there any more';
  return error instanceof Error ? error.message : String(error);
}

/** Never over another file, with hard links or without. */
const move = (path: string, stem: string, extension: string): Promise<string> =>
  inFolder(dirname(path), async (folder) => {
    for (let attempt = 1; attempt <= MOST_NAMES; attempt += 1) {
      const name = `${numbered(stem, attempt)}${extension}`;
      if (name === basename(path)) return path;
      if (!(await placePart({ path: folder.at(basename(path)) }, folder.at(name)))) continue;
      await syncFolder(folder.at('.'));
      return join(dirname(path), name);
    }
    throw new Error('every name is taken');
  });
