import type { Size } from '../geometry/size';
import type { Rect } from '../geometry/rect';
import type { ReadablePixels } from '../raster/pixels';

// Asked for every pixel.
const { abs, floor, max, min } = Math;

/** Side of the squares whose commonest brightness is taken for the ground, px. */
const BLOCK = 24;
/** Less contrast than that is no ink, of 255. */
const LEAST_CONTRAST = 45;
/** So much of the block's contrast a pixel must have: about half covered by a letter. */
const SHARE = 0.5;
/** Steps of brightness that are counted as one. */
const BINS = 32;

/**
 * Bounding boxes of connected spots of ink: letters, their pieces, small icons, thin lines.
 * @param leastContrast what stands out less from its ground is no ink, of 255
 * @param most with more of them, as in grain or a photograph, there is nothing to be read: none
 * @param isLate says when nobody waits any longer: none
 */
export function inkSpots(
  picture: ReadablePixels,
  leastContrast = LEAST_CONTRAST,
  most = Infinity,
  isLate = (): boolean => false,
): Rect[] {
  const ink = inkOf(picture, leastContrast, isLate);
  return isLate() ? [] : spots(ink, picture, most, isLate);
}

/** 1 where a pixel is ink: far enough from the ground of its block. */
function inkOf(
  { data, width, height }: ReadablePixels,
  leastContrast: number,
  isLate: () => boolean,
): Uint8Array {
  const light = new Uint8Array(width * height);
  for (let i = 0, at = 0; i < light.length; i += 1, at += 4) {
    light[i] = 0.299 * (data[at] ?? 0) + 0.587 * (data[at + 1] ?? 0) + 0.114 * (data[at + 2] ?? 0);
  }
  const cells = cellsOf(light, width, height);
  const ink = new Uint8Array(width * height);
  for (let y = 0; y < height && !isLate(); y += BLOCK) {
    for (let x = 0; x < width; x += BLOCK) {
      const { ground, contrast } = groundAt(cells, x / BLOCK, (2 * y) / BLOCK);
      if (contrast < leastContrast) continue;
      const far = contrast * SHARE;
      const [end, low] = [min(width, x + BLOCK), min(height, y + BLOCK)];
      for (let row = y; row < low; row += 1) {
        for (let i = row * width + x; i < row * width + end; i += 1) {
          if (abs((light[i] ?? 0) - ground) > far) ink[i] = 1;
        }
      }
    }
  }
  return ink;
}

/** Brightness in cells, BLOCK pixels wide and half as high. */
interface Cells {
  across: number;
  down: number;
  /** BINS counts a cell. */
  counts: Uint32Array;
  least: Uint8Array;
  most: Uint8Array;
}

function cellsOf(light: Uint8Array, width: number, height: number): Cells {
  const [across, down] = [Math.ceil(width / BLOCK), Math.ceil((2 * height) / BLOCK)];
  const counts = new Uint32Array(across * down * BINS);
  const least = new Uint8Array(across * down).fill(255);
  const most = new Uint8Array(across * down);
  for (let y = 0; y < height; y += 1) {
    const row = floor((2 * y) / BLOCK) * across;
    for (let column = 0; column < across; column += 1) {
      const cell = row + column;
      const end = y * width + min(width, (column + 1) * BLOCK);
      let [low, high] = [least[cell] ?? 255, most[cell] ?? 0];
      for (let i = y * width + column * BLOCK; i < end; i += 1) {
        const v = light[i] ?? 0;
        const bin = cell * BINS + (v >> 3);
        counts[bin] = (counts[bin] ?? 0) + 1;
        if (v < low) low = v;
        if (v > high) high = v;
      }
      least[cell] = low;
      most[cell] = high;
    }
  }
  return { across, down, counts, least, most };
}

/** The ground is looked up a little around a block, so that one full of a letter has one. */
function groundAt(
  { across, down, counts, least, most }: Cells,
  column: number,
  row: number,
): { ground: number; contrast: number } {
  const sums = new Uint32Array(BINS);
  let [low, high] = [255, 0];
  for (let y = max(0, row - 1); y < min(down, row + 3); y += 1) {
    for (let x = max(0, column - 1); x < min(across, column + 2); x += 1) {
      const cell = y * across + x;
      for (let bin = 0; bin < BINS; bin += 1) {
        sums[bin] = (sums[bin] ?? 0) + (counts[cell * BINS + bin] ?? 0);
      }
      low = min(low, least[cell] ?? 255);
      high = max(high, most[cell] ?? 0);
    }
  }
  let commonest = 0;
  for (let bin = 1; bin < BINS; bin += 1) {
    if ((sums[bin] ?? 0) > (sums[commonest] ?? 0)) commonest = bin;
  }
  const ground = commonest * 8 + 4;
  return { ground, contrast: max(abs(low - ground), abs(high - ground)) };
}

/** A run of ink in one row, x0 ≤ x < x1, and the run it is joined to. */
interface Run {
  x0: number;
  x1: number;
  y: number;
  parent: number;
}

/** Bounding boxes of connected ink, by runs of rows that touch, corners included. */
function spots(
  ink: Uint8Array,
  { width, height }: Size,
  most: number,
  isLate: () => boolean,
): Rect[] {
  const runs: Run[] = [];
  const parentOf = (i: number): number => runs[i]?.parent ?? i;
  const find = (i: number): number => {
    let at = i;
    while (parentOf(at) !== at) at = parentOf(at);
    const run = runs[i];
    if (run) run.parent = at;
    return at;
  };
  let above = 0;
  for (let y = 0; y < height; y += 1) {
    const first = runs.length;
    // A spot is several runs, as a rule.
    if (first > most * RUNS || isLate()) return [];
    let up = above;
    for (let x = ink.indexOf(1, y * width) - y * width; x >= 0 && x < width;) {
      const x0 = x;
      while (x < width && ink[y * width + x]) x += 1;
      const id = runs.push({ x0, x1: x, y, parent: runs.length }) - 1;
      while (up < first && (runs[up]?.x1 ?? 0) < x0) up += 1;
      for (let i = up; i < first && (runs[i]?.x0 ?? 0) <= x; i += 1) {
        const [a, b] = [find(i), find(id)];
        const later = runs[max(a, b)];
        if (later) later.parent = min(a, b);
      }
      const next = ink.indexOf(1, y * width + x);
      x = next < 0 ? -1 : next - y * width;
    }
    above = first;
  }
  const boxes = boxesOf(runs, find);
  return boxes.length > most ? [] : boxes;
}

const RUNS = 24;

function boxesOf(runs: readonly Run[], find: (i: number) => number): Rect[] {
  const boxes = new Map<number, Rect>();
  runs.forEach(({ x0, x1, y }, i) => {
    const root = find(i);
    const box = boxes.get(root);
    if (!box) {
      boxes.set(root, { x: x0, y, width: x1 - x0, height: 1 });
      return;
    }
    const far = max(box.x + box.width, x1);
    box.x = min(box.x, x0);
    box.width = far - box.x;
    box.height = y + 1 - box.y;
  });
  return [...boxes.values()];
}
