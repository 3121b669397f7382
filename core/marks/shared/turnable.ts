import { cornersOf, rotated, storedAngle } from '../../geometry/mapping';
import type { Point } from '../../geometry/point';
import { boundsOf, centre, type Rect } from '../../geometry/rect';
import type { Surface } from '../../drawing/surface';
import type { Handle, MarkBase, MarkKind, MarkTools } from '../contract';

interface Turned extends MarkBase {
  angle?: number | undefined;
}

/** How a kind turns: about what, and where the handle for it sits while it stands upright. */
export interface Turning<M> {
  pivot(mark: M, tools: MarkTools): Point;
  grip(mark: M, tools: MarkTools): { at: Point; away: Point };
}

/** Turns about the middle, with the handle above. */
export const aboutMiddle: Turning<Rect> = {
  pivot: centre,
  grip: (mark) => ({ at: { x: mark.x + mark.width / 2, y: mark.y }, away: { x: 0, y: -1 } }),
};

/** Sets the surface up so that what is painted upright stands at an angle. */
export function turnSurface(surface: Surface, about: Point, degrees: number): void {
  surface.translate(about.x, about.y);
  surface.rotate((degrees * Math.PI) / 180);
  surface.translate(-about.x, -about.y);
}

const directionOf = (from: Point, to: Point): number =>
  (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;

/** Steps that Shift holds a turn to, degrees. */
const STEP = 15;

/** A kind whose marks can stand at an angle, made of one whose marks stand upright. */
export function turnable<M extends Turned>(
  kind: MarkKind<M>,
  turns: Turning<M>,
  paintsTurned = false,
): MarkKind<M> {
  const pivot = (mark: M, tools: MarkTools) => turns.pivot(mark, tools);
  const grip = (mark: M, tools: MarkTools) => turns.grip(mark, tools);
  const withAngle = (mark: M, degrees: number): M => {
    const angle = storedAngle(degrees);
    const { angle: _, ...upright } = mark;
    return (angle === 0 ? upright : { ...mark, angle }) as M;
  };
  const back = (mark: M, at: Point, tools: MarkTools): Point =>
    mark.angle ? rotated(at, pivot(mark, tools), -mark.angle) : at;
  const turnHandle = (mark: M, tools: MarkTools): Handle => {
    const { at, away } = grip(mark, tools);
    return { id: 'turn', at, away, role: 'turn' };
  };
  return {
    ...kind,
    bounds(mark, tools) {
      const r = kind.bounds(mark, tools);
      if (!mark.angle) return r;
      const about = pivot(mark, tools);
      return boundsOf(cornersOf(r).map((p) => rotated(p, about, mark.angle ?? 0)));
    },
    hit: (mark, at, tolerance, tools) => kind.hit(mark, back(mark, at, tools), tolerance, tools),
    handles(mark, tools) {
      const all = [...kind.handles(mark, tools), turnHandle(mark, tools)];
      const { angle } = mark;
      if (!angle) return all;
      const about = pivot(mark, tools);
      return all.map((handle) => ({
        ...handle,
        at: rotated(handle.at, about, angle),
        ...(handle.away && { away: rotated(handle.away, { x: 0, y: 0 }, angle) }),
      }));
    },
    pull(mark, handle, to, keep, tools) {
      const about = pivot(mark, tools);
      if (handle === 'turn') {
        const degrees = directionOf(about, to) - directionOf(about, grip(mark, tools).at);
        return withAngle(mark, keep ? Math.round(degrees / STEP) * STEP : degrees);
      }
      const pulled = kind.pull(mark, handle, back(mark, to, tools), keep, tools);
      if (!mark.angle) return pulled;
      // The pivot went along; what was not pulled stays where it is seen.
      const now = pivot(pulled, tools);
      const seen = rotated(now, about, mark.angle);
      return kind.move(pulled, { x: seen.x - now.x, y: seen.y - now.y });
    },
    numbers: (mark, tools) => [
      ...kind.numbers(mark, tools),
      { id: 'angle', label: 'Angle', value: mark.angle ?? 0 },
    ],
    withNumber: (mark, field, value) =>
      field === 'angle' ? withAngle(mark, value) : kind.withNumber(mark, field, value),
    paint(surface, mark, tools, scene) {
      if (mark.angle && !paintsTurned) turnSurface(surface, pivot(mark, tools), mark.angle);
      kind.paint(surface, mark, tools, scene);
    },
    ...(kind.words && {
      words: {
        ...kind.words,
        field(mark: M, tools: MarkTools) {
          const field = kind.words?.field(mark, tools);
          if (!field) throw new TypeError('This kind holds no words.');
          const { angle } = mark;
          return angle ? { ...field, turned: { angle, about: pivot(mark, tools) } } : field;
        },
      },
    }),
  };
}
