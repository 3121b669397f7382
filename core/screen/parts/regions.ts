import type { Size } from '../../geometry/size';
import type { ReadablePixels } from '../../raster/pixels';

/** A run of alike pixels in one row: x0 ≤ x < x1. */
interface Runs {
  count: number;
  /** Rows that were looked at, from the top. */
  rows: number;
  y: Int32Array;
  x0: Int32Array;
  x1: Int32Array;
  /** Union–find: each run's parent. */
  parent: Int32Array;
}

/** A connected area of pixels that change only gently from one to the next. */
export interface Region {
  x0: number;
  y0: number;
  /** Half open. */
  x1: number;
  y1: number;
  area: number;
  /** How much of each side of its bounding box it follows, 0–1. */
  top: number;
  bottom: number;
  left: number;
  right: number;
}

/** Neighbours differ by at most this in each channel: gradients join, borders part. */
const ALIKE = 3;
/** A side is followed within this many pixels, so that rounded corners count. */
const NEAR = 2;

function alike(a: number, b: number): boolean {
  if (a === b) return true;
  const dr = (a & 0xff) - (b & 0xff);
  if (dr > ALIKE || dr < -ALIKE) return false;
  const dg = ((a >> 8) & 0xff) - ((b >> 8) & 0xff);
  if (dg > ALIKE || dg < -ALIKE) return false;
  const db = ((a >> 16) & 0xff) - ((b >> 16) & 0xff);
  return db <= ALIKE && db >= -ALIKE;
}

function find(parent: Int32Array, i: number): number {
  let at = i;
  for (;;) {
    const up = parent[at] ?? at;
    if (up === at) return at;
    const above = parent[up] ?? up;
    parent[at] = above;
    at = above;
  }
}

function join(parent: Int32Array, a: number, b: number): void {
  const ra = find(parent, a);
  const rb = find(parent, b);
  if (ra < rb) parent[rb] = ra;
  else if (rb < ra) parent[ra] = rb;
}

/**
 * Runs of each row, joined with those above where their pixels are alike.
 * @param isLate asked at each row: the rows before it are all there is, then
 */
function joinedRuns(words: Uint32Array, { width, height }: Size, isLate: () => boolean): Runs {
  let room = 1 << 18;
  let y = new Int32Array(room);
  let x0 = new Int32Array(room);
  let x1 = new Int32Array(room);
  let parent = new Int32Array(room);
  const grow = (from: Int32Array) => {
    const to = new Int32Array(room);
    to.set(from);
    return to;
  };
  let count = 0;
  let above = 0;
  let row = 0;
  for (; row < height && !isLate(); row += 1) {
    const base = row * width;
    const first = count;
    let x = 0;
    while (x < width) {
      const start = x;
      x += 1;
      while (x < width && alike(words[base + x - 1] ?? 0, words[base + x] ?? 0)) x += 1;
      if (count === room) {
        room *= 2;
        [y, x0, x1, parent] = [grow(y), grow(x0), grow(x1), grow(parent)];
      }
      y[count] = row;
      x0[count] = start;
      x1[count] = x;
      parent[count] = count;
      count += 1;
    }
    if (row > 0) joinRows(words, width, { x0, x1, parent }, { above, first, count, base });
    above = first;
  }
  return { count, rows: row, y, x0, x1, parent };
}

function joinRows(
  words: Uint32Array,
  width: number,
  { x0, x1, parent }: Pick<Runs, 'x0' | 'x1' | 'parent'>,
  at: { above: number; first: number; count: number; base: number },
): void {
  let up = at.above;
  let here = at.first;
  while (up < at.first && here < at.count) {
    const from = Math.max(x0[up] ?? 0, x0[here] ?? 0);
    const upEnd = x1[up] ?? 0;
    const hereEnd = x1[here] ?? 0;
    const to = Math.min(upEnd, hereEnd);
    for (let x = from; x < to; x += 1) {
      if (alike(words[at.base - width + x] ?? 0, words[at.base + x] ?? 0)) {
        join(parent, up, here);
        break;
      }
    }
    if (upEnd <= hereEnd) up += 1;
    if (hereEnd <= upEnd) here += 1;
  }
}

