import { randomUUID } from 'node:crypto';
import pLimit from 'p-limit';
import type { z } from 'zod';
import { limits } from '@/core/values/limits';
import type { Order, SavedSearch, savedSearchInputSchema } from '@/core/contracts/search';
import { sql } from '../db/sql';
import { Fault, notFound } from '../base/fault';
import { countShots } from './find';

interface Row {
  id: string;
  name: string;
  query: string;
  order: Order;
}

/** Counts at a time: others need connections, too. */
const counting = pLimit(2);

const counted = async (row: Row): Promise<SavedSearch> => ({
  ...row,
  ...(await counting(() => countShots(row.query, false))),
});

const select = () => sql()`select id, name, query, order_by as "order" from searches`;

/** All saved searches in the order they were saved, with how many shots each finds now. */
export async function listSearches(): Promise<SavedSearch[]> {
  const rows = await sql()<Row[]>`${select()} order by position, id`;
  return Promise.all(rows.map(counted));
}

type Input = z.output<typeof savedSearchInputSchema>;

/** @throws Fault 404 */
async function getSearch(id: string): Promise<SavedSearch> {
  const [row] = await sql()<Row[]>`${select()} where id = ${id}`;
  if (!row) throw notFound('saved search');
  return counted(row);
}

/** @throws Fault 409 for too many */
export async function addSearch(input: Input, id: string = randomUUID()): Promise<SavedSearch> {
  const added = await sql()`insert into searches (id, name, query, order_by, position)
    select ${id}, ${input.name}, ${input.query}, ${input.order}, coalesce(max(position), 0) + 1
    from searches having count(*) < ${limits.savedSearches}`;
  if (added.count === 0) {
    throw new Fault(
      409,
      'too-many',
      `There can be ${limits.savedSearches} saved searches at most.`,
    );
  }
  return getSearch(id);
}

/** @throws Fault 404 */
export async function changeSearch(
  id: string,
  { name, query, order }: { [K in keyof Input]?: Input[K] | undefined },
): Promise<SavedSearch> {
  await sql()`update searches set name = coalesce(${name ?? null}, name),
    query = coalesce(${query ?? null}, query), order_by = coalesce(${order ?? null}, order_by)
    where id = ${id}`;
  return getSearch(id);
}

/** @throws Fault 404 */
export async function removeSearch(id: string): Promise<void> {
  const done = await sql()`delete from searches where id = ${id}`;
  if (done.count === 0) throw notFound('saved search');
}
