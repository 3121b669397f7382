import type { ShotDocument } from '../document/document';
import { cropInside } from '../document/view';
import type { ViewShape } from '../document/viewSchema';
import { shapedView } from '../document/viewShape';
import type { Point } from '../geometry/point';
import { encloses, type Rect } from '../geometry/rect';
import type { Size } from '../geometry/size';
import { visiblePart } from '../region/windowChoice';

/** A part of a film's pictures, chosen before it is recorded, when they were of a size. */
export interface Shown {
  crop: Rect;
  shape?: ViewShape | undefined;
  of: Size;
}

const scaled = ({ x, y }: Point, by: Point): Point => ({ x: x * by.x, y: y * by.y });

/**
 * The part as a view of the film.
 * @param film how large its pictures became, pixels
 */
export function viewOf({ crop, shape, of }: Shown, film: Size): ShotDocument['view'] {
  const by = { x: film.width / of.width, y: film.height / of.height };
  const [from, to] = [
    scaled(crop, by),
    scaled({ x: crop.x + crop.width, y: crop.y + crop.height }, by),
  ];
  const here = cropInside({ ...from, width: to.x - from.x, height: to.y - from.y }, film);
  if (!shape) return { crop: here };
  const placed =
    shape.kind === 'polygon' ? { ...shape, points: shape.points.map((p) => scaled(p, by)) } : shape;
  return shapedView(placed, here, film);
}

interface Display {
  id: string;
  /** In the pixels of the whole source. */
  bounds: Rect;
}

/** What was chosen on a picture of a source. */
interface Chosen {
  /** Pixels of the picture, whose corner lies at `origin` in the source. */
  crop: Rect;
  shape?: ViewShape | undefined;
  picture: Size;
  origin: Point;
}

/**
 * Which display has to be recorded for a part to be on it, and where it lies there: one that shows
 * all of it where there is one, else the largest.
 * @param displays those of the source; none where it is one picture
 * @returns `display` null where there is nothing to choose between
 */
export function shownOn(
  displays: readonly Display[],
  { crop, shape, picture, origin }: Chosen,
): { display: string | null; shown: Shown } {
  const place = { ...crop, x: crop.x + origin.x, y: crop.y + origin.y };
  const bySize = [...displays].sort((a, b) => areaOf(a) - areaOf(b));
  const display = bySize.find(({ bounds }) => encloses(bounds, place)) ?? bySize.at(-1);
  if (!display) return { display: null, shown: { crop, shape, of: picture } };
  const { id, bounds } = display;
  const by = { x: origin.x - bounds.x, y: origin.y - bounds.y };
  const there = visiblePart({ ...crop, x: crop.x + by.x, y: crop.y + by.y }, bounds);
  const points =
    shape?.kind === 'polygon'
      ? { ...shape, points: shape.points.map((p) => ({ x: p.x + by.x, y: p.y + by.y })) }
      : shape;
  const of = { width: bounds.width, height: bounds.height };
  return { display: id, shown: { crop: there ?? { x: 0, y: 0, ...of }, shape: points, of } };
}

const areaOf = ({ bounds: { width, height } }: Display): number => width * height;
