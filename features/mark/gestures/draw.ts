import type { Rect } from '@/core/geometry/rect';
import { snapDirection, type Point } from '@/core/geometry/point';
import { alongRatio } from '@/core/geometry/resize';
import type { StrokePoint } from '@/core/marks/contract';
import { kindOf, type Mark, type MarkName } from '@/core/marks/registry';
import { addMark, madeBy, makeMark } from '../actions/make';
import { select } from '../session/select';
import { beginWords, opensAtOnce } from '../actions/words';
import { alongRail } from '../fit/rail';
import { offerTrueUp } from '../recognise/trueUp';
import { session, update } from '../session/session';
import { sceneOf } from '../session/scene';
import { markAt } from '../session/marksAt';
import type { Gesture, Moved, Press } from './contract';

/** Half pixels: fine enough for any mark, and numbers stay short. */
export const round = (p: Point): Point => ({
  x: Math.round(p.x * 2) / 2,
  y: Math.round(p.y * 2) / 2,
});

/** A mark is drawn: along a stroke, or from place to place. */
export function drawing(tool: MarkName, { at: pressed, scale: at }: Press): Gesture {
  const strokes = madeBy(tool) === 'stroke';
  const start = strokes || kindOf(tool).alongRail ? alongRail(pressed, at) : pressed;
  const { id } = makeMark(tool, [start]);
  let path: StrokePoint[] = [start];

  /** The mark as it is drawn so far. */
  const drawn = (moved: Moved): Mark => {
    if (!strokes) {
      path = [round(start), round(endOf(tool, start, moved))];
      return makeMark(tool, path, id);
    }
    path.push(...moved.points.map((point) => alongRail(point, moved.scale)));
    const made = makeMark(tool, path, id);
    return moved.free ? made : fitted(made, path);
  };
  return {
    move: (moved) => update({ live: [drawn(moved)] }),
    end: (scale) => finish(session().live[0] ?? makeMark(tool, path, id), start, scale),
  };
}

/** Where a drag ends: Shift keeps its direction or its ratio. */
function endOf(tool: MarkName, start: Point, { at, keep, scale }: Moved): Point {
  const { directed, alongRail: railed } = kindOf(tool);
  const to = !keep ? at : directed ? snapDirection(start, at, 15) : alongRatio(start, at, 1);
  return railed ? alongRail(to, scale) : to;
}

/** A new mark laid to what the picture shows there, where its kind does so. */
function fitted(mark: Mark, path: readonly StrokePoint[]): Mark {
  // Painted pixels, not the frame's: what is hidden tells nothing.
  const below = (wanted: Rect) => sceneOf().scene.below(mark.id, wanted);
  return kindOf(mark).fit?.(mark, path, below) ?? mark;
}

/** @param scale pixels of the screen for one of the picture */
function finish(mark: Mark, start: Point, scale: number): void {
  if (opensAtOnce(mark)) return beginWords(mark, true);
  if (kindOf(mark).tooSmall(mark)) {
    update({ live: [] });
    // A press that did not move made nothing: it meant what lies there.
    const under = markAt(start, scale);
    if (under) select([under.id]);
    return;
  }
  addMark(mark);
  offerTrueUp(mark);
}
