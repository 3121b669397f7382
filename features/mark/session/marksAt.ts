import type { Point } from '@/core/geometry/point';
import { bottom, contains, right, type Rect } from '@/core/geometry/rect';
import { kindOf, markBounds, wordsOf, type Mark } from '@/core/marks/registry';
import { isSeenNow } from './moment';
import { session } from './session';

/** How near counts as touching, pixels of the screen. */
const TOUCH = 5;

const usable = (mark: Mark): boolean => !mark.off && !mark.locked && isSeenNow(mark);

/** The topmost mark under a place, within a few pixels of the screen; some may be left out. */
export function markAt(
  at: Point,
  scale: number,
  without: ReadonlySet<string> = new Set(),
): Mark | undefined {
  const { history, shaper } = session();
  return history.document.marks.findLast(
    (mark) =>
      usable(mark) &&
      !without.has(mark.id) &&
      kindOf(mark).hit(mark, at, TOUCH / scale, { shaper }),
  );
}

/** Under a place a mark that holds words; into some, as an empty box, one may type anywhere. */
export function wordsAt(at: Point, scale: number): Mark | undefined {
  const hit = markAt(at, scale);
  if (hit) return wordsOf(hit) ? hit : undefined;
  const { history, shaper } = session();
  return history.document.marks.findLast(
    (mark) =>
      kindOf(mark).words?.inside && usable(mark) && contains(markBounds(mark, { shaper }), at),
  );
}

/** Every mark that lies wholly inside a rectangle. */
export function marksInside(r: Rect): Mark[] {
  const { history, shaper } = session();
  return history.document.marks.filter((mark) => {
    const b = markBounds(mark, { shaper });
    return (
      usable(mark) && b.x >= r.x && b.y >= r.y && right(b) <= right(r) && bottom(b) <= bottom(r)
    );
  });
}
