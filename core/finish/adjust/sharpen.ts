import type { Size } from '../../geometry/size';

/** Where a channel begins in a pixel that is one number. */
const CHANNELS = [0, 8, 16];

/**
 * Sharpens a picture in place: feConvolveMatrix of order 3 with preserveAlpha and edgeMode duplicate
 * (W3C, Filter Effects Module Level 1, § 9), its kernel the picture and `amount` times what it
 * differs by from itself softened by 1 2 1, 2 4 2, 1 2 1. A pixel that may not be known, or has no
 * colour, is read as if it were the one in the middle: it leaves no trace in those around it.
 * @param words its pixels as one number each, as `wordsOf` has them, but signed
 * @param amount 0–2
 * @param known 1 for each pixel that others may be made of; all where absent
 */
export function sharpen(
  words: Int32Array,
  { width, height }: Size,
  amount: number,
  known?: Uint8Array,
): void {
  const rowAt = (y: number): Row => {
    const from = Math.min(y, height - 1) * width;
    return readRow(words.slice(from, from + width), known?.subarray(from, from + width));
  };
  let row = rowAt(0);
  let above = row;
  for (let y = 0; y < height; y += 1) {
    const below = rowAt(y + 1);
    const to = words.subarray(y * width, (y + 1) * width);
    if (above.whole && row.whole && below.whole) sharpenWhole(to, above, row, below, amount);
    else sharpenKnown(to, [above, row, below], amount);
    above = row;
    row = below;
  }
}

/** A row as it was, with each pixel and the two beside it softened by 1 2 1. */
interface Row {
  words: Int32Array;
  known: Uint8Array | undefined;
  /** Every pixel may be known and has a colour. */
  whole: boolean;
  /** Red in the lower half of a number and blue in the upper one: no sum of these is too large. */
  redBlue: Int32Array;
  green: Int32Array;
}

function readRow(words: Int32Array, known: Uint8Array | undefined): Row {
  const { length } = words;
  const redBlue = new Int32Array(length);
  const green = new Int32Array(length);
  let whole = true;
  let left = words[0] as number;
  for (let x = 0; x < length; x += 1) {
    const own = words[x] as number;
    const right = words[x + 1] ?? own;
    if (own >>> 24 === 0 || known?.[x] === 0) whole = false;
    redBlue[x] = (left & 0xff00ff) + 2 * (own & 0xff00ff) + (right & 0xff00ff);
    green[x] = ((left >> 8) & 255) + 2 * ((own >> 8) & 255) + ((right >> 8) & 255);
    left = own;
  }
  return { words, known, whole, redBlue, green };
}

/** Where all may be known: the softened rows are softened once more, from above to below. */
function sharpenWhole(to: Int32Array, above: Row, row: Row, below: Row, amount: number): void {
  for (let x = 0; x < to.length; x += 1) {
    const own = row.words[x] as number;
    const redBlue =
      (above.redBlue[x] as number) + 2 * (row.redBlue[x] as number) + (below.redBlue[x] as number);
    const green =
      (above.green[x] as number) + 2 * (row.green[x] as number) + (below.green[x] as number);
    const r = own & 255;
    const g = (own >> 8) & 255;
    const b = (own >> 16) & 255;
    const red = r + amount * (r - (redBlue & 0xffff) / 16) + 0.5;
    const middle = g + amount * (g - green / 16) + 0.5;
    const blue = b + amount * (b - (redBlue >> 16) / 16) + 0.5;
    to[x] =
      (own & 0xff000000) |
      ((blue < 0 ? 0 : blue > 255 ? 255 : blue) << 16) |
      ((middle < 0 ? 0 : middle > 255 ? 255 : middle) << 8) |
      (red < 0 ? 0 : red > 255 ? 255 : red);
  }
}

type Rows = readonly [Row, Row, Row];

function sharpenKnown(to: Int32Array, rows: Rows, amount: number): void {
  for (let x = 0; x < to.length; x += 1) {
    const middle = rows[1].words[x] as number;
    if (middle >>> 24 !== 0) to[x] = sharper(neighbours(rows, x, middle), middle, amount);
  }
}

const around = new Int32Array(9);

/** The nine pixels, row by row; the nearest one where there is none, the middle for the unknown. */
function neighbours(rows: Rows, x: number, middle: number): Int32Array {
  const last = rows[1].words.length - 1;
  for (let j = 0; j < 3; j += 1) {
    const { words, known } = rows[j] as Row;
    for (let i = 0; i < 3; i += 1) {
      const at = Math.min(Math.max(x + i - 1, 0), last);
      const word = words[at] as number;
      around[j * 3 + i] = word >>> 24 === 0 || known?.[at] === 0 ? middle : word;
    }
  }
  return around;
}

function sharper(nine: Int32Array, middle: number, amount: number): number {
  let made = middle & 0xff000000;
  for (const channel of CHANNELS) {
    const own = (middle >>> channel) & 255;
    const value = Math.floor(own + amount * (own - softened(nine, channel)) + 0.5);
    made |= Math.min(Math.max(value, 0), 255) << channel;
  }
  return made;
}

function softened(nine: Int32Array, channel: number): number {
  const at = (i: number) => ((nine[i] as number) >>> channel) & 255;
  const corners = at(0) + at(2) + at(6) + at(8);
  return (corners + 2 * (at(1) + at(3) + at(5) + at(7)) + 4 * at(4)) / 16;
}
