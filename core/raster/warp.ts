import { isAffine, type Matrix } from '../geometry/matrix';
import type { Rect } from '../geometry/rect';
import { OPAQUE, wordsOf, type RgbaPixels } from './pixels';

// Called for every pixel: a look-up in the global object each time would cost more than the work.
const { floor, imul, min } = Math;

/** Places between two pixels that are told apart. */
const PHASE_BITS = 9;
const PHASES = 1 << PHASE_BITS;

/** Weights are whole numbers of this scale; each four add up to it exactly. */
const SCALE_BITS = 11;
const SCALE = 1 << SCALE_BITS;
/** Weights of rows and columns multiplied. */
const BOTH_BITS = 2 * SCALE_BITS;
const HALF = 1 << (BOTH_BITS - 1);

/** Catmull–Rom weights of the four pixels around a place (Keys 1981, a = −½), for every phase. */
const weights = (() => {
  const table = new Int32Array(PHASES * 4);
  for (let phase = 0; phase < PHASES; phase += 1) {
    const t = phase / PHASES;
    const exact = [
      ((-0.5 * t + 1) * t - 0.5) * t,
      (1.5 * t - 2.5) * t * t + 1,
      ((-1.5 * t + 2) * t + 0.5) * t,
      (0.5 * t - 0.5) * t * t,
    ].map((weight) => Math.round(weight * SCALE));
    const rest = SCALE - exact.reduce((sum, weight) => sum + weight, 0);
    // What rounding left over goes to the nearer of the two in the middle.
    exact[t < 0.5 ? 1 : 2] = (exact[t < 0.5 ? 1 : 2] ?? 0) + rest;
    table.set(exact, phase * 4);
  }
  return table;
})();

/**
 * A picture as a projective map shows it, resampled once by bicubic convolution. Whole pixels that
 * only change places keep their values. What lies outside the source is transparent; its edge is
 * smooth.
 * @param source RGBA, row-major, not premultiplied
 * @param toSource takes a place of the result to the place of the source that is seen there
 * @param part of the result that is worked out, whole pixels
 * @param opaque true when the source has no transparent pixel, which is faster
 */
export function warp(source: RgbaPixels, toSource: Matrix, part: Rect, opaque = false): RgbaPixels {
  const { width, height } = part;
  const data = new Uint8ClampedArray(width * height * 4);
  const [a, b, c, d, e, f, g, h, i] = toSource;
  const affine = isAffine(toSource);
  const sample = opaque ? sampleOpaque : sampleBlended;
  const from = wordsOf(source);
  const words = new Uint32Array(data.buffer);
  const [lastX, lastY] = [source.width - 2, source.height - 2];
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const px = part.x + x + 0.5;
      const py = part.y + y + 0.5;
      const w = affine ? 1 : g * px + h * py + i;
      if (w <= 0) continue;
      const sx = (a * px + b * py + c) / w;
      const sy = (d * px + e * py + f) / w;
      // How much of the pixel lies on the source, near enough.
      const inside = min(sx, sy, source.width - sx, source.height - sy) + 0.5;
      if (inside <= 0) continue;
      const fx = floor((sx - 0.5) * PHASES + 0.5);
      const fy = floor((sy - 0.5) * PHASES + 0.5);
      const x0 = fx >> PHASE_BITS;
      const y0 = fy >> PHASE_BITS;
      if (x0 > 0 && y0 > 0 && x0 < lastX && y0 < lastY) {
        const at = (y0 - 1) * source.width + x0 - 1;
        if (opaque || isSolid(from, source.width, at)) {
          words[y * width + x] = sampleInside(
            from,
            source.width,
            at,
            (fx & (PHASES - 1)) * 4,
            (fy & (PHASES - 1)) * 4,
          );
          continue;
        }
      }
      sample(source, data, (y * width + x) * 4, fx, fy, inside < 1 ? inside : 1);
    }
  }
  return { data, width, height };
}

/** Whether none of the sixteen pixels around a place is transparent; `at` is the uppermost left one. */
function isSolid(words: Uint32Array, width: number, at: number): boolean {
  let all = OPAQUE;
  for (let j = 0, o = at; j < 4; j += 1, o += width) {
    all &= (words[o] as number) & (words[o + 1] as number);
    all &= (words[o + 2] as number) & (words[o + 3] as number);
  }
  return all >>> 24 === 255;
}

/**
 * One pixel of the result as one number, from the sixteen pixels of an opaque source around a place
 * that has all of them: `at` is the uppermost left one.
 * @param wx, wy where the weights of the place begin
 */
