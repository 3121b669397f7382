import type { Surround } from './surround';
import type { Fill } from './smoothFill';

// Called for every sample: a look-up in the global object each time would cost more than the work.
const { abs, max } = Math;

const MOST = 4_000;
const ROUNDS = 14;
/** A pixel this near to the plane, in 0–255, belongs to the background. */
const NEAR = 5;
/** So much of the surround must be background for a plane to be believed. */
const SHARE = 0.5;

interface Samples {
  count: number;
  x: Float64Array;
  y: Float64Array;
  /** Red, green and blue. */
  channels: readonly Float64Array[];
  weight: Float64Array;
}

/** a, b, c of a + b·x + c·y. */
type Plane = readonly [number, number, number];

/**
 * The even or evenly changing background around an area: for each channel a + b·x + c·y, fitted by
 * iteratively reweighted least squares (weights 1 ÷ distance, which goes towards the least sum of
 * distances), so that words and lines around it count for little.
 * @returns null when the surround has no such background
 */
export function planeFit(surround: Surround): Fill | null {
  const samples = spread(surround);
  if (samples.count < 8) return null;
  const far = new Float64Array(samples.count);
  let planes: Plane[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const fitted = samples.channels.map((values) => leastSquares(samples, values));
    planes = fitted.flatMap((plane) => (plane ? [plane] : []));
    if (planes.length < fitted.length) return null;
    distances(samples, planes, far);
    for (let i = 0; i < samples.count; i += 1) samples.weight[i] = 1 / max(0.5, far[i] ?? 0);
  }
  let near = 0;
  for (const distance of far) if (distance <= NEAR) near += 1;
  if (near < samples.count * SHARE) return null;
  return (x, y, into) => {
    planes.forEach(([a, b, c], channel) => (into[channel] = a + b * x + c * y));
  };
}

/** Known pixels in even steps. */
function spread({ pixels: { width, height, data }, known }: Surround): Samples {
  const step = max(1, Math.floor(Math.sqrt((width * height) / MOST)));
  const places: number[] = [];
  for (let y = 0; y < height; y += step) {
    for (let x = 0; x < width; x += step) if (known[y * width + x]) places.push(y * width + x);
  }
  const channel = (c: number) => Float64Array.from(places, (i) => data[i * 4 + c] ?? 0);
  return {
    count: places.length,
    x: Float64Array.from(places, (i) => i % width),
    y: Float64Array.from(places, (i) => Math.floor(i / width)),
    channels: [channel(0), channel(1), channel(2)],
    weight: new Float64Array(places.length).fill(1),
  };
}

/** How far each sample lies from the planes, in the channel in which it is farthest. */
function distances({ x, y, channels, count }: Samples, planes: Plane[], far: Float64Array): void {
  far.fill(0);
  channels.forEach((values, channel) => {
    const [a, b, c] = planes[channel] ?? [0, 0, 0];
    for (let i = 0; i < count; i += 1) {
      const off = abs((values[i] ?? 0) - (a + b * (x[i] ?? 0) + c * (y[i] ?? 0)));
      far[i] = max(far[i] ?? 0, off);
    }
  });
}

/** Weighted normal equations of a + b·x + c·y, solved by Cramer's rule about the mean. */
function leastSquares({ x, y, weight, count }: Samples, values: Float64Array): Plane | null {
  let [w, mx, my, mv] = [0, 0, 0, 0];
  for (let i = 0; i < count; i += 1) {
    const by = weight[i] ?? 0;
    w += by;
    mx += by * (x[i] ?? 0);
    my += by * (y[i] ?? 0);
    mv += by * (values[i] ?? 0);
  }
  if (w === 0) return null;
  [mx, my, mv] = [mx / w, my / w, mv / w];
  let [xx, xy, yy, xv, yv] = [0, 0, 0, 0, 0];
  for (let i = 0; i < count; i += 1) {
    const by = weight[i] ?? 0;
    const dx = (x[i] ?? 0) - mx;
    const dy = (y[i] ?? 0) - my;
    const dv = (values[i] ?? 0) - mv;
    xx += by * dx * dx;
    xy += by * dx * dy;
    yy += by * dy * dy;
    xv += by * dx * dv;
    yv += by * dy * dv;
  }
  const det = xx * yy - xy * xy;
  // Samples on one line tell nothing across it: the background is then taken as even that way.
  const [b, c] =
    abs(det) > 1e-6 * max(1, xx * yy)
      ? [(xv * yy - yv * xy) / det, (yv * xx - xv * xy) / det]
      : [xx > yy && xx > 0 ? xv / xx : 0, yy >= xx && yy > 0 ? yv / yy : 0];
  return [mv - b * mx - c * my, b, c];
}
