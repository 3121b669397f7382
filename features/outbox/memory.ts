import type { ShotDocument } from '@/core/contracts/document';
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
  fresh.set(shot.id, shot);
  const [oldest] = fresh.keys();
  if (fresh.size > MOST && oldest) fresh.delete(oldest);
}

export const recall = (id: string): Fresh | undefined => fresh.get(id);

export const forget = (id: string): boolean => fresh.delete(id);
