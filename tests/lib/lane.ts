import { randomUUID } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import postgres from 'postgres';
import { z } from 'zod';

const envSchema = z.record(z.string(), z.string());

/** How long a lane may take to be ready: the app is built meanwhile. */
const PATIENCE = 600_000;

/**
 * Gives a test file what its worker has for itself: an app, a database, folders, a display. Until
 * `bin/lib/lanes.mjs` has made that ready, the file waits.
 */
export async function takeLane(kind: 'server' | 'safe' | 'app'): Promise<void> {
  const folder = process.env.REZZIK_LANES;
  // Started by hand, with everything said in the environment.
  if (!folder) return;
  const file = join(folder, `${kind}-${process.env.JEST_WORKER_ID ?? '1'}.lane.json`);
  const given = Date.now();
  while (!existsSync(file)) {
    if (existsSync(join(folder, 'failed')) || Date.now() - given > PATIENCE)
      throw new Error('The app to be tried is not there.');
    await pause(100);
  }
  const { REZZIK_CLUSTER, ...lane } = envSchema.parse(JSON.parse(readFileSync(file, 'utf8')));
  Object.assign(process.env, lane);
  if (REZZIK_CLUSTER) process.env.DATABASE_URL = await freshDatabase(REZZIK_CLUSTER);
  if (kind === 'app') await asAtFirst(process.env.DATABASE_URL ?? '');
}

/** The app of a lane serves many files: none finds what another left. */
async function asAtFirst(database: string): Promise<void> {
  const sql = postgres(database, { max: 1, onnotice: () => undefined });
  // The looks that Rezzik ships are rows of a migration.
  const tables = await sql<{ name: string }[]>`select tablename as name from pg_tables
    where schemaname = 'public' and tablename not in ('migrations', 'looks')`;
  await sql`truncate ${sql(tables.map(({ name }) => name))}`;
  await sql`delete from looks where id::text not like '6b0c2d1e-%'`;
  await sql`update looks set key = null`;
  await sql.end();
}

/** A database for one file alone, so that no file sees what another left. */
async function freshDatabase(cluster: string): Promise<string> {
  const sql = postgres(cluster, { max: 1, onnotice: () => undefined });
  const name = `rezzik_${randomUUID().replaceAll('-', '')}`;
  await sql`create database ${sql(name)}`;
  await sql.end();
  const url = new URL(cluster);
  url.pathname = `/${name}`;
  return url.href;
}
