import type { Rect } from '@/core/geometry/rect';
import { snapDirection, type Point } from '@/core/geometry/point';
import { alongRatio } from '@/core/geometry/resize';
import type { StrokePoint } from '@/core/marks/contract';
import { kindOf, type Mark, type MarkName } from '@/core/marks/registry';
import { addMark, beginWords, madeBy, makeMark, opensAtOnce, select } from '../actions/actions';
import { alongRail } from '../fit/rail';
import { update } from '../session/session';
import { sceneOf } from '../stage/scene';
import { offerTrueUp } from '../recognise/trueUp';
import { markAt } from '../stage/under';

/** A mark on its way from the pointer going down to its coming up. */
export interface Drawing {
  kind: 'draw';
  tool: MarkName;
  path: StrokePoint[];
  id: string;
}

/** Half pixels: fine enough for any mark, and numbers stay short. */
export const round = (p: Point): Point => ({
  x: Math.round(p.x * 2) / 2,
  y: Math.round(p.y * 2) / 2,
});

export function startDrawing(tool: MarkName, at: StrokePoint, scale: number): Drawing {
  const start = madeBy(tool) === 'stroke' || kindOf(tool).alongRail ? alongRail(at, scale) : at;
  return { kind: 'draw', tool, path: [start], id: makeMark(tool, [start]).id };
}

/** A new mark laid to what the picture shows there, where its kind does so. */
function fitted(mark: Mark, path: readonly StrokePoint[]): Mark {
  // Painted pixels, not the frame's: what is hidden tells nothing.
  const below = (wanted: Rect) => sceneOf().scene.below(mark.id, wanted);
  return kindOf(mark).fit?.(mark, path, below) ?? mark;
}

/** The mark as it is drawn so far. */
export function drawn(
  g: Drawing,
  points: readonly StrokePoint[],
  { keep, free, scale }: { keep: boolean; free: boolean; scale: number },
): Mark {
  const [first] = g.path;
  const at = points.at(-1);
  if (madeBy(g.tool) === 'stroke') {
    g.path.push(...points.map((point) => alongRail(point, scale)));
    const made = makeMark(g.tool, g.path, g.id);
    return free ? made : fitted(made, g.path);
  }
  if (!first || !at) return makeMark(g.tool, g.path, g.id);
  const { directed, alongRail: railed } = kindOf(g.tool);
  const plain = !keep ? at : directed ? snapDirection(first, at, 15) : alongRatio(first, at, 1);
  const to = railed ? alongRail(plain, scale) : plain;
  g.path = [round(first), round(to)];
  return makeMark(g.tool, g.path, g.id);
}

/** @param scale pixels of the screen for one of the picture */
export function finishDrawing(g: Drawing, live: Mark | undefined, scale: number): void {
  const mark = live ?? makeMark(g.tool, g.path, g.id);
  if (opensAtOnce(mark)) {
    beginWords(mark, true);
    return;
  }
  if (kindOf(g.tool).tooSmall(mark)) {
    update({ live: [] });
    // A press that did not move made nothing: it meant what lies there.
    const [first] = g.path;
    const under = first && markAt(first, scale);
    if (under) select([under.id]);
  } else {
    addMark(mark);
    offerTrueUp(mark);
  }
}
