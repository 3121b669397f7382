import postgres from 'postgres';
import { env } from '../base/env';
import { shared } from '../base/shared';

// Development reloads modules; the pool must outlive them.
const kept = shared<{ sql?: postgres.Sql }>('sql', () => ({}));

const CONNECTIONS = 8;

/** The pool of connections, opened at first use. */
export function sql(): postgres.Sql {
  const options = {
    max: CONNECTIONS,
    onnotice: () => undefined,
    // taken_at is takenAt in every row; what lies in a jsonb column is as it was stored.
    transform: { column: { from: postgres.toCamel, to: postgres.fromCamel } },
  };
  kept.sql ??= postgres(env().databaseUrl, options);
  return kept.sql;
}

/** Opens all connections, so that nobody waits for that in the middle of much else. */
export async function openAll(): Promise<void> {
  // Each is busy for long enough that the next question needs another.
  await Promise.all(Array.from({ length: CONNECTIONS }, () => sql()`select pg_sleep(0.05)`));
}

export async function closeSql(): Promise<void> {
  await kept.sql?.end({ timeout: 5 });
  delete kept.sql;
}

/** A value for a jsonb column. Postgres.js asks for its own type, which Zod's results do not name. */
export const json = (value: unknown) => sql().json(value as postgres.JSONValue);
