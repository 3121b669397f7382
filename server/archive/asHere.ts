import { sql } from '../db/sql';

/** What an identity in the archive is here, where that is another one. */
export type Ids = ReadonlyMap<string, string>;

/** The same value with every text that is an identity of the archive as it is here. */
export function withIds(value: unknown, ids: Ids): unknown {
  if (typeof value === 'string') return ids.get(value) ?? value;
  if (Array.isArray(value)) return value.map((one: unknown) => withIds(one, ids));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, withIds(one, ids)]));
}

/** A time of the archive to the microsecond, which a date of JavaScript's would lose. */
export const time = (iso: string | null) => sql()`${iso}::text::timestamptz`;
