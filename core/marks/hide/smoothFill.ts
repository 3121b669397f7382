import type { Surround } from './surround';

// Called for every pixel: a look-up in the global object each time would cost more than the work.
const { ceil, floor, max, min } = Math;

/** The finest grid: larger areas are filled in coarser steps, since the filling is smooth anyway. */
const CELLS = 160;

interface Grid {
  width: number;
  height: number;
  /** Red, green, blue and weight of each cell. */
  cells: Float64Array;
}

/** Puts red, green and blue for any place of the surround, in its own pixels, into `into`. */
export type Fill = (x: number, y: number, into: Float64Array) => void;

/**
 * Continues the known pixels smoothly across the unknown ones: cells are averaged into coarser and
 * coarser grids until all is known, then refined downwards (pull–push interpolation: Gortler et al.,
 * The Lumigraph, 1996, §3.4), and relaxed towards the mean of their neighbours.
 */
export function smoothFill(surround: Surround): Fill {
  const step = max(1, ceil(max(surround.at.width, surround.at.height) / CELLS));
  const finest = gridOf(surround, step);
  const given = finest.cells.slice();
  const grids = [finest];
  for (let g = finest; g.width > 1 || g.height > 1;) {
    g = coarser(g);
    grids.push(g);
  }
  for (let i = grids.length - 2; i >= 0; i -= 1) {
    const [fine, coarse] = [grids[i], grids[i + 1]];
    if (fine && coarse) refine(fine, coarse);
  }
  relax(finest, given);
  return (x, y, into) => sample(finest, (x + 0.5) / step - 0.5, (y + 0.5) / step - 0.5, into, 0);
}

function gridOf({ pixels, known }: Surround, step: number): Grid {
  const width = ceil(pixels.width / step);
  const height = ceil(pixels.height / step);
  const cells = new Float64Array(width * height * 4);
  for (let y = 0; y < pixels.height; y += 1) {
    const row = floor(y / step) * width;
    const start = y * pixels.width;
    const line = known.subarray(start, start + pixels.width);
    for (let x = line.indexOf(1); x >= 0; x = line.indexOf(1, x)) {
      for (; line[x] === 1; x += 1)
        addTo(cells, (row + floor(x / step)) * 4, pixels.data, (start + x) * 4);
    }
  }
  return { width, height, cells: averaged(cells) };
}

/** Adds a colour to a cell, which then counts one more. */
function addTo(
  cells: Float64Array,
  to: number,
  from: Uint8ClampedArray | Float64Array,
  i: number,
): void {
  cells[to] = (cells[to] ?? 0) + (from[i] ?? 0);
  cells[to + 1] = (cells[to + 1] ?? 0) + (from[i + 1] ?? 0);
  cells[to + 2] = (cells[to + 2] ?? 0) + (from[i + 2] ?? 0);
  cells[to + 3] = (cells[to + 3] ?? 0) + 1;
}

/** Sums become means; the weight tells only whether anything is known. */
function averaged(cells: Float64Array): Float64Array {
  for (let i = 0; i < cells.length; i += 4) {
    const weight = cells[i + 3] ?? 0;
    if (weight === 0) continue;
    for (let c = 0; c < 3; c += 1) cells[i + c] = (cells[i + c] ?? 0) / weight;
    cells[i + 3] = 1;
  }
  return cells;
}

function coarser(fine: Grid): Grid {
  const width = ceil(fine.width / 2);
  const height = ceil(fine.height / 2);
  const cells = new Float64Array(width * height * 4);
  for (let y = 0; y < fine.height; y += 1) {
    for (let x = 0; x < fine.width; x += 1) {
      const from = (y * fine.width + x) * 4;
      if (fine.cells[from + 3]) addTo(cells, ((y >> 1) * width + (x >> 1)) * 4, fine.cells, from);
    }
  }
  return { width, height, cells: averaged(cells) };
}

