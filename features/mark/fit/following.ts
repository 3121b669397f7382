import { useEffect } from 'react';
import { followedBy } from '@/core/document/follow';
import type { ShotDocument } from '@/core/document/document';
import type { Point } from '@/core/geometry/point';
import { shifted } from '../../pictures/pictures';
import { changeDocument } from '../session/changes';
import { useDocument } from '../session/document';
import type { Moment } from '../session/moment';
import { session, update } from '../session/session';

const placeOf = ({ x, y }: Point): string => `${x} ${y}`;
/** Where what is followed lay on the pictures that were shifted. */
const shiftedFor = new WeakMap<ImageBitmap, string>();

/** The picture of a clip that is marked, with what its view follows where that lay at first. */
export function followedFrame(
  { recorded, picture }: Pick<Moment, 'recorded' | 'picture'>,
  { view: { follow } }: ShotDocument,
): ImageBitmap {
  const by = followedBy(follow, picture);
  const frame = by.x === 0 && by.y === 0 ? recorded : shifted(recorded, { x: -by.x, y: -by.y });
  shiftedFor.set(frame, placeOf(by));
  return frame;
}

/** Keeps the picture so while that changes, also through undo. */
export function useFollowedFrame(): void {
  const moment = useDocument((s) => s.moment);
  const document = useDocument((s) => s.history.document);
  const place = moment && placeOf(followedBy(document.view.follow, moment.picture));
  useEffect(() => {
    if (!moment || shiftedFor.get(session().frame) === place) return;
    const frame = followedFrame(moment, document);
    update({ frame, plain: frame, picture: frame });
  }, [moment, document, place]);
}

/** The view stays where it was at first, and so does what lies on it. */
export const stopFollowing = (): void =>
  changeDocument('Let the view stay', (draft) => {
    delete draft.view.follow;
  });
