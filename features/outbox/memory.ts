import type { ShotDocument } from '@/core/document/document';
import type { Provenance } from '@/core/contracts/provenance';

/** A shot that was just taken, whole in memory: Mark opens it without asking anybody. */
export interface Fresh {
  id: string;
  title: string;
  picture: ImageBitmap;
  document: ShotDocument;
  provenance: Provenance;
}

/** Frames are large: only the last few stay. */
const MOST = 3;
const fresh = new Map<string, Fresh>();

export function remember(shot: Fresh): void {
  // The newest is last, so that the one that is open is never the oldest.
  fresh.delete(shot.id);
  fresh.set(shot.id, shot);
  const [oldest] = fresh.values();
  if (fresh.size <= MOST || !oldest) return;
  fresh.delete(oldest.id);
  // A frame takes megabytes that the browser does not count as the page's: let go by hand.
  oldest.picture.close();
}

export const recall = (id: string): Fresh | undefined => fresh.get(id);

/** It may still be shown: its picture goes once nothing shows it any more. */
export const forget = (id: string): boolean => fresh.delete(id);