function sampleInside(words: Uint32Array, width: number, at: number, wx: number, wy: number) {
  const wa = weights[wx] as number;
  const wb = weights[wx + 1] as number;
  const wc = weights[wx + 2] as number;
  const wd = weights[wx + 3] as number;
  let red = HALF;
  let green = HALF;
  let blue = HALF;
  for (let j = 0, o = at; j < 4; j += 1, o += width) {
    const down = weights[wy + j] as number;
    const p = words[o] as number;
    const q = words[o + 1] as number;
    const r = words[o + 2] as number;
    const s = words[o + 3] as number;
    red += imul(
      down,
      imul(wa, p & 255) + imul(wb, q & 255) + imul(wc, r & 255) + imul(wd, s & 255),
    );
    green += imul(
      down,
      imul(wa, (p >>> 8) & 255) +
        imul(wb, (q >>> 8) & 255) +
        imul(wc, (r >>> 8) & 255) +
        imul(wd, (s >>> 8) & 255),
    );
    blue += imul(
      down,
      imul(wa, (p >>> 16) & 255) +
        imul(wb, (q >>> 16) & 255) +
        imul(wc, (r >>> 16) & 255) +
        imul(wd, (s >>> 16) & 255),
    );
  }
  const r = clamped(red >> BOTH_BITS);
  const g = clamped(green >> BOTH_BITS);
  const b = clamped(blue >> BOTH_BITS);
  return OPAQUE | (b << 16) | (g << 8) | r;
}

const clamped = (v: number): number => (v < 0 ? 0 : v > 255 ? 255 : v);

type Sample = (
  source: RgbaPixels,
  out: Uint8ClampedArray,
  to: number,
  fx: number,
  fy: number,
  share: number,
) => void;

/** One pixel of the result, at `to`, from the place fx, fy of an opaque source, in phases of a pixel. */
const sampleOpaque: Sample = (source, out, to, fx, fy, share) => {
  const { data, width } = source;
  const lastColumn = width - 1;
  const lastRow = source.height - 1;
  const x0 = fx >> PHASE_BITS;
  const y0 = fy >> PHASE_BITS;
  const wx = (fx & (PHASES - 1)) * 4;
  const wy = (fy & (PHASES - 1)) * 4;
  out[to + 3] = share * 255;
  if (wx === 0 && wy === 0) {
    const at = (within(y0, lastRow) * width + within(x0, lastColumn)) * 4;
    out[to] = data[at] ?? 0;
    out[to + 1] = data[at + 1] ?? 0;
    out[to + 2] = data[at + 2] ?? 0;
    return;
  }
  const a = within(x0 - 1, lastColumn) * 4;
  const b = within(x0, lastColumn) * 4;
  const c = within(x0 + 1, lastColumn) * 4;
  const d = within(x0 + 2, lastColumn) * 4;
  const wa = weights[wx] ?? 0;
  const wb = weights[wx + 1] ?? 0;
  const wc = weights[wx + 2] ?? 0;
  const wd = weights[wx + 3] ?? 0;
  let red = 0;
  let green = 0;
  let blue = 0;
  for (let j = 0; j < 4; j += 1) {
    const row = within(y0 + j - 1, lastRow) * width * 4;
    const down = weights[wy + j] ?? 0;
    const ra = row + a;
    const rb = row + b;
    const rc = row + c;
    const rd = row + d;
    red +=
      down *
      (wa * (data[ra] ?? 0) + wb * (data[rb] ?? 0) + wc * (data[rc] ?? 0) + wd * (data[rd] ?? 0));
    green +=
      down *
      (wa * (data[ra + 1] ?? 0) +
        wb * (data[rb + 1] ?? 0) +
        wc * (data[rc + 1] ?? 0) +
        wd * (data[rd + 1] ?? 0));
    blue +=
      down *
      (wa * (data[ra + 2] ?? 0) +
        wb * (data[rb + 2] ?? 0) +
        wc * (data[rc + 2] ?? 0) +
        wd * (data[rd + 2] ?? 0));
  }
  out[to] = (red + HALF) >> BOTH_BITS;
  out[to + 1] = (green + HALF) >> BOTH_BITS;
  out[to + 2] = (blue + HALF) >> BOTH_BITS;
};

/** The same of premultiplied values, so that the colour of transparent pixels does not show. */
const sampleBlended: Sample = (source, out, to, fx, fy, share) => {
  const { data, width } = source;
  const lastColumn = width - 1;
  const lastRow = source.height - 1;
  const x0 = fx >> PHASE_BITS;
  const y0 = fy >> PHASE_BITS;
  const wx = (fx & (PHASES - 1)) * 4;
  const wy = (fy & (PHASES - 1)) * 4;
  let red = 0;
  let green = 0;
  let blue = 0;
  let alpha = 0;
  for (let j = 0; j < 4; j += 1) {
    const down = weights[wy + j] ?? 0;
    if (down === 0) continue;
    const row = within(y0 + j - 1, lastRow) * width;
    for (let k = 0; k < 4; k += 1) {
      const at = (row + within(x0 + k - 1, lastColumn)) * 4;
      const weight = down * (weights[wx + k] ?? 0) * (data[at + 3] ?? 0);
      red += weight * (data[at] ?? 0);
      green += weight * (data[at + 1] ?? 0);
      blue += weight * (data[at + 2] ?? 0);
      alpha += weight;
    }
  }
  if (alpha <= 0) return;
  out[to] = red / alpha;
  out[to + 1] = green / alpha;
  out[to + 2] = blue / alpha;
  out[to + 3] = (alpha * share) / (SCALE * SCALE);
};

/** A row or column that exists: outside the picture its edge is repeated. */
const within = (at: number, last: number): number => (at < 0 ? 0 : at > last ? last : at);
