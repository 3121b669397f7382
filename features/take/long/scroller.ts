import type { Way } from '@/core/contracts/way';
import type { Point } from '@/core/geometry/point';
import type { Rect } from '@/core/geometry/rect';
import type { Added } from '@/core/stitch/joiner';
import type { Progress } from '@/core/stitch/longPage';
import { Turns } from '@/core/stitch/turns';
import { messageOf } from '../../api/ask';
import { sources } from '../sources/list';
import { isStill, useLong } from './state';

/** Whether it can be scrolled from here. */
export const scrollsByItself = (way: Way): boolean => sources[way.source].scroll !== undefined;

/** Lets what is watched scroll by itself, on and on, until it is stopped or its end is reached. */
export class Scroller {
  readonly #turns = new Turns();

  constructor(
    private readonly way: Way,
    /** Where the picture that is watched begins on the source, once that is known. */
    private readonly origin: () => Point | null,
  ) {}

  /** Begins, or stops. */
  toggle(): void {
    if (!scrollsByItself(this.way)) return;
    const { scrolling, progress } = useLong.getState();
    useLong.setState({ scrolling: !scrolling });
    if (!scrolling) this.#send(progress, this.#turns.next(progress));
  }

  /** What became of the last look, and where all stands. */
  saw(added: Added, progress: Progress | null): void {
    if (!useLong.getState().scrolling) return;
    const next = this.#turns.saw(added, progress);
    if (next === 'wait') return;
    if (next !== 'end') return this.#send(progress, next.clicks);
    const said = progress ? 'The end is reached. Enter takes it.' : 'Nothing moves here.';
    const isEnd = isStill(added);
    useLong.setState({ scrolling: false, ...(isEnd && { said }) });
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
