import { polygonContains } from 'd3-polygon';
import type { Size } from '../geometry/size';
import type { ShotDocument } from './document';
import type { ViewShape } from './viewSchema';
import type { Point } from '../geometry/point';
import { boundsOf, outerPixels, type Rect } from '../geometry/rect';
import { ovalPath } from '../drawing/paths';
import type { Surface } from '../drawing/surface';
import { cropInside } from './view';

/** Adds the outline of what a view shows to the path. */
export function traceView(surface: Surface, crop: Rect, shape: ViewShape | undefined): void {
  if (!shape) {
    surface.rect(crop.x, crop.y, crop.width, crop.height);
  } else if (shape.kind === 'oval') {
    ovalPath(surface, crop);
  } else {
    shape.points.forEach((p, i) => (i === 0 ? surface.moveTo(p.x, p.y) : surface.lineTo(p.x, p.y)));
    surface.closePath();
  }
}

/** Adds the outline of a free shape to the path, moved. */
export function traceMoved(surface: Surface, crop: Rect, shape: ViewShape, by: Point): void {
  const moved = (p: Point): Point => ({ x: p.x + by.x, y: p.y + by.y });
  const to: ViewShape =
    shape.kind === 'polygon' ? { ...shape, points: shape.points.map(moved) } : shape;
  traceView(surface, { ...crop, ...moved(crop) }, to);
}

/** The smallest whole-pixel rectangle in the frame around some points. */
export function cropAround(points: readonly Point[], frame: Size): Rect {
  return cropInside(outerPixels(boundsOf(points)), frame);
}

/** A view of a free shape: a polygon brings its own crop, an oval fills the given one. */
export function shapedView(shape: ViewShape, crop: Rect, frame: Size): ShotDocument['view'] {
  return shape.kind === 'oval'
    ? { crop: cropInside(crop, frame), shape }
    : { crop: cropAround(shape.points, frame), shape };
}

/** Tells whether the middle of a pixel lies in what a view shows of its crop. */
export function shows({ crop, shape }: ShotDocument['view']): (x: number, y: number) => boolean {
  if (!shape) return () => true;
  if (shape.kind === 'polygon') {
    const points = shape.points.map(({ x, y }): [number, number] => [x, y]);
    return (x, y) => polygonContains(points, [x + 0.5, y + 0.5]);
  }
  const [cx, cy] = [crop.x + crop.width / 2, crop.y + crop.height / 2];
  return (x, y) =>
    ((x + 0.5 - cx) / (crop.width / 2)) ** 2 + ((y + 0.5 - cy) / (crop.height / 2)) ** 2 <= 1;
}
