import type { Besides } from '@/core/contracts/shot';
import { dropRest } from '@/core/document/dropRest';
import { sql } from '../db/sql';
import { takeIn } from '../frames/intake';
import { Fault, notFound } from '../base/fault';
import { listCopies } from '../keep/copyRows';
import { plainPng } from '../formats/png';
import { paint } from '../pictures/painted';
import { serverShaper } from '../paint/shaper';
import { listLinks } from '../links/links';
import { listSendings } from '../remote/sendings';
import { getPaintable, getShot } from '../shots/rows';
import { clearPages, eraseElsewhere, replaceShown } from './replace';

/** The other shots, binned ones too, that show the same frame. @throws Fault 404 */
export async function sharingShots(id: string): Promise<string[]> {
  await getShot(id);
  const rows = await sql()<{ id: string }[]>`
    select o.id from shots s join shots o on o.frame_id = s.frame_id and o.id <> s.id
    where s.id = ${id} order by o.taken_at`;
  return rows.map((row) => row.id);
}

/** Archives that were written of it, or of all that was here after it was; and the one it came in with. */
const archivesWith = (id: string) =>
  sql()<{ path: string }[]>`select a.path from archives a join shots s on s.id = ${id}
    where case a.direction
      when 'out' then ${id} = any(a.shows) or (a.shows is null and a.began_at >= s.created_at)
      else s.created_at between a.began_at and coalesce(a.ended_at, now()) end
      and not exists (select 1 from jobs j where j.id = a.id and j.state = 'stopped') order by a.began_at`;

/** What else shows a shot, or will. @throws Fault 404 */
export async function besides(id: string): Promise<Besides> {
  const [sharing, copies, sendings, links, guides, archives] = await Promise.all([
    sharingShots(id),
    listCopies(id),
    listSendings(id),
    listLinks(id),
    sql()<{ path: string }[]>`select path from guide_files where ${id} = any(shows) order by path`,
    archivesWith(id),
  ]);
  const sent = sendings.filter(({ state }) => state === 'sent');
  return {
    sharing: sharing.length,
    copies: [...copies, ...guides, ...archives].map(({ path }) => path),
    sent: sent.map(({ remoteName, name }) => `${remoteName}: ${name}`),
    waiting: sendings.length - sent.length,
    links: links.filter(({ ended }) => !ended).length,
  };
}

const OF_CLIP =
  'This is the first picture of a clip, whose film shows all of it. Drop the rest of the clip instead.';

/**
 * Drops for good what the shot does not show: what lies outside its view and under its Hide marks.
 * A new frame takes the old one's place; the old one, its thumbnail and the steps of undo are erased.
 * @param others true when the shots that share the frame shall do the same
 * @throws Fault 404, 409 when the shot was changed since `revision`
 */
export async function dropTheRest(id: string, revision: number, others: boolean): Promise<number> {
  const sharing = others ? await sharingShots(id) : [];
  const films = await sql()`select 1 from clips where shot_id = any(${[id, ...sharing]})`;
  if (films.length > 0) throw new Fault(409, 'is-clip', OF_CLIP);
  const next = await dropOne(id, revision);
  for (const other of sharing) await dropOne(other, (await getShot(other)).revision);
  await clearPages();
  return next;
}

async function dropOne(id: string, revision: number): Promise<number> {
  const paintable = await getPaintable(id);
  const shaper = await serverShaper();
  const dropped = dropRest(paintable.document, { shaper });
  const pixels = await paint({ ...paintable, document: dropped.frame });
  const frame = await takeIn(await plainPng(pixels));
  const stored = await sql().begin((tx) =>
    replaceShown(tx, id, revision, { frame, document: dropped.document }),
  );
  if (!stored) {
    const current = await getShot(id).catch(() => null);
    if (!current) throw notFound('shot');
    throw new Fault(409, 'stale', 'This shot was changed elsewhere since it was read.', {
      current,
    });
  }
  await eraseElsewhere(id, stored);
  return stored.revision;
}
