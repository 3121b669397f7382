import { wordsOf, type RgbaPixels } from '../../raster/pixels';
import { activeIn, adjustments, amountOf, type Adjust } from './adjust';
import type { ColourMatrix, Linear } from './contract';
import { sharpen } from './sharpen';

/**
 * Adjusts a picture in place. Each step is that of the filter primitive of its name, in sRGB, and
 * is held within 0–1 as a primitive's result is; fractions are kept between them and rounded once.
 * Transparent pixels stay as they are.
 * @param pixels RGBA, row-major, width × height × 4, not premultiplied
 * @param known 1 for each pixel that others may be made of, 0 for what is hidden or not shown; all
 *   where absent
 */
export function adjustPixels(pixels: RgbaPixels, adjust: Adjust, known?: Uint8Array): void {
  const { buffer, byteOffset, length } = wordsOf(pixels);
  // Signed numbers are the fastest.
  const words = new Int32Array(buffer, byteOffset, length);
  colour(words, adjust);
  if (adjust.sharpened) sharpen(words, pixels, adjust.sharpened, known);
  const isCopy = buffer !== pixels.data.buffer;
  if (isCopy) pixels.data.set(new Uint8ClampedArray(buffer, byteOffset, 4 * length));
}

// Called for every pixel: a look-up in the global object each time would cost more than the work.
const { max, min } = Math;

/** What is done to each pixel by itself: transfers, then two matrices, then inverting, where wanted. */
function steps(adjust: Adjust) {
  const before: Linear[] = [];
  const matrices: ColourMatrix[] = [];
  let after: Linear | undefined;
  for (const name of activeIn(adjust)) {
    const { effect } = adjustments[name];
    const amount = amountOf(adjust, name) / 100;
    if (effect.by === 'matrix') matrices.push(effect.of(amount));
    if (effect.by !== 'transfer') continue;
    if (matrices.length === 0) before.push(effect.of(amount));
    else after = effect.of(amount);
  }
  return { before, matrices, after };
}

const held = (value: number): number => (value < 0 ? 0 : value > 1 ? 1 : value);

const through = (transfers: readonly Linear[], value: number): number =>
  transfers.reduce((so, { slope, intercept }) => held(so * slope + intercept), value);

function colour(words: Int32Array, adjust: Adjust): void {
  const { before, matrices, after } = steps(adjust);
  const table = Float64Array.from({ length: 256 }, (_, i) => through(before, i / 255));
  if (matrices.length === 0) return byTable(words, table);
  byMatrices(words, table, joined(matrices), after ?? { slope: 1, intercept: 0 });
}

/** Of no colour within 0–1 does it make one outside: nothing need be held. */
const staysWithin = (matrix: ColourMatrix): boolean =>
  matrix.every((value) => value >= 0) &&
  [0, 3, 6].every((i) => matrix.slice(i, i + 3).reduce((sum, v) => sum + v, 0) <= 1 + 1e-9);

/** As few as come to the same: two are one where nothing is held between them. */
function joined([first, second]: readonly ColourMatrix[]): ColourMatrix[] {
  if (!first || !second) return first ? [first] : [];
  return staysWithin(first) ? [product(second, first)] : [first, second];
}

function product(second: ColourMatrix, [a, b, c, d, e, f, g, h, k]: ColourMatrix): ColourMatrix {
  const row = (l: number, m: number, n: number) =>
    [l * a + m * d + n * g, l * b + m * e + n * h, l * c + m * f + n * k] as const;
  const [l, m, n, o, p, q, s, t, u] = second;
  return [...row(l, m, n), ...row(o, p, q), ...row(s, t, u)];
}

const times = ([a, b, c, d, e, f, g, h, k]: ColourMatrix, by: number): ColourMatrix => [
  ...([a * by, b * by, c * by] as const),
  ...([d * by, e * by, f * by] as const),
  ...([g * by, h * by, k * by] as const),
];

function byTable(words: Int32Array, table: Float64Array): void {
  const bytes = Uint8Array.from(table, (value) => Math.floor(value * 255 + 0.5));
  if (bytes.every((value, i) => value === 255 - i)) return turnOver(words);
  for (let i = 0; i < words.length; i += 1) {
    const word = words[i] as number;
    if (word >>> 24 === 0) continue;
    words[i] =
      (word & 0xff000000) |
      ((bytes[(word >> 16) & 255] as number) << 16) |
      ((bytes[(word >> 8) & 255] as number) << 8) |
      (bytes[word & 255] as number);
  }
}

/** Wholly inverted, three bytes at once. */
function turnOver(words: Int32Array): void {
  for (let i = 0; i < words.length; i += 1) {
    const word = words[i] as number;
    if (word >>> 24 !== 0) words[i] = word ^ 0xffffff;
  }
}

/** Rounds; a little more, for fractions that a product misses by its last bit. */
const HALF = 0.5 + 1e-9;

const same: ColourMatrix = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** Eight million pixels go through this: nothing is called, and a run of one colour is made once. */
function byMatrices(
  words: Int32Array,
  table: Float64Array,
  [first = same, second = same]: readonly ColourMatrix[],
  { slope, intercept }: Linear,
): void {
  const two = second !== same;
  // Where nothing is to be held, what comes after is part of the matrix.
  const straight = !two && staysWithin(first);
  const scale = straight ? 255 * slope : 1;
  const from = 255 * intercept + HALF;
  const [a, b, c, d, e, f, g, h, k] = times(first, scale);
  const [l, m, n, o, p, q, s, t, u] = second;
  let last = 0;
  let made = 0;
  for (let i = 0; i < words.length; i += 1) {
    const word = words[i] as number;
    if (word >>> 24 === 0) continue;
    if (word !== last) {
      last = word;
      const x = table[word & 255] as number;
      const y = table[(word >> 8) & 255] as number;
      const z = table[(word >> 16) & 255] as number;
      let red = a * x + b * y + c * z;
      let green = d * x + e * y + f * z;
      let blue = g * x + h * y + k * z;
      if (!straight) {
        red = min(max(red, 0), 1);
        green = min(max(green, 0), 1);
        blue = min(max(blue, 0), 1);
        if (two) {
          const [r, v, w] = [red, green, blue];
          red = min(max(l * r + m * v + n * w, 0), 1);
          green = min(max(o * r + p * v + q * w, 0), 1);
          blue = min(max(s * r + t * v + u * w, 0), 1);
        }
        red *= 255 * slope;
        green *= 255 * slope;
        blue *= 255 * slope;
      }
      // Within 0–255 before and after: cutting off is rounding down.
      made = (word & 0xff000000) | ((blue + from) << 16) | ((green + from) << 8) | (red + from);
    }
    words[i] = made;
  }
}
