import type { Finish } from '../finish/finish';
import type { HeldPictures } from '../values/heldPicture';
import { picturesOf, type Mark } from '../marks/registry';

/** Pixels of all pictures that a document holds: painting unpacks them. */
export const heldArea = (pictures: HeldPictures | undefined): number =>
  Object.values(pictures ?? {}).reduce((sum, { width, height }) => sum + width * height, 0);

/** What may show pictures. */
interface Showing {
  marks: readonly Mark[];
  finish?: Finish | undefined;
}

/** The keys of the pictures that marks or a watermark show. */
export function shownKeys({ marks, finish }: Showing): ReadonlySet<string> {
  const keys = new Set(marks.flatMap(picturesOf));
  const watermark = finish?.surround?.watermark?.picture;
  return watermark === undefined ? keys : keys.add(watermark);
}

/** Those of the held pictures that are shown; nothing where there are none. */
export function usedPictures(
  held: HeldPictures | undefined,
  showing: Showing,
): { pictures?: HeldPictures } {
  const used = shownKeys(showing);
  const kept = Object.entries(held ?? {}).filter(([key]) => used.has(key));
  return kept.length ? { pictures: Object.fromEntries(kept) } : {};
}
