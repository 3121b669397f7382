import type { Guide } from '@/core/geometry/arrange';
import type { Quad } from '@/core/geometry/homography';
import type { Point } from '@/core/geometry/point';
import type { Rect } from '@/core/geometry/rect';
import type { Mark } from '@/core/marks/registry';
import type { Candidate } from '@/core/trueUp/trueUp';
import { part } from './part';

/** What is under the hand and no step yet: changes with every move of the pointer. */
export interface LiveState {
  /** Marks as they are under the pointer now; they stand in for those in the document. */
  live: readonly Mark[];
  /** Corners clicked so far of a mark that is made by several clicks. */
  corners: readonly Point[];
  /** The frame that is drawn around marks to select them. */
  marquee: Rect | null;
  /** Lines that what is moved has snapped to. */
  guides: readonly Guide[];
  /** What is measured now, from one place to another. */
  measured: readonly [Point, Point] | null;
  /** What the last stroke may have been meant to be. */
  trueUp: { id: string; candidates: readonly Candidate[] } | null;
  /** The four corners in the frame while they are being pulled square. */
  squaring: Quad | null;
  /** The view while Crop is in hand. */
  cropping: Rect | null;
  /** What is looked at meanwhile; more than the crop once that was pulled out. */
  cropSeen: Rect | null;
  /** A crop was drawn, pulled or typed: from then on a press inside moves it. */
  cropDrawn: boolean;
  /** A part of the frame is to be brought beside the view; what of it is drawn on the map. */
  bringing: { part: Rect | null } | null;
  /** The picture is looked at as if nothing were adjusted. */
  before: boolean;
}

export const liveAtFirst: LiveState = {
  live: [],
  corners: [],
  marquee: null,
  guides: [],
  measured: null,
  trueUp: null,
  squaring: null,
  cropping: null,
  cropSeen: null,
  cropDrawn: false,
  bringing: null,
  before: false,
};

export const livePart = part<LiveState>(Object.keys(liveAtFirst));
export const useLive = livePart.use;
