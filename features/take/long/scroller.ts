import type { Way } from '@/core/contracts/way';
import type { Point } from '@/core/geometry/point';
import type { Rect } from '@/core/geometry/rect';
import type { Added } from '@/core/stitch/joiner';
import type { Progress } from '@/core/stitch/longPage';
import { messageOf } from '../../api/ask';
import { sources } from '../sources/list';
import { useLong } from './state';

/** So much of what is scrolled goes by at a time. */
const STEP = 0.45;
/** After so many looks at which nothing moved it is asked once more, and after so many it ends. */
const ASKED_AGAIN = 3;
const END = 7;

/** Whether it can be scrolled from here. */
export const scrollsByItself = (way: Way): boolean => sources[way.source].scroll !== undefined;

/**
 * Lets something scroll by itself: a turn of the wheel, waiting until what it did has come to rest,
 * and the next, as long as something comes into sight. How far one click goes is seen.
 */
export class Scroller {
  /** Since the last turn: how many clicks it had, how far it went, and how long nothing has moved. */
  #turn = { clicks: 0, moved: 0, idle: 0 };
  #pixelsOfClick = 0;

  constructor(
    private readonly way: Way,
    /** Where the picture that is watched begins on the source, once that is known. */
    private readonly origin: () => Point | null,
  ) {}

  /** Begins, or stops. */
  toggle(): void {
    if (!scrollsByItself(this.way)) return;
    const scrolling = !useLong.getState().scrolling;
    useLong.setState({ scrolling });
    if (scrolling) this.#go(useLong.getState().progress);
  }

  /** What became of the last look, and where all stands. */
  saw(added: Added, progress: Progress | null): void {
    if (!useLong.getState().scrolling) return;
    if (added === 'full' || added === 'apart') return useLong.setState({ scrolling: false });
    if (added === 'first' || added === 'joined') {
      this.#turn.moved += Math.abs(progress?.shift ?? 0);
      this.#turn.idle = 0;
      return;
    }
    // What scrolls smoothly comes in several pictures; the next turn waits until it rests.
    if (added === 'unclear') return;
    const { clicks, moved } = this.#turn;
    if (moved > 0) {
      if (clicks > 0) this.#pixelsOfClick = Math.max(this.#pixelsOfClick, moved / clicks);
      return this.#go(progress);
    }
    this.#turn.idle += 1;
    if (this.#turn.idle === ASKED_AGAIN) this.#send(progress, this.#turn.clicks);
    if (this.#turn.idle < END) return;
    const said = progress ? 'The end is reached. Enter takes it.' : 'Nothing moves here.';
    useLong.setState({ scrolling: false, said });
  }

  #go(progress: Progress | null): void {
    const { part, axis } = progress ?? {};
    const length = (axis === 'across' ? part?.width : part?.height) ?? 0;
    const fits = this.#pixelsOfClick && Math.floor((length * STEP) / this.#pixelsOfClick);
    const clicks = Math.max(1, fits);
    this.#turn = { clicks, moved: 0, idle: 0 };
    this.#send(progress, clicks);
  }

  #send(progress: Progress | null, clicks: number): void {
    const origin = this.origin();
    const at = origin && progress ? middleOf(progress.part, origin) : null;
    const across = progress?.axis === 'across';
    void sources[this.way.source]
      .scroll?.({ clicks, across, at })
      .catch((error: unknown) => useLong.setState({ scrolling: false, problem: messageOf(error) }));
  }
}

const middleOf = ({ x, y, width, height }: Rect, origin: Point): Point => ({
  x: Math.round(origin.x + x + width / 2),
  y: Math.round(origin.y + y + height / 2),
});
