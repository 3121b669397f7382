import { deepEqual } from 'fast-equals';
import { guideEntry } from '@/core/archive/entries';
import { guideRecord } from '@/core/archive/records';
import { guideSchema } from '@/core/contracts/guide';
import { limits } from '@/core/values/limits';
import { json, sql } from '../db/sql';
import { time, withIds } from './asHere';
import { besideId, type Incoming } from './incoming';
import { Damaged } from './zipIn';

/** Brings in one guide, once its shots are here: it shows those that came in. */
export async function bringGuide(incoming: Incoming, id: string): Promise<void> {
  const { archive, reporting, ids } = incoming;
  const entry = guideEntry(id);
  try {
    const record = await archive.json(entry, guideRecord);
    if (record.id !== id) throw new Damaged('it tells of another guide than its name does');
    const guide = guideSchema.parse(withIds(record.guide, ids));
    const [here] = await sql()<{ title: string; guide: unknown }[]>`
      select title, guide from guides where id = ${id}`;
    const stored = guideSchema.safeParse(here?.guide).data;
    const isSame =
      here?.title === record.title && [guide, record.guide].some((one) => deepEqual(one, stored));
    if (isSame) return reporting.count('guides', 'here');
    const added = async (as: string): Promise<boolean> => {
      const done = await sql()`insert into guides (id, title, guide, made_at, changed_at)
        select ${as}, ${record.title}, ${json(guide)}, ${time(record.madeAt)}, ${time(record.changedAt)}
        where (select count(*) from guides) < ${limits.guides} on conflict (id) do nothing`;
      return done.count > 0;
    };
    if (!here) {
      if (!(await added(id))) throw new Damaged('there are as many guides as there can be');
      return reporting.count('guides', 'added');
    }
    if (!(await added(besideId([id, record.title, record.guide]))))
      return reporting.count('guides', 'here');
    reporting.count('guides', 'beside');
    reporting.tell(`The guide “${record.title}” is another one here; both are kept.`);
  } catch (error) {
    if (!(error instanceof Damaged)) throw error;
    reporting.damaged(entry, error.message);
  }
}
