/**
 * How many of some items stand on one line, first to last.
 * @param widths of the items, px; 0 for one that shows nothing
 * @param room of the line, px
 * @param gap between two of them, and `more`, the width of what leads to the rest, both px
 */
export function fitting(
  widths: readonly number[],
  room: number,
  { gap, more }: { gap: number; more: number },
): number {
  let end = 0;
  let withMore = 0;
  for (const [i, width] of widths.entries()) {
    if (width > 0) end += width + (end > 0 ? gap : 0);
    if (end + gap + more <= room) withMore = i + 1;
  }
  return end <= room ? widths.length : withMore;
}
