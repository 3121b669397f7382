import type { Colour3, Surround } from './surround';
import type { Fill } from './smoothFill';

const MOST = 4_000;
const ROUNDS = 14;
/** A pixel this near to the plane, in 0–255, belongs to the background. */
const NEAR = 5;
/** So much of the surround must be background for a plane to be believed. */
const SHARE = 0.5;

interface Sample {
  x: number;
  y: number;
  colour: Colour3;
  weight: number;
}

/**
 * The even or evenly changing background around an area: for each channel a + b·x + c·y, fitted by
 * iteratively reweighted least squares (weights 1 ÷ distance, which goes towards the least sum of
 * distances), so that words and lines around it count for little.
 * @returns null when the surround has no such background
 */
export function planeFit({ pixels, known }: Surround): Fill | null {
  const samples = spread(pixels.width, pixels.height, pixels.data, known);
  if (samples.length < 8) return null;
  let plane: number[][] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const fitted = [0, 1, 2].map((c) => leastSquares(samples, c));
    if (fitted.some((f) => f === null)) return null;
    plane = fitted.flatMap((f) => (f ? [f] : []));
    for (const s of samples) s.weight = 1 / Math.max(0.5, farthest(plane, s));
  }
  const near = samples.filter((s) => farthest(plane, s) <= NEAR).length;
  if (near < samples.length * SHARE) return null;
  return (x, y) => {
    const at = (c: number) => valueOf(plane[c], x, y);
    return [at(0), at(1), at(2)];
  };
}

function spread(
  width: number,
  height: number,
  data: Uint8ClampedArray,
  known: Uint8Array,
): Sample[] {
  const step = Math.max(1, Math.floor(Math.sqrt((width * height) / MOST)));
  const samples: Sample[] = [];
  for (let y = 0; y < height; y += step) {
    for (let x = 0; x < width; x += step) {
      const i = y * width + x;
      if (!known[i]) continue;
      const colour: Colour3 = [data[i * 4] ?? 0, data[i * 4 + 1] ?? 0, data[i * 4 + 2] ?? 0];
      samples.push({ x, y, colour, weight: 1 });
    }
  }
  return samples;
}

const valueOf = (p: readonly number[] | undefined, x: number, y: number): number =>
  (p?.[0] ?? 0) + (p?.[1] ?? 0) * x + (p?.[2] ?? 0) * y;

const farthest = (plane: readonly number[][], s: Sample): number =>
  Math.max(...s.colour.map((v, c) => Math.abs(v - valueOf(plane[c], s.x, s.y))));

/** Weighted normal equations of a + b·x + c·y, solved by Cramer's rule about the mean. */
function leastSquares(samples: readonly Sample[], channel: number): number[] | null {
  let [w, mx, my, mv] = [0, 0, 0, 0];
  for (const s of samples) {
    w += s.weight;
    mx += s.weight * s.x;
    my += s.weight * s.y;
    mv += s.weight * (s.colour[channel] ?? 0);
  }
  if (w === 0) return null;
  [mx, my, mv] = [mx / w, my / w, mv / w];
  let [xx, xy, yy, xv, yv] = [0, 0, 0, 0, 0];
  for (const s of samples) {
    const [dx, dy, dv] = [s.x - mx, s.y - my, (s.colour[channel] ?? 0) - mv];
    xx += s.weight * dx * dx;
    xy += s.weight * dx * dy;
    yy += s.weight * dy * dy;
    xv += s.weight * dx * dv;
    yv += s.weight * dy * dv;
  }
  const det = xx * yy - xy * xy;
  // Samples on one line tell nothing across it: the background is then taken as even that way.
  const [b, c] =
    Math.abs(det) > 1e-6 * Math.max(1, xx * yy)
      ? [(xv * yy - yv * xy) / det, (yv * xx - xv * xy) / det]
      : [xx > yy && xx > 0 ? xv / xx : 0, yy >= xx && yy > 0 ? yv / yy : 0];
  return [mv - b * mx - c * my, b, c];
}
