import postgres from 'postgres';
import { env } from '../env';

// Development reloads modules; the pool must outlive them.
const kept = globalThis as { rezzikSql?: postgres.Sql };

/** The pool of connections, opened at first use. */
export function sql(): postgres.Sql {
  kept.rezzikSql ??= postgres(env().databaseUrl, { max: 8, onnotice: () => undefined });
  return kept.rezzikSql;
}

export async function closeSql(): Promise<void> {
  await kept.rezzikSql?.end({ timeout: 5 });
  delete kept.rezzikSql;
}

/** A value for a jsonb column. Postgres.js asks for its own type, which Zod's results do not name. */
export const json = (value: unknown) => sql().json(value as postgres.JSONValue);
