import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { copyBefore } from './before';
import { sql } from './sql';

/** Any number: it only has to be the same for every Rezzik on this database. */
const LOCK = 4310;

/**
 * Applies the files in migrations/ that this database has not had yet, all in one transaction. What
 * they change is copied before, and kept until the next start went well (`dropBefore`).
 */
export async function migrate(folder = join(process.cwd(), 'migrations')): Promise<string[]> {
  const names = (await readdir(folder)).filter((name) => name.endsWith('.sql')).sort();
  return sql().begin(async (tx) => {
    await tx`select pg_advisory_xact_lock(${LOCK})`;
    await tx`create table if not exists migrations (
      name text primary key, applied_at timestamptz not null default now())`;
    const done = new Set(
      (await tx<{ name: string }[]>`select name from migrations`).map((r) => r.name),
    );
    const fresh = names.filter((name) => !done.has(name));
    for (const name of fresh) {
      const migration = await readFile(join(folder, name), 'utf8');
      await copyBefore(tx, migration);
      await tx.unsafe(migration);
      await tx`insert into migrations (name) values (${name})`;
    }
    return fresh;
  });
}
