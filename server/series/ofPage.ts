import { pageSources, type PageDue, type PageSource } from '@/core/contracts/series';
import { sql } from '../db/sql';
import { settleTake } from './log';

/** How long a page may take to bring what it claimed, s. */
const CLAIM = 20;
/** What no page claimed by then had none that could take it, ms. */
const UNCLAIMED = 10_000;

/** What a page takes now that has some of the sources; no other page gets the same. */
export async function claimForPage(sources: readonly PageSource[]): Promise<PageDue> {
  const named = [...sources];
  const [due] = await sql()<NonNullable<PageDue['due']>[]>`
    update series_times t set claimed_until = now() + ${CLAIM} * interval '1 second'
    from series s where s.id = t.series_id and t.id = (
      select d.id from series_times d join series o on o.id = d.series_id
      where d.outcome = 'due' and o.what->>'source' = any(${named})
        and (d.claimed_until is null or d.claimed_until < now())
      order by d.at limit 1 for update of d skip locked)
    returning t.id, s.what->>'source' as source, s.what->'region' as region`;
  const [goesOn] = await sql()`
    select 1 from series where state = 'running' and what->>'source' = any(${named}) limit 1`;
  return { due: due ?? null, waits: goesOn !== undefined || due !== undefined };
}

/** Tells of times that no page took. @param now the clock, ms since 1970 */
export async function missUnclaimed(now: number, why: string): Promise<void> {
  const rows = await sql()<{ id: string }[]>`
    select t.id from series_times t join series s on s.id = t.series_id
    where t.outcome = 'due' and s.what->>'source' = any(${[...pageSources]})
      and t.at < ${new Date(now - UNCLAIMED)}
      and (t.claimed_until is null or t.claimed_until < now())`;
  for (const { id } of rows) await settleTake(id, 'missed', { why });
}
