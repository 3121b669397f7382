import type { Added } from './joiner';
import type { Progress } from './longPage';

/** So much of what is scrolled goes by at a time. */
const STEP = 0.45;
/** After so many looks at which nothing moved it is asked once more, and after so many it ends. */
const ASKED_AGAIN = 3;
const END = 7;
/** Over a gap it goes back so often, by a part of the turn that made it. */
const BACK = 4;

/** What is done next: so many clicks of the wheel (back, if negative), nothing until the next look, or nothing any more. */
export type Next = { clicks: number } | 'wait' | 'end';

/**
 * Lets something scroll by itself: a turn of the wheel, waiting until what it did has come to rest,
 * and the next, as long as something comes into sight. How far one click goes is seen. Where it went
 * too far it goes back, until the gap is closed.
 */
export class Turns {
  /** Since the last turn: how many clicks it had, how far it went, and how long nothing has moved. */
  #turn = { clicks: 0, moved: 0, idle: 0 };
  #pixelsOfClick = 0;
  /** While a gap is to be closed: how many pieces there are with it, and how often it went back. */
  #gap: { pieces: number; back: number } | null = null;

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
    if (added === 'full') return 'end';
    if (added === 'apart') {
      this.#gap = { pieces: progress?.pieces.length ?? 0, back: this.#gap?.back ?? 0 };
      return this.#back();
    }
    if (added === 'first' || added === 'joined') {
      this.#turn.moved += Math.abs(progress?.shift ?? 0);
      this.#turn.idle = 0;
      return 'wait';
    }
    // What scrolls smoothly comes in several pictures; the next turn waits until it rests.
    if (added === 'unclear') return 'wait';
    return this.#turn.moved > 0 ? this.#rested(progress) : this.#idle();
  }

  #rested(progress: Progress | null): Next {
    const { clicks, moved } = this.#turn;
    const turned = Math.abs(clicks);
    if (turned > 0) this.#pixelsOfClick = Math.max(this.#pixelsOfClick, moved / turned);
    if (this.#gap && (progress?.pieces.length ?? 0) >= this.#gap.pieces) return this.#back();
    this.#gap = null;
    return { clicks: this.next(progress) };
  }

  #idle(): Next {
    this.#turn.idle += 1;
    // One click shows whether it moves. A whole turn, where the program was only slow to do the one
    // before, would go farther than what is seen holds together.
    if (this.#turn.idle === ASKED_AGAIN) return { clicks: Math.sign(this.#turn.clicks) };
    return this.#turn.idle < END ? 'wait' : 'end';
  }

  #back(): Next {
    if (!this.#gap || this.#gap.back >= BACK) return 'end';
    this.#gap.back += 1;
    this.#turn = { clicks: -Math.max(1, Math.abs(this.#turn.clicks) >> 1), moved: 0, idle: 0 };
    return { clicks: this.#turn.clicks };
  }
}
