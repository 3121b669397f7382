import { create } from 'zustand';
import type { Kind, Way } from '@/core/contracts/way';
import type { Choice } from './choice';
import type { Stilled } from './sources/contract';

/** A stilled picture on which something is chosen. */
export interface Choosing {
  name: 'choosing';
  way: Way;
  stilled: Stilled;
  png: Promise<Blob>;
  kind: Kind;
  /** Chosen; only what to do with it is still asked. */
  chosen?: Choice;
}

type Phase =
  | { name: 'ready' }
  | { name: 'counting'; until: number; seconds: number; way: Way }
  /** By what way, once that is known. */
  | { name: 'stilling'; way?: Way }
  | Choosing
  /** The moments that are held are looked through. */
  | { name: 'film'; way: Way }
  /** Something is scrolled, and joined. */
  | { name: 'watching'; way: Way }
  /** Taken, and Mark is about to open: nothing is worth drawing here any more. */
  | { name: 'leaving' };

/** How a take stands. */
interface TakeStore {
  phase: Phase;
  problem: string | null;
  /** The routine that runs, for what is said. */
  running: string | null;
}

export const useTake = create<TakeStore>(() => ({
  phase: { name: 'ready' },
  problem: null,
  running: null,
}));
