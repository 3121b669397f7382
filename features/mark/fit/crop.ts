import type { Size } from '@/core/geometry/size';
import type { ViewShape } from '@/core/document/viewSchema';
import { centre, intersection, rectFromPoints, union, type Rect } from '@/core/geometry/rect';
import type { Point } from '@/core/geometry/point';
import { alongRatio } from '@/core/geometry/resize';
import { cropInside } from '@/core/document/view';
import { pictureSize } from '@/core/document/turn';
import { shapedView } from '@/core/document/viewShape';
import { changeDocument } from '../session/changes';
import { session, update } from '../session/session';

/** The size of the frame as the view turns it. */
function shownSize(): Size {
  const { frame, history: h } = session();
  return pictureSize(frame, h.document.view.turn);
}

/** Crop is taken in hand: the view as it is, and nothing drawn yet. */
export const startCrop = (): void => {
  const { crop } = session().history.document.view;
  update({ cropping: crop, cropSeen: crop, cropDrawn: false });
};

/** The view while Crop is in hand; only whole pixels inside the frame. */
export const setCropping = (crop: Rect): void =>
  update({ cropping: cropInside(crop, shownSize()), cropDrawn: true });

/** A crop drawn from one place to another, at the ratio that is kept. */
export function drawCrop(from: Point, to: Point): void {
  const { cropRatio } = session();
  const drawn = rectFromPoints(from, cropRatio === null ? to : alongRatio(from, to, cropRatio));
  if (drawn.width >= 1 && drawn.height >= 1) setCropping(drawn);
}

/** A drag too short to mean a crop: as it was before. */
export const isCropTooSmall = ({ width, height }: Rect): boolean => width < 4 || height < 4;

/** What was pulled out of sight is brought into it. */
export function showCropping(): void {
  const { cropping, cropSeen } = session();
  if (cropping && cropSeen) update({ cropSeen: union([cropSeen, cropping]) });
}

/** All of the frame, to crop from. */
export function cropWhole(): void {
  setCropping({ x: 0, y: 0, ...shownSize() });
  showCropping();
}

/** Keeps the crop at a ratio of width to height from now on; null lets go. */
export function setCropRatio(ratio: number | null): void {
  const { cropping } = session();
  update({ cropRatio: ratio });
  if (!cropping || ratio === null) return;
  const width = Math.min(cropping.width, cropping.height * ratio);
  const height = width / ratio;
  const c = centre(cropping);
  setCropping({ x: c.x - width / 2, y: c.y - height / 2, width, height });
}

export function setView(crop: Rect, label = 'Crop', joins = ''): void {
  const inside = cropInside(crop, shownSize());
  changeDocument(
    label,
    (draft) => {
      draft.view.crop = inside;
    },
    joins,
  );
}

/** What the view shows of its crop: all of it, an oval, or a free shape. */
export function setShape(shape: ViewShape | undefined, joins = ''): void {
  const picture = shownSize();
  changeDocument(
    'Change the shape',
    (draft) => {
      const { crop, follow } = draft.view;
      if (shape) draft.view = { ...shapedView(shape, crop, picture), ...(follow && { follow }) };
      else delete draft.view.shape;
    },
    joins,
  );
  if (session().cropping) update({ cropping: session().history.document.view.crop });
}

export function applyCrop(): void {
  const { cropping } = session();
  if (cropping) setView(cropping);
}

/** Leaves Crop, with or without its change. */
export function endCrop(apply: boolean): void {
  if (apply) applyCrop();
  update({
    cropping: null,
    cropSeen: null,
    tool: 'grab',
    camera: { ...session().camera, mode: 'fit' },
  });
}

/** The shown part of the view, in frame pixels. */
export const shownPart = (view: Rect, seen: Rect): Rect => intersection(view, seen) ?? view;
