import type { Size } from '@/core/geometry/size';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { ShotDocument } from '@/core/document/document';
import type { Provenance } from '@/core/contracts/provenance';
import type { ShotChange } from '@/core/contracts/shot';

/** A take that the server does not have yet. */
export interface OutboxEntry {
  id: string;
  /** The frame as PNG, or the file as it was brought in. */
  picture: Blob;
  title: string;
  /** The title was made by itself. */
  titleMade?: boolean;
  provenance: Provenance;
  /** Absent for files whose size only the server finds out. */
  document?: ShotDocument;
  size?: Size;
  /** Why the server will never take it; set once that is known. */
  refused?: string;
}

/**
 * An entry as the browser's store holds it: plain bytes, since putting a Blob there costs the main
 * thread a tenth of a second, just when Mark opens.
 */
export interface HeldEntry extends Omit<OutboxEntry, 'picture'> {
  bytes: ArrayBuffer;
  type: string;
}

/** A change of a stored shot that the server does not have yet. */
export interface Draft {
  key: string;
  shot: string;
  tab: string;
  change: ShotChange;
  /** What was on its way to the server when this was held: it may have arrived. */
  underway?: ShotDocument;
}

interface Held extends DBSchema {
  outbox: { key: string; value: HeldEntry };
  drafts: { key: string; value: Draft; indexes: { shot: string } };
}

let opening: Promise<IDBPDatabase<Held>> | null = null;

/** What this browser holds until the server has it. */
export function held(): Promise<IDBPDatabase<Held>> {
  opening ??= openDB<Held>('rezzik', 1, {
    upgrade(db) {
      db.createObjectStore('outbox', { keyPath: 'id' });
      db.createObjectStore('drafts', { keyPath: 'key' }).createIndex('shot', 'shot');
    },
    terminated() {
      opening = null;
    },
  });
  return opening;
}
