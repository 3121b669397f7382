import type { Point } from '../geometry/point';
import { apply, inverse } from '../geometry/matrix';
import { centre } from '../geometry/rect';
import type { Size } from '../geometry/size';
import { hides, kindOf } from '../marks/registry';
import type { ShotDocument } from './document';
import { isTurned, pictureSize, turnMatrix } from './turn';
import type { Follow } from './viewSchema';

const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));

const NOWHERE: Point = { x: 0, y: 0 };

/** How far what is followed lies from where it lay at first, on a picture of a clip, pixels of the frame. */
export function followedBy(follow: Follow | undefined, picture: number): Point {
  if (!follow) return NOWHERE;
  let [low, high] = [0, follow.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((follow[middle]?.from ?? 0) <= picture) low = middle + 1;
    else high = middle;
  }
  return follow[low - 1] ?? NOWHERE;
}

/** A picture may have been taken so many pictures before or after what was noted for it. */
const UNSURE = 4;

/** Where else it may lie on a picture that was taken while it was moved. */
export function alsoFollowedBy(follow: Follow | undefined, picture: number): Point[] {
  const own = followedBy(follow, picture);
  const others = new Map<string, Point>();
  for (let one = picture - UNSURE; one <= picture + UNSURE; one += 1) {
    const { x, y } = followedBy(follow, one);
    if (x !== own.x || y !== own.y) others.set(`${x} ${y}`, { x, y });
  }
  return [...others.values()];
}

/** So far it is on the turned picture, where the view is. */
function turnedBy({ crop, turn }: ShotDocument['view'], by: Point, frame: Size): Point {
  if (!turn || !isTurned(turn)) return by;
  const matrix = turnMatrix(frame, turn);
  const middle = centre(crop);
  const before = apply(inverse(matrix), middle);
  const after = apply(matrix, { x: before.x + by.x, y: before.y + by.y });
  return { x: Math.round(after.x - middle.x), y: Math.round(after.y - middle.y) };
}

/**
 * What is shown of one picture of a clip whose view follows something: the view, as far as the frame
 * reaches, and what lies on it are where that is. What hides lies wherever that may be.
 * @param frame its size, not turned
 */
export function followed(document: ShotDocument, picture: number, frame: Size): ShotDocument {
  const { follow, ...view } = document.view;
  if (!follow) return document;
  const far = followedBy(follow, picture);
  const also = alsoFollowedBy(follow, picture);
  if (far.x === 0 && far.y === 0 && also.length === 0) return { ...document, view };
  const by = turnedBy(view, far, frame);
  const { crop, shape } = view;
  const whole = pictureSize(frame, view.turn);
  const x = within(crop.x + by.x, whole.width - crop.width);
  const y = within(crop.y + by.y, whole.height - crop.height);
  const moved = { x: x - crop.x, y: y - crop.y };
  return {
    ...document,
    view: {
      ...view,
      crop: { ...crop, x, y },
      ...(shape?.kind === 'polygon' && {
        shape: {
          ...shape,
          points: shape.points.map((p) => ({ x: p.x + moved.x, y: p.y + moved.y })),
        },
      }),
    },
    marks: document.marks.flatMap((mark, place) => [
      kindOf(mark).move(mark, by),
      ...(hides(mark) ? also : []).map((away, i) => ({
        ...kindOf(mark).move(mark, turnedBy(view, away, frame)),
        id: `also-${place}-${i}`,
      })),
    ]),
  };
}
