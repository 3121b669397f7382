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
