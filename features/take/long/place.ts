import { centre, contains, type Rect } from '@/core/geometry/rect';
import { windowPlace } from '@/core/region/windowChoice';
import { scrolledThing } from '@/core/stitch/area';
import { findPartsIn } from '../../pictures/parts';
import { onPicture, type Stilled } from '../sources/contract';
import type { Watched } from './state';

/** Where no windows are known they are looked for in the picture. */
async function thingOf({ picture }: Stilled, part: Rect): Promise<Rect> {
  const whole = { x: 0, y: 0, width: picture.width, height: picture.height };
  const boxes = await findPartsIn(picture).catch(() => []);
  return scrolledThing(part, [...boxes, whole]);
}

const WHOLE = { border: true, margin: 0 };

/** What holds the part that is scrolled. */
export async function thingToWatch(stilled: Stilled, part: Rect): Promise<Watched> {
  const middle = centre(part);
  const window = stilled.windows?.findLast((w) => contains(w.frameBounds ?? w.bounds, middle));
  return window
    ? { place: windowPlace(window, WHOLE), window }
    : { place: await thingOf(stilled, part), window: null };
}

/** Where what is watched lies now: on a picture of it, and `at` on the stilled one. */
export async function seenOf(stilled: Stilled, { place, window }: Watched) {
  if (!window) return { picture: stilled.picture, place, at: place, isOwn: false };
  const now = stilled.windows?.find((w) => w.id === window.id);
  if (!now) throw new Amiss('The window is gone. Enter takes what was had of it.');
  const own = await stilled.ofWindow?.(window.id).catch(() => null);
  const there = windowPlace(now, WHOLE);
  return own
    ? { picture: own.picture, place: onPicture(there, own.origin), at: there, isOwn: true }
    : { picture: stilled.picture, place: there, at: there, isOwn: false };
}

/** Something that keeps it from being watched, in words; it may pass. */
export class Amiss extends Error {}
