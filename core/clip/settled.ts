/**
 * Pictures on which stands what a film shows for a while: the last one before each change, and the
 * very last; not the first one, nor more than so many, from all over the film.
 * @param changes numbers of pictures where something changes, in order
 * @param count of all pictures
 */
export function settledPictures(
  changes: readonly number[],
  count: number,
  most: number,
): readonly number[] {
  const all = [...new Set([...changes, count].map((at) => at - 1))].filter((at) => at > 0);
  if (all.length <= most) return all;
  // The last of them always: what there is in the end.
  return Array.from(
    { length: most },
    (_, i) => all[Math.ceil(((i + 1) * all.length) / most) - 1] ?? 0,
  );
}
