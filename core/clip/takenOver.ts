import type { Stretch } from '../values/stretch';
import type { Cuts } from './cuts';
import { everyOf, playedStretches } from './played';

/** Some pictures of what is kept, one after the other. */
export interface Piece extends Stretch {
  /** They lie in what is written as they were recorded; else they are packed anew. */
  asRecorded: boolean;
}

/**
 * What of a film can be taken over as it was recorded: in each stretch that is kept, all from its
 * first key picture on. What comes before that is packed anew.
 * @param keys pictures that can be begun with, by their numbers
 * @returns in order; null where nothing can be taken over, or not every picture is played
 */
export function takenOver(cuts: Cuts, count: number, keys: ReadonlySet<number>): Piece[] | null {
  const stretches = playedStretches(cuts, count);
  if (stretches.some(({ speed }) => everyOf(speed) > 1)) return null;
  const pieces = stretches.flatMap(({ from, to }): Piece[] => {
    let key = from;
    while (key < to && !keys.has(key)) key += 1;
    const both = [
      { from, to: key, asRecorded: false },
      { from: key, to, asRecorded: true },
    ];
    return both.filter((piece) => piece.from < piece.to);
  });
  return pieces.some(({ asRecorded }) => asRecorded) ? pieces : null;
}
