import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Provenance } from '@/core/contracts/provenance';
import type { Size } from '@/core/geometry/size';

/** A piece of a long page, as a file. */
export interface HeldPiece extends Size {
  bytes: ArrayBuffer;
  title: string;
  provenance: Provenance;
}

/** What is had of a long page that is still watched, or was when its tab went away. */
export interface HeldLong {
  id: string;
  pieces: HeldPiece[];
}

interface Held extends DBSchema {
  long: { key: string; value: HeldLong };
}

let opening: Promise<IDBPDatabase<Held>> | null = null;

/** Beside the outbox: a tab that has that open need not be waited for. */
function held(): Promise<IDBPDatabase<Held>> {
  opening ??= openDB<Held>('rezzik-long', 1, {
    upgrade: (db) => void db.createObjectStore('long', { keyPath: 'id' }),
    terminated: () => (opening = null),
  });
  return opening;
}

const lockOf = (id: string): string => `rezzik long ${id}`;

/** Says, until it is let go or the tab goes away, that somebody still watches it. */
export function watchedHere(id: string): () => void {
  let letGo = (): void => undefined;
  const until = new Promise<void>((resolve) => (letGo = resolve));
  void navigator.locks.request(lockOf(id), () => until);
  return letGo;
}

export const holdLong = async (long: HeldLong): Promise<void> =>
  void (await (await held()).put('long', long));

export const forgetHeld = async (id: string): Promise<void> => (await held()).delete('long', id);

/** What nobody watches any more, and nobody took; null where there is nothing. */
export async function leftBehind(): Promise<HeldLong | null> {
  for (const long of await (await held()).getAll('long')) {
    const isLeft = await navigator.locks.request(
      lockOf(long.id),
      { ifAvailable: true },
      (lock) => lock !== null,
    );
    if (isLeft) return long;
  }
  return null;
}
