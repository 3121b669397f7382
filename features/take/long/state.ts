import { create } from 'zustand';
import type { Rect } from '@/core/geometry/rect';
import type { Added } from '@/core/stitch/joiner';
import type { Progress } from '@/core/stitch/longPage';
import type { Stilled, StillWindow } from '../sources/contract';

/** What is watched: a window, or a part of the picture. */
export interface Watched {
  place: Rect;
  window: StillWindow | null;
}

/** How a long page stands. */
export interface LongState {
  /** Null until it is found what is scrolled. */
  watched: Watched | null;
  progress: Progress | null;
  /** The picture on which a person chooses what is watched; nothing is looked at meanwhile. */
  choosing: Stilled | null;
  /** The pieces, small. */
  film: readonly ImageBitmap[];
  /** It is being scrolled by itself. */
  scrolling: boolean;
  /** What to know now, in words. */
  said: string;
  /** What is amiss. */
  problem: string | null;
}

const atFirst: LongState = {
  ...{ watched: null, progress: null, choosing: null, film: [], scrolling: false, problem: null },
  said: 'Looking …',
};

export const useLong = create<LongState>(() => atFirst);

/** Said once there is a picture of how it begins. */
export const BEGIN = 'Scroll slowly: what moves is found by itself.';

/** Nothing was scrolled since the last look. */
export const isStill = (added: Added): boolean => added === 'same' || added === 'renewed';

/** What is said of a frame; nothing where it changes nothing. */
export function wordsFor(added: Added, { pieces }: Progress, before: number): string | null {
  if (added === 'full') return 'It is as much as fits. Enter takes it.';
  if (added === 'unclear') return 'That was too far. Scroll back a little.';
  if (pieces.length > 1) return 'A gap: scroll back, or take the pieces.';
  if (before > 1) return 'The gap is closed. Scroll on.';
  return isStill(added) ? null : 'Scroll on. Enter when all is there.';
}

/** Nothing is watched any more. */
export function forgetLong(): void {
  const { film } = useLong.getState();
  useLong.setState(atFirst, true);
  film.forEach((picture) => picture.close());
}

/** The whole of it: all pieces, and how many pictures they are made of. */
export const framesIn = ({ pieces }: Progress): number =>
  pieces.reduce((sum, { frames }) => sum + frames, 0);
