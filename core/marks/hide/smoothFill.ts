import type { Colour3, Surround } from './surround';

/** The finest grid: larger areas are filled in coarser steps, since the filling is smooth anyway. */
const CELLS = 160;

interface Grid {
  width: number;
  height: number;
  /** Red, green, blue and weight of each cell. */
  cells: Float64Array;
}

/** A colour for any place of the surround, in its own pixels. */
export type Fill = (x: number, y: number) => Colour3;

/**
 * Continues the known pixels smoothly across the unknown ones: cells are averaged into coarser and
 * coarser grids until all is known, then refined downwards (pull–push interpolation: Gortler et al.,
 * The Lumigraph, 1996, §3.4), and relaxed towards the mean of their neighbours.
 */
export function smoothFill(surround: Surround): Fill {
  const step = Math.max(1, Math.ceil(Math.max(surround.at.width, surround.at.height) / CELLS));
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
  return (x, y) => sample(finest, (x + 0.5) / step - 0.5, (y + 0.5) / step - 0.5);
}

function gridOf({ pixels, known }: Surround, step: number): Grid {
  const width = Math.ceil(pixels.width / step);
  const height = Math.ceil(pixels.height / step);
  const cells = new Float64Array(width * height * 4);
  for (let y = 0; y < pixels.height; y += 1) {
    const row = Math.floor(y / step) * width;
    for (let x = 0; x < pixels.width; x += 1) {
      const i = y * pixels.width + x;
      if (!known[i]) continue;
      const to = (row + Math.floor(x / step)) * 4;
      for (let c = 0; c < 3; c += 1) {
        cells[to + c] = (cells[to + c] ?? 0) + (pixels.data[i * 4 + c] ?? 0);
      }
      cells[to + 3] = (cells[to + 3] ?? 0) + 1;
    }
  }
  return { width, height, cells: averaged(cells) };
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
  const width = Math.ceil(fine.width / 2);
  const height = Math.ceil(fine.height / 2);
  const cells = new Float64Array(width * height * 4);
  for (let y = 0; y < fine.height; y += 1) {
    for (let x = 0; x < fine.width; x += 1) {
      const from = (y * fine.width + x) * 4;
      if (!fine.cells[from + 3]) continue;
      const to = ((y >> 1) * width + (x >> 1)) * 4;
      for (let c = 0; c < 3; c += 1) {
        cells[to + c] = (cells[to + c] ?? 0) + (fine.cells[from + c] ?? 0);
      }
      cells[to + 3] = (cells[to + 3] ?? 0) + 1;
    }
  }
  return { width, height, cells: averaged(cells) };
}

function refine(fine: Grid, coarse: Grid): void {
  for (let y = 0; y < fine.height; y += 1) {
    for (let x = 0; x < fine.width; x += 1) {
      const to = (y * fine.width + x) * 4;
      if (fine.cells[to + 3]) continue;
      const colour = sample(coarse, (x + 0.5) / 2 - 0.5, (y + 0.5) / 2 - 0.5);
      fine.cells.set(colour, to);
      fine.cells[to + 3] = 1;
    }
  }
}

const ROUNDS = 24;

/** Unknown cells move towards the mean of their neighbours; given ones stay. */
function relax({ width, height, cells }: Grid, given: Float64Array): void {
  for (let round = 0; round < ROUNDS; round += 1) {
    for (let y = 0; y < height; y += 1) {
      for (let x = 0; x < width; x += 1) {
        const i = (y * width + x) * 4;
        if (given[i + 3]) continue;
        const west = x > 0 ? i - 4 : i;
        const east = x < width - 1 ? i + 4 : i;
        const north = y > 0 ? i - width * 4 : i;
        const south = y < height - 1 ? i + width * 4 : i;
        for (let c = 0; c < 3; c += 1) {
          cells[i + c] =
            ((cells[west + c] ?? 0) +
              (cells[east + c] ?? 0) +
              (cells[north + c] ?? 0) +
              (cells[south + c] ?? 0)) /
            4;
        }
      }
    }
  }
}

/** Between the cells' middles colours change in a straight line. */
function sample({ width, height, cells }: Grid, x: number, y: number): Colour3 {
  const cx = Math.min(Math.max(x, 0), width - 1);
  const cy = Math.min(Math.max(y, 0), height - 1);
  const [x0, y0] = [Math.floor(cx), Math.floor(cy)];
  const [x1, y1] = [Math.min(x0 + 1, width - 1), Math.min(y0 + 1, height - 1)];
  const [fx, fy] = [cx - x0, cy - y0];
  const at = (px: number, py: number, c: number) => cells[(py * width + px) * 4 + c] ?? 0;
  const mix = (c: number) =>
    at(x0, y0, c) * (1 - fx) * (1 - fy) +
    at(x1, y0, c) * fx * (1 - fy) +
    at(x0, y1, c) * (1 - fx) * fy +
    at(x1, y1, c) * fx * fy;
  return [mix(0), mix(1), mix(2)];
}
