import { copySchema, type Copy } from '@/core/contracts/folder';
import { sql } from '../db/sql';
import { Fault } from '../http/fault';
import { getShot } from '../shots/rows';

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
