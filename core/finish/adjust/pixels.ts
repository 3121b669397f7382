import { wordsOf, type RgbaPixels } from '../../raster/pixels';
import { activeIn, adjustments, amountOf, type Adjust } from './adjust';
import type { ColourMatrix } from './contract';
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
  colour(pixels, adjust);
  if (adjust.sharpened) sharpen(pixels, adjust.sharpened / 100, known);
}

type Transfer = (value: number) => number;

const held: Transfer = (value) => (value < 0 ? 0 : value > 1 ? 1 : value);
const inTurn = (transfers: readonly Transfer[]): Transfer =>
  transfers.reduce<Transfer>((so, next) => (value) => held(next(so(value))), held);

/** What is done to each pixel by itself: transfers, then matrices, then transfers. */
function steps(adjust: Adjust) {
  const before: Transfer[] = [];
  const matrices: ColourMatrix[] = [];
  const after: Transfer[] = [];
  for (const name of activeIn(adjust)) {
    const { effect } = adjustments[name];
    const amount = amountOf(adjust, name) / 100;
    if (effect.by === 'matrix') matrices.push(effect.of(amount));
    if (effect.by === 'transfer') (matrices.length ? after : before).push(effect.of(amount));
  }
  return { before: inTurn(before), matrices, after: inTurn(after) };
}

function colour(pixels: RgbaPixels, adjust: Adjust): void {
  const { before, matrices, after } = steps(adjust);
  const table = Float64Array.from({ length: 256 }, (_, i) => before(i / 255));
  const words = wordsOf(pixels);
  // Screens are made of long runs of one colour.
  let last = 0;
  let made = 0;
  for (let i = 0; i < words.length; i += 1) {
    const word = words[i] as number;
    if (word >>> 24 === 0) continue;
    if (word !== last) {
      last = word;
      made = adjusted(word, table, matrices, after);
    }
    words[i] = made;
  }
}

/** One pixel as one number, alpha the highest byte. */
function adjusted(
  word: number,
  table: Float64Array,
  matrices: readonly ColourMatrix[],
  after: Transfer,
): number {
  let r = table[word & 255] as number;
  let g = table[(word >>> 8) & 255] as number;
  let b = table[(word >>> 16) & 255] as number;
  for (const m of matrices) {
    const red = m[0] * r + m[1] * g + m[2] * b;
    const green = m[3] * r + m[4] * g + m[5] * b;
    b = held(m[6] * r + m[7] * g + m[8] * b);
    r = held(red);
    g = held(green);
  }
  const byte = (value: number) => Math.floor(after(value) * 255 + 0.5);
  return ((word & 0xff000000) | (byte(b) << 16) | (byte(g) << 8) | byte(r)) >>> 0;
}
