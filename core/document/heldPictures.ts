import type { HeldPictures } from '../values/heldPicture';
import { picturesOf, type Mark } from '../marks/registry';

/** Pixels of all pictures that a document holds: painting unpacks them. */
export const heldArea = (pictures: HeldPictures | undefined): number =>
  Object.values(pictures ?? {}).reduce((sum, { width, height }) => sum + width * height, 0);

/** The keys of the pictures that marks show. */
export const shownKeys = (marks: readonly Mark[]): ReadonlySet<string> =>
  new Set(marks.flatMap(picturesOf));

/** Those of the held pictures that are shown by some mark; nothing where there are none. */
export function usedPictures(
  held: HeldPictures | undefined,
  marks: readonly Mark[],
): { pictures?: HeldPictures } {
  const used = shownKeys(marks);
  const kept = Object.entries(held ?? {}).filter(([key]) => used.has(key));
  return kept.length ? { pictures: Object.fromEntries(kept) } : {};
}
