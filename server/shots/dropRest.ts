import { randomUUID } from 'node:crypto';
import { dropRest } from '@/core/shot/dropRest';
import { json, sql } from '../db/sql';
import { takeIn } from '../frames/intake';
import { Fault, notFound } from '../http/fault';
import { plainPng } from '../keep/formats/png';
import { flatten } from '../paint/flatten';
import { forgetPainted } from '../paint/picture';
import { serverShaper } from '../paint/shaper';
import { getPaintable, getShot } from './rows';

/** The other shots, binned ones too, that show the same frame. @throws Fault 404 */
export async function sharingShots(id: string): Promise<string[]> {
  await getShot(id);
  const rows = await sql()<{ id: string }[]>`
    select o.id from shots s join shots o on o.frame_id = s.frame_id and o.id <> s.id
    where s.id = ${id} order by o.taken_at`;
  return rows.map((row) => row.id);
}

/**
 * Drops for good what the shot does not show: what lies outside its view and under its Hide marks.
 * A new frame takes the old one's place; the old one, its thumbnail and the steps of undo are erased.
 * @param others true when the shots that share the frame shall do the same
 * @throws Fault 404, 409 when the shot was changed since `revision`
 */
export async function dropTheRest(id: string, revision: number, others: boolean): Promise<number> {
  const sharing = others ? await sharingShots(id) : [];
  const next = await dropOne(id, revision);
  for (const other of sharing) await dropOne(other, (await getShot(other)).revision);
  // Rows that are gone still lie in the tables' pages until these are cleared.
  await sql()`vacuum frames`;
  await sql()`vacuum steps`;
  await sql()`vacuum shots`;
  await sql()`vacuum thumbnails`;
  await sql()`vacuum links`;
  return next;
}

async function dropOne(id: string, revision: number): Promise<number> {
  const paintable = await getPaintable(id);
  const shaper = await serverShaper();
  const dropped = dropRest(paintable.document, { shaper });
  const pixels = await flatten({ ...paintable, document: dropped.frame }, shaper);
  const frame = await takeIn(await plainPng(pixels));
  const stored = await sql().begin(async (tx) => {
    const [before] = await tx<{ frame_id: string }[]>`
      select frame_id from shots where id = ${id} and revision = ${revision} for update`;
    if (!before) return null;
    const frameId = randomUUID();
    await tx`insert into frames (id, sha256, width, height, opaque, bytes) values
      (${frameId}, ${frame.sha256}, ${frame.width}, ${frame.height}, ${frame.opaque}, ${Buffer.from(frame.bytes)})`;
    const [row] = await tx<{ revision: number }[]>`
      update shots set frame_id = ${frameId}, document = ${json(dropped.document)},
        revision = revision + 1, step_position = 0, changed_at = now()
      where id = ${id} returning revision`;
    await tx`delete from steps where shot_id = ${id}`;
    await tx`delete from thumbnails where shot_id = ${id}`;
    // Links show the picture as it was when they were made.
    await tx`delete from links where shot_id = ${id}`;
    await tx`delete from frames f where f.id = ${before.frame_id}
      and not exists (select 1 from shots s where s.frame_id = f.id)`;
    return row ?? null;
  });
  if (!stored) {
    const current = await getShot(id).catch(() => null);
    if (!current) throw notFound('shot');
    throw new Fault(409, 'stale', 'This shot was changed elsewhere since it was read.', {
      current,
    });
  }
  forgetPainted(id);
  return stored.revision;
}