function refine(fine: Grid, coarse: Grid): void {
  for (let y = 0; y < fine.height; y += 1) {
    for (let x = 0; x < fine.width; x += 1) {
      const to = (y * fine.width + x) * 4;
      if (fine.cells[to + 3]) continue;
      sample(coarse, (x + 0.5) / 2 - 0.5, (y + 0.5) / 2 - 0.5, fine.cells, to);
      fine.cells[to + 3] = 1;
    }
  }
}

const ROUNDS = 24;

/**
 * Unknown cells move towards the mean of their neighbours, one after the other; given ones stay. At an
 * edge a cell is its own neighbour.
 */
function relax({ width, height, cells }: Grid, given: Float64Array): void {
  const [line, last] = [width * 4, (height - 1) * width * 4];
  const runs = unknownRuns(given, line);
  for (let round = 0; round < ROUNDS; round += 1) {
    for (let n = 0; n < runs.length; n += 2) {
      const from = runs[n] ?? 0;
      relaxRun(cells, from, runs[n + 1] ?? 0, {
        left: from - (from % line),
        right: from - (from % line) + line - 4,
        north: from >= line ? -line : 0,
        south: from < last ? line : 0,
      });
    }
  }
}

/**
 * Written out, and multiplied instead of divided, since it is done half a million times a picture.
 * @param row where its first and its last cell are, and how far the rows beside it are away
 */
function relaxRun(
  cells: Float64Array,
  from: number,
  to: number,
  { left, right, north, south }: Record<'left' | 'right' | 'north' | 'south', number>,
): void {
  const west = from > left ? from - 4 : from;
  let [r, g, b] = [cells[west] ?? 0, cells[west + 1] ?? 0, cells[west + 2] ?? 0];
  for (let i = from; i < to; i += 4) {
    const east = i < right ? i + 4 : i;
    const [up, down] = [i + north, i + south];
    r = ((cells[east] ?? 0) + (cells[up] ?? 0) + (cells[down] ?? 0) + r) * 0.25;
    g = ((cells[east + 1] ?? 0) + (cells[up + 1] ?? 0) + (cells[down + 1] ?? 0) + g) * 0.25;
    b = ((cells[east + 2] ?? 0) + (cells[up + 2] ?? 0) + (cells[down + 2] ?? 0) + b) * 0.25;
    cells[i] = r;
    cells[i + 1] = g;
    cells[i + 2] = b;
  }
}

/** Where cells of one row begin to be unknown, and where they end to be so, in turns. */
function unknownRuns(given: Float64Array, line: number): number[] {
  const runs: number[] = [];
  for (let left = 0; left < given.length; left += line) {
    for (let i = left; i < left + line; i += 4) {
      if (given[i + 3]) continue;
      const from = i;
      while (i < left + line && !given[i + 3]) i += 4;
      runs.push(from, i);
    }
  }
  return runs;
}

/** Between the cells' middles colours change in a straight line; puts three numbers at `to`. */
function sample(
  { width, height, cells }: Grid,
  x: number,
  y: number,
  into: Float64Array,
  to: number,
): void {
  const cx = min(max(x, 0), width - 1);
  const cy = min(max(y, 0), height - 1);
  const x0 = floor(cx);
  const y0 = floor(cy);
  const fx = cx - x0;
  const fy = cy - y0;
  const nw = (y0 * width + x0) * 4;
  const across = x0 < width - 1 ? 4 : 0;
  const down = y0 < height - 1 ? width * 4 : 0;
  for (let c = 0; c < 3; c += 1) {
    const i = nw + c;
    into[to + c] =
      (cells[i] ?? 0) * (1 - fx) * (1 - fy) +
      (cells[i + across] ?? 0) * fx * (1 - fy) +
      (cells[i + down] ?? 0) * (1 - fx) * fy +
      (cells[i + across + down] ?? 0) * fx * fy;
  }
}
