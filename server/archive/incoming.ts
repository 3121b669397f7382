import type postgres from 'postgres';
import { deepEqual } from 'fast-equals';
import { z } from 'zod';
import { idOf } from '@/core/archive/relation';
import { soundRecords } from '@/core/archive/records';
import type { BroughtKind } from '@/core/contracts/archive';
import { sql } from '../db/sql';
import { sha256 } from '../frames/intake';
import type { Reporting } from './reporting';
import { Damaged, type OpenArchive } from './zipIn';

export type Tx = postgres.TransactionSql;

/** What comes in, what is said of it, and what its identities are here. */
export interface Incoming {
  archive: OpenArchive;
  reporting: Reporting;
  ids: Map<string, string>;
}

/**
 * The identity under which something is put beside another one that has its own.
 * @param says what makes it another one
 */
export const besideId = (says: unknown): string => idOf(sha256(Buffer.from(JSON.stringify(says))));

const listSchema = z.array(z.unknown()).max(200_000);

/** The records of a list that can be read; what is wrong with the others is told. */
export async function listed<T extends z.ZodType>(
  { archive, reporting }: Incoming,
  entry: string,
  schema: T,
): Promise<z.output<T>[]> {
  if (!archive.has(entry)) return [];
  try {
    const { sound, odd } = soundRecords(schema, await archive.json(entry, listSchema));
    odd.forEach((why) => reporting.damaged(entry, why));
    return sound;
  } catch (error) {
    if (!(error instanceof Damaged)) throw error;
    reporting.damaged(entry, error.message);
    return [];
  }
}

/** How records of a kind are known, and added. */
export interface Kind<R> {
  kind: BroughtKind;
  /** The one here that has its identity, as an archive would hold it. */
  here: (tx: Tx, record: R) => Promise<unknown>;
  /** Another one here that does the same. */
  alike?: (tx: Tx, record: R) => Promise<string | null>;
  /** @returns false where there are as many as there can be */
  add: (tx: Tx, id: string, record: R) => Promise<boolean>;
}

/**
 * One record: left where the same is here, added where nothing is, put beside what is another one of
 * the same identity.
 */
export async function bring<R extends { id: string; name: string }>(
  { reporting, ids }: Incoming,
  record: R,
  { kind, here, alike, add }: Kind<R>,
): Promise<void> {
  await sql().begin(async (tx) => {
    const there = await here(tx, record);
    if (there !== undefined && deepEqual(there, record)) return reporting.count(kind, 'here');
    const other = there === undefined ? await alike?.(tx, record) : null;
    if (other) {
      ids.set(record.id, other);
      return reporting.count(kind, 'here');
    }
    // By what it does: one that was renamed in a later archive does not come once more.
    const isNew = there === undefined;
    const id = isNew ? record.id : besideId({ ...record, name: '', key: null, systemKey: null });
    ids.set(record.id, id);
    if (!isNew && (await here(tx, { ...record, id })) !== undefined) {
      return reporting.count(kind, 'here');
    }
    if (!(await add(tx, id, record))) {
      return reporting.tell(
        `“${record.name}” is left out: there are as many ${kind} as there can be.`,
      );
    }
    reporting.count(kind, isNew ? 'added' : 'beside');
    if (!isNew) reporting.tell(`“${record.name}” (${kind}) is another one here; both are kept.`);
  });
}
