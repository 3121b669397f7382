import { basename, extname } from 'node:path';
import { safeName } from '@/core/naming/safeName';
import { copySchema, type Copy } from '@/core/contracts/folder';
import { sql } from '../db/sql';
import { Fault } from '../base/fault';
import { getShot } from '../shots/rows';

interface CopyRow {
  id: string;
  path: string;
  bytes: string;
  sha256: string;
  format: string;
  folderName: string | null;
  named: string | null;
  title: string;
  keptAt: Date;
}

/** The file bears an earlier name of its shot, which it could still follow. */
function isBehind(path: string, named: string | null, title: string): boolean {
  if (named === null || safeName(named) === safeName(title)) return false;
  return basename(path, extname(path)).includes(safeName(named));
}

const toCopy = (row: CopyRow): Copy =>
  copySchema.parse({
    id: row.id,
    path: row.path,
    bytes: Number(row.bytes),
    sha256: row.sha256,
    format: row.format,
    folderName: row.folderName,
    behind: isBehind(row.path, row.named, row.title),
    keptAt: row.keptAt.toISOString(),
  });

/** @throws Fault 404 */
export async function getCopy(id: string): Promise<Copy> {
  const [row] = await sql()<CopyRow[]>`select c.*, f.name as folder_name, s.title
    from copies c join shots s on s.id = c.shot_id
    left join folders f on f.id = c.folder_id where c.id = ${id}`;
  if (!row) throw new Fault(404, 'not-found', 'There is no such copy.');
  return toCopy(row);
}

/**
 * The file of a copy is there. Said and read by one statement: who erases the shot right after it
 * takes the row, but not the answer. @returns null when the shot was erased before
 */
export async function confirmCopy(id: string): Promise<Copy | null> {
  const [row] = await sql()<CopyRow[]>`with c as (
      update copies set confirmed = true, kept_at = now() where id = ${id} returning *)
    select c.*, f.name as folder_name, s.title from c join shots s on s.id = c.shot_id
    left join folders f on f.id = c.folder_id`;
  return row ? toCopy(row) : null;
}

/** Every copy ever kept of a shot, newest first. @throws Fault 404 */
export async function listCopies(shotId: string): Promise<Copy[]> {
  await getShot(shotId);
  const rows = await sql()<CopyRow[]>`select c.*, f.name as folder_name, s.title
    from copies c join shots s on s.id = c.shot_id
    left join folders f on f.id = c.folder_id
    where c.shot_id = ${shotId} and c.confirmed order by c.kept_at desc, c.id`;
  return rows.map(toCopy);
}
