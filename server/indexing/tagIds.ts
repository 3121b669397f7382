import type { Query } from '@/core/search/query';
import { sql } from '../db/sql';
import { folded } from './indexing';

/** The tags that each name in a query stands for. */
export type TagIds = ReadonlyMap<string, readonly string[]>;

/**
 * Looked up before the shots are: how often a tag is used decides what is quickest, and the planner
 * knows that of a tag, not of a name. The beginning of a name does where no tag has the whole of it.
 */
export async function tagIds(query: Query): Promise<TagIds> {
  const names = query.parts.flatMap(({ asks }) =>
    asks.kind === 'tag' && asks.name ? [asks.name] : [],
  );
  const found = new Map<string, string[]>();
  for (const name of new Set(names)) {
    const given = folded(name);
    const rows = await sql()<{ id: string; folded: string }[]>`
      select id, folded from tags where starts_with(folded, ${given})`;
    const whole = rows.filter((row) => row.folded === given);
    found.set(
      name,
      (whole.length ? whole : rows).map(({ id }) => id),
    );
  }
  return found;
}
