import type { Size } from '../geometry/size';
import type { Mark } from '../marks/registry';
import { isIn } from '../values/stretch';
import type { ShotDocument } from './document';
import { followed } from './follow';

/** Tells whether a mark is seen on a picture of a clip. */
export const isSeenAt = ({ time }: Pick<Mark, 'time'>, picture: number): boolean =>
  !time || isIn(time, picture);

/** A document of a clip without the marks of other times, itself where it has none. */
export function withoutOthers(document: ShotDocument, picture: number): ShotDocument {
  if (document.marks.every((mark) => isSeenAt(mark, picture))) return document;
  return { ...document, marks: document.marks.filter((mark) => isSeenAt(mark, picture)) };
}

/**
 * What a clip shows of itself on one of its pictures: a document without the marks of other times,
 * where the view is then.
 * @param picture its number, from 0
 * @param frame the size of its pictures
 */
export const documentAt = (document: ShotDocument, picture: number, frame: Size): ShotDocument =>
  followed(withoutOthers(document, picture), picture, frame);

/** The same for a still, which has no time. */
export function stillAt(document: ShotDocument, picture: number, frame: Size): ShotDocument {
  const { marks, ...rest } = documentAt(document, picture, frame);
  return { ...rest, marks: marks.map(({ time: _, ...mark }) => mark as Mark) };
}

/** Every picture leaves as it was recorded. @param frame how large it was recorded */
export const isUntouched = ({ marks, view, finish }: ShotDocument, frame: Size): boolean =>
  [...marks, finish, view.room, view.shape, view.turn, view.follow].every(
    (one) => one === undefined,
  ) &&
  view.crop.width === frame.width &&
  view.crop.height === frame.height;
