import type { ShotSummary } from '@/core/contracts/shot';
import { sql } from '../db/sql';
import { Fault } from '../base/fault';
import { UUID } from '../http/route';

export interface SummaryRow {
  id: string;
  title: string;
  revision: number;
  width: number;
  height: number;
  source: string;
  takenAt: Date;
  binnedAt: Date | null;
  copies: number;
  tags: string[];
  seconds: number | null;
  cover: number | null;
}

/** Columns of `s` in shots for what a list shows. */
export const summaryColumns = () => sql()`
  s.id, s.title, s.revision, s.provenance ->> 'source' as source, s.taken_at, s.binned_at,
  (s.document #>> '{view,crop,width}')::int as width,
  (s.document #>> '{view,crop,height}')::int as height,
  (select count(*)::int from copies c where c.shot_id = s.id and c.confirmed) as copies,
  array(select t.name from shot_tags st join tags t on t.id = st.tag_id
    where st.shot_id = s.id order by t.folded) as tags,
  (select coalesce(c.kept, c.times[array_upper(c.times, 1)] / 1e6) from clips c
    where c.shot_id = s.id) as seconds,
  (select c.cover from clips c where c.shot_id = s.id) as cover`;

export const toSummary = (row: SummaryRow): ShotSummary => ({
  id: row.id,
  title: row.title,
  revision: row.revision,
  width: row.width,
  height: row.height,
  source: row.source,
  takenAt: row.takenAt.toISOString(),
  binnedAt: row.binnedAt?.toISOString() ?? null,
  copies: row.copies,
  tags: row.tags,
  ...(row.seconds !== null && { seconds: Number(row.seconds) }),
  ...(row.cover !== null && { cover: row.cover }),
});

export const toCursor = (row: SummaryRow): string => `${row.takenAt.toISOString()}_${row.id}`;

/** @throws Fault 400 */
export function readCursor(cursor: string): { at: Date; id: string } {
  const [time = '', id = ''] = cursor.split('_');
  const at = new Date(time);
  if (Number.isNaN(at.getTime()) || !UUID.test(id)) {
    throw new Fault(
      400,
      'bad-cursor',
      'before and after must be the next value of an earlier page.',
    );
  }
  return { at, id };
}