/**
 * The connected areas of a picture, each with its bounding box and how well it fills its sides.
 * @param smallest areas with a bounding box smaller than this are left out
 * @param isLate says when no more is to be looked at; what ends above that place is given
 */
export function regionsOf(
  picture: ReadablePixels,
  smallest: Size,
  isLate: () => boolean,
): Region[] {
  const { width, height, data } = picture;
  const words = new Uint32Array(data.buffer, data.byteOffset, width * height);
  const runs = joinedRuns(words, picture, isLate);
  const seen = runs.rows < height ? runs.rows - 1 : height;
  const boxes = boxesOf(runs);
  const regions: Region[] = [];
  /** One more than the place of a run's region among them, by its root; 0 where it is too small. */
  const placeOf = new Int32Array(runs.count);
  for (let root = 0; root < runs.count; root += 1) {
    const [x0, y0] = [boxes.x0[root] ?? 0, runs.y[root] ?? 0];
    const [x1, y1] = [boxes.x1[root] ?? 0, boxes.y1[root] ?? 0];
    if (runs.parent[root] !== root) continue;
    if (x1 - x0 < smallest.width || y1 - y0 < smallest.height) continue;
    // It may go on below what was looked at.
    if (y1 > seen) continue;
    const area = boxes.area[root] ?? 0;
    placeOf[root] = regions.push({ x0, y0, x1, y1, area, top: 0, bottom: 0, left: 0, right: 0 });
  }
  followSides(runs, regions, placeOf);
  return regions;
}

/** Bounding boxes and areas by root. Grain has millions of them, too many for objects. */
function boxesOf(runs: Runs) {
  const { count, parent } = runs;
  const x0 = new Int32Array(count);
  const x1 = new Int32Array(count);
  const y1 = new Int32Array(count);
  const area = new Int32Array(count);
  for (let i = 0; i < count; i += 1) {
    const root = find(parent, i);
    const from = runs.x0[i] ?? 0;
    const to = runs.x1[i] ?? 0;
    // A root is the first of its runs.
    if (root === i || from < (x0[root] ?? 0)) x0[root] = from;
    if (to > (x1[root] ?? 0)) x1[root] = to;
    y1[root] = (runs.y[i] ?? 0) + 1;
    area[root] = (area[root] ?? 0) + to - from;
  }
  return { x0, x1, y1, area };
}

/** For each column and row of a region's box: does it begin and end near the side there? */
interface Sides {
  top: Uint8Array;
  bottom: Uint8Array;
  left: Uint8Array;
  right: Uint8Array;
}

/** Counts how much of each side lies within NEAR pixels of the area itself. */
function followSides(runs: Runs, regions: readonly Region[], placeOf: Int32Array): void {
  const sides = regions.map(({ x0, x1, y0, y1 }): Sides => {
    const [w, h] = [x1 - x0, y1 - y0];
    return {
      ...{ top: new Uint8Array(w), bottom: new Uint8Array(w) },
      ...{ left: new Uint8Array(h), right: new Uint8Array(h) },
    };
  });
  for (let i = 0; i < runs.count; i += 1) {
    const place = (placeOf[find(runs.parent, i)] ?? 0) - 1;
    if (place < 0) continue;
    const box = regions[place];
    const side = sides[place];
    if (!box || !side) continue;
    const [row = 0, from = 0, to = 0] = [runs.y[i], runs.x0[i], runs.x1[i]];
    if (row - box.y0 <= NEAR) side.top.fill(1, from - box.x0, to - box.x0);
    if (box.y1 - 1 - row <= NEAR) side.bottom.fill(1, from - box.x0, to - box.x0);
    if (from - box.x0 <= NEAR) side.left[row - box.y0] = 1;
    if (box.x1 - to <= NEAR) side.right[row - box.y0] = 1;
  }
  const share = (marks: Uint8Array) => marks.reduce((sum, v) => sum + v, 0) / marks.length;
  regions.forEach((box, i) => {
    const side = sides[i];
    if (!side) return;
    box.top = share(side.top);
    box.bottom = share(side.bottom);
    box.left = share(side.left);
    box.right = share(side.right);
  });
}
