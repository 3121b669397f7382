/**
 * How many letters are typed wrongly, left out, put in or swapped with the next one to make one word
 * of another (optimal string alignment; F. J. Damerau, A technique for computer detection and
 * correction of spelling errors, CACM 7 (1964)).
 */
export function editDistance(a: string, b: string): number {
  let before: number[] = [];
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i += 1) {
    const next = [i];
    for (let j = 1; j <= b.length; j += 1) {
      const same = a[i - 1] === b[j - 1];
      let best = Math.min(
        (row[j] ?? 0) + 1,
        (next[j - 1] ?? 0) + 1,
        (row[j - 1] ?? 0) + Number(!same),
      );
      const swapped = i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1];
      if (swapped) best = Math.min(best, (before[j - 2] ?? 0) + 1);
      next.push(best);
    }
    [before, row] = [row, next];
  }
  return row[b.length] ?? 0;
}

/** The word that differs least from a mistyped one, if it does so by little; the first of several. */
export function nearest(typed: string, words: readonly string[]): string | null {
  const most = typed.length < 6 ? 1 : 2;
  let best: { word: string; distance: number } | null = null;
  for (const word of words) {
    const distance = editDistance(typed, word);
    if (distance <= most && (!best || distance < best.distance)) best = { word, distance };
  }
  return best?.word ?? null;
}
