/** Below this deviation boxes are too coarse (W3C, Filter Effects Module Level 1, feGaussianBlur). */
const LEAST_BOX = 2;

/** The side of the boxes: d = ⌊s · 3√(2π)/4 + ½⌋ (ibid.). */
const boxOf = (deviation: number): number =>
  Math.floor((deviation * 3 * Math.sqrt(2 * Math.PI)) / 4 + 0.5);

/** How far a blur spreads, in pixels. */
export function blurReach(deviation: number): number {
  if (deviation <= 0) return 0;
  return deviation < LEAST_BOX ? Math.ceil(3 * deviation) : Math.ceil((3 * boxOf(deviation)) / 2);
}

/** Averages of `size` values on each side together, the first of them `before` places back. */
interface Box {
  size: number;
  before: number;
}

function boxesOf(deviation: number): Box[] {
  const d = boxOf(deviation);
  const half = Math.floor(d / 2);
  if (d % 2 === 1) return [0, 1, 2].map(() => ({ size: d, before: half }));
  return [
    { size: d, before: half },
    { size: d, before: half - 1 },
    { size: d + 1, before: half },
  ];
}

function gaussOf(deviation: number): number[] {
  const reach = blurReach(deviation);
  const all = Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * deviation ** 2)),
  );
  const sum = all.reduce((total, v) => total + v, 0);
  return all.map((v) => v / sum);
}

/** Blurs a line of values, with nothing beyond its ends. */
export function blurLine(values: Float32Array, deviation: number): Float32Array {
  return blurDown(values, 1, values.length, deviation);
}

/** Blurs the columns of a plane. */
function blurDown(
  plane: Float32Array,
  width: number,
  height: number,
  deviation: number,
): Float32Array {
  if (deviation <= 0) return plane;
  if (deviation < LEAST_BOX) return weighted(plane, width, height, gaussOf(deviation));
  return boxesOf(deviation).reduce((from, box) => boxed(from, width, height, box), plane);
}

function weighted(plane: Float32Array, width: number, height: number, kernel: readonly number[]) {
  const out = new Float32Array(plane.length);
  const reach = (kernel.length - 1) / 2;
  for (let y = 0; y < height; y += 1) {
    kernel.forEach((weight, k) => {
      const from = y + k - reach;
      if (from < 0 || from >= height) return;
      for (let x = 0, to = y * width, at = from * width; x < width; x += 1, to += 1, at += 1) {
        out[to] = (out[to] ?? 0) + weight * (plane[at] ?? 0);
      }
    });
  }
  return out;
}

/** A running sum of each column, all columns at once, so that memory is read in order. */
function boxed(plane: Float32Array, width: number, height: number, { size, before }: Box) {
  const out = new Float32Array(plane.length);
  const sums = new Float64Array(width);
  const ahead = size - before - 1;
  for (let y = -ahead; y < height; y += 1) {
    const enters = y + ahead;
    if (enters < height) {
      for (let x = 0, at = enters * width; x < width; x += 1, at += 1) {
        sums[x] = (sums[x] as number) + (plane[at] as number);
      }
    }
    const leaves = y - before - 1;
    if (leaves >= 0) {
      for (let x = 0, at = leaves * width; x < width; x += 1, at += 1) {
        sums[x] = (sums[x] as number) - (plane[at] as number);
      }
    }
    if (y < 0) continue;
    for (let x = 0, at = y * width; x < width; x += 1, at += 1) {
      out[at] = (sums[x] as number) / size;
    }
  }
  return out;
}

function turned(plane: Float32Array, width: number, height: number): Float32Array {
  const out = new Float32Array(plane.length);
  const TILE = 32;
  for (let y0 = 0; y0 < height; y0 += TILE) {
    for (let x0 = 0; x0 < width; x0 += TILE) {
      const [y1, x1] = [Math.min(height, y0 + TILE), Math.min(width, x0 + TILE)];
      for (let y = y0; y < y1; y += 1) {
        for (let x = x0; x < x1; x += 1) out[x * height + y] = plane[y * width + x] as number;
      }
    }
  }
  return out;
}

/**
 * Blurs a plane of values, with nothing beyond its edges: three boxes, or for small deviations the
 * Gaussian itself (W3C, Filter Effects Module Level 1, feGaussianBlur).
 * @param plane row-major, width × height
 * @param deviation standard deviation in pixels, 0 and more
 */
export function blurPlane(
  plane: Float32Array,
  width: number,
  height: number,
  deviation: number,
): Float32Array {
  if (deviation <= 0) return plane;
  const down = blurDown(plane, width, height, deviation);
  const across = blurDown(turned(down, width, height), height, width, deviation);
  return turned(across, height, width);
}
