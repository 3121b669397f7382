import { readFile, stat, unlink } from 'node:fs/promises';
import { basename, dirname } from 'node:path';
import { sql } from '../db/sql';
import { errorCode } from '../base/errorCode';
import { sha256 } from '../frames/intake';

interface Row {
  id: string;
  path: string;
  partPath: string;
  sha256: string;
}

export interface Mended {
  confirmed: number;
  removed: number;
  /** Of folders that cannot be reached now; the next start looks again. */
  left: number;
}

/**
 * Mends what a crash left between a file and its row: a file that is there whole gets its row
 * confirmed; a part that never got its name is removed, and its row with it.
 */
export async function mendCopies(): Promise<Mended> {
  const rows = await sql()<Row[]>`
    select id, path, part_path, sha256 from copies where not confirmed`;
  const done: Mended = { confirmed: 0, removed: 0, left: 0 };
  for (const row of rows) done[await mend(row)] += 1;
  return done;
}

async function mend(row: Row): Promise<keyof Mended> {
  if (!(await isFolder(dirname(row.partPath)))) return 'left';
  try {
    const bytes = row.path ? await bytesOf(row.path) : null;
    const whole = bytes !== null && sha256(bytes) === row.sha256;
    if (bytes?.toString('latin1') === basename(row.partPath)) await unlink(row.path);
    await unlink(row.partPath).catch(ifThere);
    if (whole) await sql()`update copies set confirmed = true where id = ${row.id}`;
    else await sql()`delete from copies where id = ${row.id}`;
    return whole ? 'confirmed' : 'removed';
  } catch (error) {
    console.error(`What a crash left in ${dirname(row.partPath)} could not be mended:`, error);
    return 'left';
  }
}

const isFolder = (path: string): Promise<boolean> =>
  stat(path).then(
    (found) => found.isDirectory(),
    () => false,
  );

function ifThere(error: unknown): null {
  if (['ENOENT', 'ENOTDIR'].includes(errorCode(error))) return null;
  throw error;
}

const bytesOf = (path: string): Promise<Buffer | null> => readFile(path).catch(ifThere);
