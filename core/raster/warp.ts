import { isAffine, type Matrix } from '../geometry/matrix';
import type { RgbaPixels } from './pixels';

/** Places between two pixels that are told apart. */
const PHASES = 512;

/** Catmull–Rom weights of the four pixels around a place (Keys 1981, a = −½), for every phase. */
const weights = (() => {
  const table = new Float32Array(PHASES * 4);
  for (let phase = 0; phase < PHASES; phase += 1) {
    const t = phase / PHASES;
    table[phase * 4] = ((-0.5 * t + 1) * t - 0.5) * t;
    table[phase * 4 + 1] = (1.5 * t - 2.5) * t * t + 1;
    table[phase * 4 + 2] = ((-1.5 * t + 2) * t + 0.5) * t;
    table[phase * 4 + 3] = (0.5 * t - 0.5) * t * t;
  }
  return table;
})();

/**
 * A picture as a projective map shows it, resampled once by bicubic convolution. Whole pixels that
 * only change places keep their values. What lies outside the source is transparent; its edge is
 * smooth.
 * @param source RGBA, row-major, not premultiplied
 * @param toSource takes a place of the result to the place of the source that is seen there
 * @param opaque true when the source has no transparent pixel, which is faster
 */
export function warp(
  source: RgbaPixels,
  toSource: Matrix,
  width: number,
  height: number,
  opaque = false,
): RgbaPixels {
  const data = new Uint8ClampedArray(width * height * 4);
  const [a, b, c, d, e, f, g, h, i] = toSource;
  const affine = isAffine(toSource);
  const sample = opaque ? opaqueSampler(source, data) : sampler(source, data);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const px = x + 0.5;
      const py = y + 0.5;
      const w = affine ? 1 : g * px + h * py + i;
      if (w <= 0) continue;
      const sx = (a * px + b * py + c) / w;
      const sy = (d * px + e * py + f) / w;
      // How much of the pixel lies on the source, near enough.
      const inside = Math.min(sx, sy, source.width - sx, source.height - sy) + 0.5;
      if (inside > 0) sample((y * width + x) * 4, sx - 0.5, sy - 0.5, Math.min(1, inside));
    }
  }
  return { data, width, height };
}

type Sampler = (to: number, x: number, y: number, share: number) => void;

/** Rounds a place to a phase; returns the pixel before it and the phase, in one number each. */
const phaseOf = (at: number): number => Math.round(at * PHASES);

function opaqueSampler({ data, width, height }: RgbaPixels, out: Uint8ClampedArray): Sampler {
  const columns = new Int32Array(4);
  return (to, x, y, share) => {
    const [fx, fy] = [phaseOf(x), phaseOf(y)];
    const [x0, y0] = [Math.floor(fx / PHASES), Math.floor(fy / PHASES)];
    const [wx, wy] = [(fx - x0 * PHASES) * 4, (fy - y0 * PHASES) * 4];
    out[to + 3] = share * 255;
    if (wx === 0 && wy === 0) {
      const at = (clamp(y0, height) * width + clamp(x0, width)) * 4;
      out[to] = data[at] ?? 0;
      out[to + 1] = data[at + 1] ?? 0;
      out[to + 2] = data[at + 2] ?? 0;
      return;
    }
    for (let k = 0; k < 4; k += 1) columns[k] = clamp(x0 + k - 1, width) * 4;
    let [r, gr, bl] = [0, 0, 0];
    for (let j = 0; j < 4; j += 1) {
      const row = clamp(y0 + j - 1, height) * width * 4;
      const down = weights[wy + j] ?? 0;
      for (let k = 0; k < 4; k += 1) {
        const at = row + (columns[k] ?? 0);
        const weight = down * (weights[wx + k] ?? 0);
        r += weight * (data[at] ?? 0);
        gr += weight * (data[at + 1] ?? 0);
        bl += weight * (data[at + 2] ?? 0);
      }
    }
    out[to] = r;
    out[to + 1] = gr;
    out[to + 2] = bl;
  };
}

/** The same of premultiplied values, so that the colour of transparent pixels does not show. */
function sampler({ data, width, height }: RgbaPixels, out: Uint8ClampedArray): Sampler {
  return (to, x, y, share) => {
    const [fx, fy] = [phaseOf(x), phaseOf(y)];
    const [x0, y0] = [Math.floor(fx / PHASES), Math.floor(fy / PHASES)];
    const [wx, wy] = [(fx - x0 * PHASES) * 4, (fy - y0 * PHASES) * 4];
    let [r, gr, bl, alpha] = [0, 0, 0, 0];
    for (let j = 0; j < 4; j += 1) {
      const row = clamp(y0 + j - 1, height) * width;
      const down = weights[wy + j] ?? 0;
      if (down === 0) continue;
      for (let k = 0; k < 4; k += 1) {
        const at = (row + clamp(x0 + k - 1, width)) * 4;
        const weight = down * (weights[wx + k] ?? 0) * (data[at + 3] ?? 0);
        r += weight * (data[at] ?? 0);
        gr += weight * (data[at + 1] ?? 0);
        bl += weight * (data[at + 2] ?? 0);
        alpha += weight;
      }
    }
    if (alpha <= 0) return;
    out[to] = r / alpha;
    out[to + 1] = gr / alpha;
    out[to + 2] = bl / alpha;
    out[to + 3] = alpha * share;
  };
}

const clamp = (at: number, length: number): number => (at < 0 ? 0 : at >= length ? length - 1 : at);
