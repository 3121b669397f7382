import type { Size } from '../../geometry/size';

/** Where a channel begins in a pixel that is one number. */
const CHANNELS = [0, 8, 16];

/**
 * Sharpens a picture in place: feConvolveMatrix of order 3 with preserveAlpha and edgeMode duplicate
 * (W3C, Filter Effects Module Level 1, § 9), its kernel the picture and so much of what it
 * differs by from itself softened by 1 2 1, 2 4 2, 1 2 1. A pixel that may not be known, or has no
 * colour, is read as if it were the one in the middle: it leaves no trace in those around it.
 * @param words its pixels as one number each, as `wordsOf` has them, but signed
 * @param percent 0–200
 * @param known 1 for each pixel that others may be made of; all where absent
 */
export function sharpen(
  words: Int32Array,
  { width, height }: Size,
  percent: number,
  known?: Uint8Array,
): void {
  const rowAt = (y: number): Row => {
    const from = Math.min(y, height - 1) * width;
    return readRow(words.slice(from, from + width), known?.subarray(from, from + width));
  };
  const added = addedBy(percent);
  let row = rowAt(0);
  let above = row;
  for (let y = 0; y < height; y += 1) {
    const below = rowAt(y + 1);
    const to = words.subarray(y * width, (y + 1) * width);
    if (above.whole && row.whole && below.whole) sharpenWhole(to, [above, row, below], added);
    else sharpenKnown(to, [above, row, below], added);
    above = row;
    row = below;
  }
}

/** Rounds; a little more, for fractions that a product misses by its last bit. */
const HALF = 0.5 + 1e-9;
/** The most by which sixteen times a value differs from what it is softened to, both ways. */
const MOST = 16 * 255;

/** The most that is added to a value, and taken from it, at 200 %. */
const FAR = (MOST * 200) / 1600;
/** A value held within 0–255, looked up from -FAR on: in grain no processor guesses which way it goes. */
const held = Uint8ClampedArray.from({ length: 256 + 2 * FAR }, (_, i) => i - FAR);

/** What is added to a value, by sixteen times what it differs by; the first is for -MOST. */
const addedBy = (percent: number): Int16Array =>
  Int16Array.from({ length: 2 * MOST + 1 }, (_, i) =>
    Math.floor(((i - MOST) * percent) / 1600 + HALF),
  );

/** A row as it was. */
interface Row {
  words: Int32Array;
  known: Uint8Array | undefined;
  /** Every pixel may be known and has a colour. */
  whole: boolean;
}

function readRow(words: Int32Array, known: Uint8Array | undefined): Row {
  let whole = !known?.includes(0);
  for (let x = 0; whole && x < words.length; x += 1) whole = (words[x] as number) >>> 24 !== 0;
  return { words, known, whole };
}

/**
 * Where all may be known. Each column is softened by 1 2 1, and these three at a time once more;
 * red lies in the lower half of a number and blue in the upper one: no sum of these is too large.
 */
function sharpenWhole(to: Int32Array, [above, row, below]: Rows, added: Int16Array): void {
  const [over, own, under] = [above.words, row.words, below.words];
  const last = to.length - 1;
  let [a, o, u] = [over[0] as number, own[0] as number, under[0] as number];
  let redBlue = (a & 0xff00ff) + 2 * (o & 0xff00ff) + (u & 0xff00ff);
  let green = ((a >> 8) & 255) + 2 * ((o >> 8) & 255) + ((u >> 8) & 255);
  let [leftRedBlue, leftGreen] = [redBlue, green];
  for (let x = 0; x <= last; x += 1) {
    const middle = o;
    const next = x < last ? x + 1 : last;
    a = over[next] as number;
    o = own[next] as number;
    u = under[next] as number;
    const nextRedBlue = (a & 0xff00ff) + 2 * (o & 0xff00ff) + (u & 0xff00ff);
    const nextGreen = ((a >> 8) & 255) + 2 * ((o >> 8) & 255) + ((u >> 8) & 255);
    const softRedBlue = leftRedBlue + 2 * redBlue + nextRedBlue;
    const softGreen = leftGreen + 2 * green + nextGreen;
    leftRedBlue = redBlue;
    leftGreen = green;
    redBlue = nextRedBlue;
    green = nextGreen;
    const r = middle & 255;
    const g = (middle >> 8) & 255;
    const b = (middle >> 16) & 255;
    const reddish = r + (added[16 * r - (softRedBlue & 0xffff) + MOST] as number);
    const greenish = g + (added[16 * g - softGreen + MOST] as number);
    const bluish = b + (added[16 * b - (softRedBlue >> 16) + MOST] as number);
    to[x] =
      (middle & 0xff000000) |
      ((held[bluish + FAR] as number) << 16) |
      ((held[greenish + FAR] as number) << 8) |
      (held[reddish + FAR] as number);
  }
}

type Rows = readonly [Row, Row, Row];

function sharpenKnown(to: Int32Array, rows: Rows, added: Int16Array): void {
  for (let x = 0; x < to.length; x += 1) {
    const middle = rows[1].words[x] as number;
    if (middle >>> 24 !== 0) to[x] = sharper(neighbours(rows, x, middle), middle, added);
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

function sharper(nine: Int32Array, middle: number, added: Int16Array): number {
  let made = middle & 0xff000000;
  for (const channel of CHANNELS) {
    const own = (middle >>> channel) & 255;
    const value = own + (added[16 * own - softened(nine, channel) + MOST] as number);
    made |= (held[value + FAR] as number) << channel;
  }
  return made;
}

/** Sixteen times what it is softened to. */
function softened(nine: Int32Array, channel: number): number {
  const at = (i: number) => ((nine[i] as number) >>> channel) & 255;
  const corners = at(0) + at(2) + at(6) + at(8);
  return corners + 2 * (at(1) + at(3) + at(5) + at(7)) + 4 * at(4);
}
