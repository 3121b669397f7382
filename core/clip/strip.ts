import { isIn } from '../values/stretch';
import { keptStretches, type Cuts } from './cuts';

/** Small pictures of a film, side by side: how many, and how high each is, pixels. */
export const STRIP = { pictures: 12, height: 90 } as const;

/** Which picture of a film stands at a place of its strip. @param count of its pictures */
export const stripPicture = (place: number, count: number): number =>
  Math.floor(((place + 0.5) * count) / STRIP.pictures);

/**
 * Where in its strip pictures stand that are kept, to be shown in as many places one after the other.
 * @param count of the film's pictures
 * @returns null where none of them is kept
 */
export function keptPlaces(cuts: Cuts, count: number): number[] | null {
  const kept = keptStretches(cuts, count);
  const isKept = (place: number) => kept.some((one) => isIn(one, stripPicture(place, count)));
  const places = Array.from({ length: STRIP.pictures }, (_, place) => place).filter(isKept);
  if (places.length === 0) return null;
  const at = (i: number): number => Math.floor(((i + 0.5) * places.length) / STRIP.pictures);
  return Array.from({ length: STRIP.pictures }, (_, i) => places[at(i)] ?? 0);
}
