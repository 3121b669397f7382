import { wordsOf, type RgbaPixels } from '../../raster/pixels';

/** Where a channel begins in a pixel that is one number. */
const CHANNELS = [0, 8, 16];

/**
 * Sharpens a picture in place: feConvolveMatrix of order 3 with preserveAlpha and edgeMode duplicate
 * (W3C, Filter Effects Module Level 1, § 9.7), its kernel the picture and `amount` times what it
 * differs by from itself softened by 1 2 1, 2 4 2, 1 2 1. A pixel that may not be known, or has no
 * colour, is read as if it were the one in the middle: it leaves no trace in those around it.
 * @param pixels RGBA, row-major, width × height × 4, not premultiplied
 * @param amount 0–2
 * @param known 1 for each pixel that others may be made of; all where absent
 */
export function sharpen(pixels: RgbaPixels, amount: number, known?: Uint8Array): void {
  const { width, height } = pixels;
  const words = wordsOf(pixels);
  /** The rows above, at and below the one that is changed, as they were. */
  let above = words.slice(0, width);
  let row = words.slice(0, width);
  for (let y = 0; y < height; y += 1) {
    const down = Math.min(y + 1, height - 1) * width;
    const below = words.slice(down, down + width);
    const rows = [above, row, below] as const;
    const seen = known && [Math.max(y - 1, 0), y, Math.min(y + 1, height - 1)];
    for (let x = 0; x < width; x += 1) {
      const middle = row[x] as number;
      if (middle >>> 24 === 0) continue;
      if (isFlat(rows, x, middle)) continue;
      const around = neighbours(rows, x, middle);
      if (known && seen) forget(around, known, seen, x, width);
      words[y * width + x] = sharper(around, middle, amount);
    }
    above = row;
    row = below;
  }
}

type Rows = readonly [Uint32Array, Uint32Array, Uint32Array];

/** Most of a screen is: nothing changes there, whatever of it is known. */
function isFlat([above, row, below]: Rows, x: number, middle: number): boolean {
  const left = x > 0 ? x - 1 : x;
  const right = x < row.length - 1 ? x + 1 : x;
  return (
    row[left] === middle &&
    row[right] === middle &&
    above[x] === middle &&
    below[x] === middle &&
    above[left] === middle &&
    above[right] === middle &&
    below[left] === middle &&
    below[right] === middle
  );
}

const around = new Uint32Array(9);

/** The nine pixels, row by row; the nearest one where there is none. */
function neighbours(rows: Rows, x: number, middle: number): Uint32Array {
  const last = rows[1].length - 1;
  for (let j = 0; j < 3; j += 1) {
    for (let i = 0; i < 3; i += 1) {
      const at = Math.min(Math.max(x + i - 1, 0), last);
      const word = (rows[j] as Uint32Array)[at] as number;
      around[j * 3 + i] = word >>> 24 === 0 ? middle : word;
    }
  }
  return around;
}

function forget(
  nine: Uint32Array,
  known: Uint8Array,
  rows: readonly number[],
  x: number,
  width: number,
): void {
  const middle = nine[4] as number;
  for (let j = 0; j < 3; j += 1) {
    for (let i = 0; i < 3; i += 1) {
      const at = Math.min(Math.max(x + i - 1, 0), width - 1);
      if (!known[(rows[j] as number) * width + at]) nine[j * 3 + i] = middle;
    }
  }
}

function sharper(nine: Uint32Array, middle: number, amount: number): number {
  let made = middle & 0xff000000;
  for (const channel of CHANNELS) {
    const own = (middle >>> channel) & 255;
    const value = Math.floor(own + amount * (own - softened(nine, channel)) + 0.5);
    made |= Math.min(Math.max(value, 0), 255) << channel;
  }
  return made >>> 0;
}

function softened(nine: Uint32Array, channel: number): number {
  const at = (i: number) => ((nine[i] as number) >>> channel) & 255;
  const corners = at(0) + at(2) + at(6) + at(8);
  return (corners + 2 * (at(1) + at(3) + at(5) + at(7)) + 4 * at(4)) / 16;
}
