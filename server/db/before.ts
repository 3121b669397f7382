import type postgres from 'postgres';

/** Where tables lie as they were before a migration changed them. */
const SCHEMA = 'before_migration';

const NAME = '(?:if exists )?(?:only )?"?([a-z_]+)"?';
const CHANGES = [
  new RegExp(`\\balter table ${NAME}`, 'gi'),
  new RegExp(`\\bupdate ${NAME} set`, 'gi'),
  new RegExp(`\\bdelete from ${NAME}`, 'gi'),
  new RegExp(`\\bdrop table ${NAME}`, 'gi'),
  new RegExp(`\\btruncate (?:table )?${NAME}`, 'gi'),
];

/** The tables that a migration changes, by what stands in it; new ones, and indexes, change nothing. */
export function changedTables(migration: string): string[] {
  const code = migration.replace(/--.*$/gm, '').replace(/'(?:[^']|'')*'/g, "''");
  const made = new Set(
    [...code.matchAll(/\bcreate table (?:if not exists )?"?([a-z_]+)"?/gi)].map(([, name]) => name),
  );
  const named = CHANGES.flatMap((one) => [...code.matchAll(one)].map(([, name]) => name ?? ''));
  return [...new Set(named)].filter((name) => !made.has(name)).sort();
}

/**
 * Copies what a migration is about to change, in its own transaction. Of two that change one table,
 * the state before the first of them is kept.
 */
export async function copyBefore(
  tx: postgres.TransactionSql,
  migration: string,
): Promise<readonly string[]> {
  const copied: string[] = [];
  for (const table of changedTables(migration)) {
    const [there] = await tx`select 1 from information_schema.tables
      where table_schema = 'public' and table_name = ${table}`;
    const [any] = there ? await tx`select 1 from ${tx(table)} limit 1` : [];
    if (!any) continue;
    await tx`create schema if not exists ${tx(SCHEMA)}`;
    await tx`create table if not exists ${tx(SCHEMA)}.${tx(table)} as table public.${tx(table)}`;
    copied.push(table);
  }
  return copied;
}

/** Lets go of what was copied before, once a start went well with nothing left to change. */
export async function dropBefore(db: postgres.ISql): Promise<void> {
  await db`drop schema if exists ${db(SCHEMA)} cascade`;
}
