import type postgres from 'postgres';
import type { ShotDocument } from '@/core/document/document';
import { dropBefore } from '../db/before';
import { json, sql } from '../db/sql';
import { forgetCopiedFile } from '../display/clipboard';
import type { Frame } from '../frames/intake';
import { insertFrame } from '../frames/rows';
import { indexShot } from '../indexing/indexing';
import { breakOff } from '../jobs/run';
import { dropMessagesOf } from '../mail/drop';
import { forgetPainted } from '../pictures/painted';
import { eraseWaiting } from '../remote/sendings';
import { wantWords } from '../words/wanted';

export interface Replaced {
  revision: number;
  /** Copies that waited to be sent, and are not. */
  sending: readonly string[];
}

/**
 * Puts another frame and document in the place of a shot's, and erases what showed the old ones: its
 * steps of undo, words, thumbnail and links. @returns null when it was changed since `revision`
 */
export async function replaceShown(
  tx: postgres.TransactionSql,
  id: string,
  revision: number,
  { frame, document }: { frame: Frame; document: ShotDocument },
): Promise<Replaced | null> {
  // Whoever makes another shot of this frame meanwhile waits, or is waited for.
  const [before] = await tx<{ frameId: string }[]>`
    select s.frame_id from shots s join frames f on f.id = s.frame_id
    where s.id = ${id} and s.revision = ${revision} for update`;
  if (!before) return null;
  const frameId = await insertFrame(tx, { ...frame, original: null });
  const [row] = await tx<{ revision: number }[]>`
    update shots set frame_id = ${frameId}, document = ${json(document)},
      revision = revision + 1, step_position = 0, changed_at = now()
    where id = ${id} returning revision`;
  await tx`delete from steps where shot_id = ${id}`;
  await wantWords(tx, id, 'hidden');
  await indexShot(tx, id);
  await tx`delete from thumbnails where shot_id = ${id}`;
  // Links show the picture as it was when they were made.
  await tx`delete from links where shot_id = ${id} or ${id} = any(shows)`;
  await tx`delete from frames f where f.id = ${before.frameId}
    and not exists (select 1 from shots s where s.frame_id = f.id)`;
  return row ? { ...row, sending: await eraseWaiting(tx, id) } : null;
}

/** What lies elsewhere of a shot that was replaced goes, too. */
export async function eraseElsewhere(id: string, { sending }: Replaced): Promise<void> {
  forgetPainted(id);
  await forgetCopiedFile();
  sending.forEach(breakOff);
  await dropMessagesOf(id);
}

/** Rows that are gone still lie in the tables' pages until these are cleared. */
export async function clearPages(): Promise<void> {
  // It may lie in what was kept before a migration.
  await dropBefore(sql());
  await sql()`vacuum frames`;
  await sql()`vacuum steps`;
  await sql()`vacuum shots`;
  await sql()`vacuum thumbnails`;
  await sql()`vacuum links`;
  await sql()`vacuum sendings`;
  await sql()`vacuum words`;
  await sql()`vacuum search`;
  await sql()`vacuum known_words`;
}
