import type { RgbaPixels } from '../../raster/pixels';

/** A run of alike pixels in one row: x0 ≤ x < x1. */
interface Runs {
  count: number;
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

/** Runs of each row, joined with those above where their pixels are alike. */
function joinedRuns(words: Uint32Array, width: number, height: number): Runs {
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
  for (let row = 0; row < height; row += 1) {
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
  return { count, y, x0, x1, parent };
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
 */
export function regionsOf(
  picture: RgbaPixels,
  smallest: { width: number; height: number },
): Region[] {
  const { width, height, data } = picture;
  const runs = joinedRuns(
    new Uint32Array(data.buffer, data.byteOffset, width * height),
    width,
    height,
  );
  const boxes = new Map<number, Region>();
  for (let i = 0; i < runs.count; i += 1) {
    const root = find(runs.parent, i);
    const [row = 0, from = 0, to = 0] = [runs.y[i], runs.x0[i], runs.x1[i]];
    const box = boxes.get(root);
    if (!box) {
      const none = { top: 0, bottom: 0, left: 0, right: 0 };
      boxes.set(root, { x0: from, y0: row, x1: to, y1: row + 1, area: to - from, ...none });
    } else {
      if (from < box.x0) box.x0 = from;
      if (to > box.x1) box.x1 = to;
      box.y1 = row + 1;
      box.area += to - from;
    }
  }
  for (const [root, box] of boxes) {
    if (box.x1 - box.x0 < smallest.width || box.y1 - box.y0 < smallest.height) boxes.delete(root);
  }
  followSides(runs, boxes);
  return [...boxes.values()];
}

/** Counts how much of each side lies within NEAR pixels of the area itself. */
function followSides(runs: Runs, boxes: Map<number, Region>): void {
  const columns = new Map<number, { top: Uint8Array; bottom: Uint8Array }>();
  const rows = new Map<number, { left: Uint8Array; right: Uint8Array }>();
  for (let i = 0; i < runs.count; i += 1) {
    const root = find(runs.parent, i);
    const box = boxes.get(root);
    if (!box) continue;
    const [row = 0, from = 0, to = 0] = [runs.y[i], runs.x0[i], runs.x1[i]];
    let across = columns.get(root);
    let down = rows.get(root);
    if (!across || !down) {
      const [w, h] = [box.x1 - box.x0, box.y1 - box.y0];
      across = { top: new Uint8Array(w), bottom: new Uint8Array(w) };
      down = { left: new Uint8Array(h), right: new Uint8Array(h) };
      columns.set(root, across);
      rows.set(root, down);
    }
    if (row - box.y0 <= NEAR) across.top.fill(1, from - box.x0, to - box.x0);
    if (box.y1 - 1 - row <= NEAR) across.bottom.fill(1, from - box.x0, to - box.x0);
    if (from - box.x0 <= NEAR) down.left[row - box.y0] = 1;
    if (box.x1 - to <= NEAR) down.right[row - box.y0] = 1;
  }
  const share = (marks: Uint8Array) => marks.reduce((sum, v) => sum + v, 0) / marks.length;
  for (const [root, box] of boxes) {
    const across = columns.get(root);
    const down = rows.get(root);
    if (!across || !down) continue;
    box.top = share(across.top);
    box.bottom = share(across.bottom);
    box.left = share(down.left);
    box.right = share(down.right);
  }
}
