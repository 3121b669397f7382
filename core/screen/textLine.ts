import type { RgbaPixels } from '../raster/pixels';

/** Rows of a picture that one line of text stands in: top ≤ y < bottom. */
export interface TextLine {
  top: number;
  bottom: number;
}

/** A pixel this far from the ground, in any channel, is ink. */
const INK = 60;
/** Rows without ink that still belong to a line: between a letter and its dot. */
const GAP = 2;
/** What is higher is no line of text. */
const TALLEST = 90;

/**
 * The line of text at a row of a picture, by the rows that hold ink.
 * @param strip a piece of the picture around where the pointer went: as wide as the stroke
 * @param at the row of the strip that was pointed at
 * @param reach so many rows above or below it are looked at for a line, too
 * @returns null where there is none
 */
export function textLineAt(strip: RgbaPixels, at: number, reach = 8): TextLine | null {
  const inked = rowsWithInk(strip);
  const nearest = nearestInk(inked, Math.round(at), reach);
  if (nearest === null) return null;
  const edge = (step: 1 | -1): number => {
    let last = nearest;
    for (let y = nearest; y >= 0 && y < inked.length; y += step) {
      if (inked[y]) last = y;
      else if (Math.abs(y - last) > GAP) break;
    }
    return last;
  };
  const top = edge(-1);
  const bottom = edge(1) + 1;
  return bottom - top <= TALLEST && bottom - top >= 4 ? { top, bottom } : null;
}

function rowsWithInk({ data, width, height }: RgbaPixels): boolean[] {
  const ground = groundOf(data);
  return Array.from({ length: height }, (_, y) => {
    let ink = 0;
    for (let x = 0; x < width; x += 1) {
      const i = (y * width + x) * 4;
      const far = Math.max(
        Math.abs((data[i] ?? 0) - ground[0]),
        Math.abs((data[i + 1] ?? 0) - ground[1]),
        Math.abs((data[i + 2] ?? 0) - ground[2]),
      );
      if (far > INK) ink += 1;
    }
    // A row that is ink from end to end is a rule or an edge, not letters.
    return ink > 0 && ink < width * 0.9;
  });
}

/** The commonest colour, in steps of 16. */
function groundOf(data: Uint8ClampedArray): [number, number, number] {
  const counts = new Map<number, number>();
  let best = 0;
  let most = 0;
  for (let i = 0; i < data.length; i += 16) {
    const key =
      (((data[i] ?? 0) >> 4) << 8) | (((data[i + 1] ?? 0) >> 4) << 4) | ((data[i + 2] ?? 0) >> 4);
    const count = (counts.get(key) ?? 0) + 1;
    counts.set(key, count);
    if (count > most) [most, best] = [count, key];
  }
  const middle = (v: number) => (v & 15) * 16 + 8;
  return [middle(best >> 8), middle(best >> 4), middle(best)];
}

function nearestInk(inked: readonly boolean[], at: number, reach: number): number | null {
  for (let d = 0; d <= reach; d += 1) {
    if (inked[at - d]) return at - d;
    if (inked[at + d]) return at + d;
  }
  return null;
}
