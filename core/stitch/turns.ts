import type { Added } from './joiner';
import type { Progress } from './longPage';

/** So much of what is scrolled goes by at a time. */
const STEP = 0.45;
/** After so many looks at which nothing moved it is asked once more, and after so many it ends. */
const ASKED_AGAIN = 3;
const END = 7;

/** What is done next: so many clicks of the wheel, nothing until the next look, or nothing any more. */
export type Next = { clicks: number } | 'wait' | 'end';

/**
 * Lets something scroll by itself: a turn of the wheel, waiting until what it did has come to rest,
 * and the next, as long as something comes into sight. How far one click goes is seen.
 */
export class Turns {
  /** Since the last turn: how many clicks it had, how far it went, and how long nothing has moved. */
  #turn = { clicks: 0, moved: 0, idle: 0 };
  #pixelsOfClick = 0;

  /** How many clicks the next turn has. */
  next(progress: Progress | null): number {
    const { part, axis } = progress ?? {};
    const length = (axis === 'across' ? part?.width : part?.height) ?? 0;
    const fits = this.#pixelsOfClick && Math.floor((length * STEP) / this.#pixelsOfClick);
    const clicks = Math.max(1, fits);
    this.#turn = { clicks, moved: 0, idle: 0 };
    return clicks;
  }

  /** What became of the last look, and where all stands. */
  saw(added: Added, progress: Progress | null): Next {
    if (added === 'full' || added === 'apart') return 'end';
    if (added === 'first' || added === 'joined') {
      this.#turn.moved += Math.abs(progress?.shift ?? 0);
      this.#turn.idle = 0;
      return 'wait';
    }
    // What scrolls smoothly comes in several pictures; the next turn waits until it rests.
    if (added === 'unclear') return 'wait';
    const { clicks, moved } = this.#turn;
    if (moved > 0) {
      if (clicks > 0) this.#pixelsOfClick = Math.max(this.#pixelsOfClick, moved / clicks);
      return { clicks: this.next(progress) };
    }
    this.#turn.idle += 1;
    if (this.#turn.idle === ASKED_AGAIN) return { clicks };
    return this.#turn.idle < END ? 'wait' : 'end';
  }
}
