import { wordsOf, type ReadablePixels } from '../raster/pixels';
import type { LikenessMap } from './likenessMap';

export interface Similarity {
  /** The mean over the map: 1 for the very same. */
  likeness: number;
  map: LikenessMap;
}

/** The window: Gaussian, 11 × 11, of 1.5 pixels (Wang et al. 2004, §III-B). */
const SIZE = 11;
const SIGMA = 1.5;
/** Rows of the map that are worked out at once: each row under their windows is read once for all. */
const AT_ONCE = 4;
/** Rows under so many windows, one below the other. */
const RING = SIZE + AT_ONCE - 1;
/** (K·L)² with K₁ 0.01, K₂ 0.03 and L 255, as there. */
const C1 = (0.01 * 255) ** 2;
const C2 = (0.03 * 255) ** 2;
/** Values are kept around zero, so that little is lost where squares are taken from each other. */
const MIDDLE = 128;

/** The window falls apart into its rows and columns; one half of each, since they are symmetric. */
const [W0, W1, W2, W3, W4, W5] = (() => {
  const raw = Array.from({ length: SIZE }, (_, i) => Math.exp(-((i - 5) ** 2) / (2 * SIGMA ** 2)));
  const sum = raw.reduce((a, b) => a + b, 0);
  return raw.map((v) => v / sum) as [number, number, number, number, number, number];
})();

/** Lightness of each pixel: weights of ITU-R BT.601 in 1/256, rounded as usual for 8-bit pictures. */
function lightnessOf(picture: ReadablePixels): Uint8Array {
  const words = wordsOf(picture);
  const all = new Uint8Array(words.length);
  for (let i = 0; i < all.length; i += 1) {
    const word = words[i] as number;
    const sum = 77 * (word & 255) + 150 * ((word >> 8) & 255) + 29 * ((word >> 16) & 255);
    all[i] = (sum + 128) >> 8;
  }
  return all;
}

/** One row under the window, lengthwise; what was read once is passed on from place to place. */
function across(row: Row, into: Row, at: number, { from, to }: Span): void {
  let a = row[from] as number;
  let b = row[from + 1] as number;
  let c = row[from + 2] as number;
  let d = row[from + 3] as number;
  let e = row[from + 4] as number;
  let f = row[from + 5] as number;
  let g = row[from + 6] as number;
  let h = row[from + 7] as number;
  let i = row[from + 8] as number;
  let j = row[from + 9] as number;
  for (let x = from; x < to; x += 1) {
    const k = row[x + 10] as number;
    into[at + x] =
      W0 * (a + k) + W1 * (b + j) + W2 * (c + i) + W3 * (d + h) + W4 * (e + g) + W5 * f;
    a = b;
    b = c;
    c = d;
    d = e;
    e = f;
    f = g;
    g = h;
    h = i;
    i = j;
    j = k;
  }
}

/** Fourteen rows that lie one after another under four windows, downwards: four rows at once. */
function down(from: Row, first: number, width: number, into: Four, at: Span): void {
  const [r0, r1, r2, r3] = into;
  for (let x = at.from, o = first + at.from; x < at.to; x += 1, o += 1) {
    const a = from[o] as number;
    const b = from[o + width] as number;
    const c = from[o + 2 * width] as number;
    const d = from[o + 3 * width] as number;
    const e = from[o + 4 * width] as number;
    const f = from[o + 5 * width] as number;
    const g = from[o + 6 * width] as number;
    const h = from[o + 7 * width] as number;
    const i = from[o + 8 * width] as number;
    const j = from[o + 9 * width] as number;
    const k = from[o + 10 * width] as number;
    const l = from[o + 11 * width] as number;
    const m = from[o + 12 * width] as number;
    const n = from[o + 13 * width] as number;
    r0[x] = W0 * (a + k) + W1 * (b + j) + W2 * (c + i) + W3 * (d + h) + W4 * (e + g) + W5 * f;
    r1[x] = W0 * (b + l) + W1 * (c + k) + W2 * (d + j) + W3 * (e + i) + W4 * (f + h) + W5 * g;
    r2[x] = W0 * (c + m) + W1 * (d + l) + W2 * (e + k) + W3 * (f + j) + W4 * (g + i) + W5 * h;
    r3[x] = W0 * (d + n) + W1 * (e + m) + W2 * (f + l) + W3 * (g + k) + W4 * (h + j) + W5 * i;
  }
}

const rows = (count: number, width: number): Row[] =>
  Array.from({ length: count }, () => new Float64Array(width));

/**
 * Structural similarity of two pictures of one size, by lightness, at full resolution (Wang, Bovik,
 * Sheikh, Simoncelli 2004: Image quality assessment, eq. 13). Alpha is not looked at. Where both are
 * of the very same lightness it is 1, so only the rest is worked out: on a screen most of the ground,
 * which a lossy file keeps but for its hue.
 * @returns the mean, and the map, which lacks half a window at each side
 * @throws when the sizes differ or a side is shorter than the window
 */
export function similarity(before: ReadablePixels, after: ReadablePixels): Similarity {
  const { width, height } = before;
  if (width !== after.width || height !== after.height) throw new Error('The sizes differ.');
  if (Math.min(width, height) < SIZE) throw new Error('The pictures are smaller than the window.');
  const size = { width: width - SIZE + 1, height: height - SIZE + 1 };
  const map = new Float64Array(size.width * size.height).fill(1);
  const [all, others] = [lightnessOf(before), lightnessOf(after)];
  const bands = differing(all, others, width, height);
  const bandOf = (row: number): Span[] => bands[Math.floor(row / TILE)] ?? [];
  const [a, b, squares, product] = [...rows(4, width)] as [Row, Row, Row, Row];
  // Each row lies there twice, so that as many as are read at once follow on one another.
  const windows = rows(4, 2 * RING * size.width);
  const lines = Array.from({ length: AT_ONCE }, () => rows(4, size.width) as Means);
  let short = 0;
  for (let y = 0; y < height; y += 1) {
    const slot = (y % RING) * size.width;
    // A row of the picture is under the windows of as many rows of the map.
    const [band, next] = [bandOf(Math.max(0, y - RING + 1)), bandOf(y)];
    for (const span of band === next ? band : merged([...band, ...next])) {
      const wide = { from: span.from, to: span.to + SIZE - 1 };
      readRow([all, others], y * width, [a, b, squares, product], wide);
      [a, b, squares, product].forEach((row, i) => {
        const window = windows[i] ?? row;
        across(row, window, slot, span);
        const again = slot + RING * size.width + span.from;
        window.copyWithin(again, slot + span.from, slot + span.to);
      });
    }
    // The last of them may be fewer, and what is worked out below them is left.
    const left = y === height - 1 ? size.height % AT_ONCE : 0;
    const top = left ? size.height - left : y - RING + 1;
    if (top < 0 || top % AT_ONCE) continue;
    for (const span of bandOf(top)) {
      windows.forEach((window, i) => {
        const into = lines.map((means) => means[i] ?? a) as Four;
        down(window, (top % RING) * size.width, size.width, into, span);
      });
      lines.slice(0, size.height - top).forEach((means, i) => {
        const line = map.subarray((top + i) * size.width, (top + i + 1) * size.width);
        short += span.to - span.from - similarityOf(means, line, span);
      });
    }
  }
  return { likeness: 1 - short / map.length, map: { data: map, ...size } };
}

type Row = Float64Array;
type Four = [Row, Row, Row, Row];

/** Of both pictures, of their squares together and of their product. */
type Means = Four;

/** Columns of a row, from the first to before the last. */
interface Span {
  from: number;
  to: number;
}

/** Sides of the squares that are looked at for a difference; longer than a window. */
const TILE = 16;

/** For each band of TILE rows of the map: the columns whose windows may see a difference. */
function differing(a: Uint8Array, b: Uint8Array, width: number, height: number): Span[][] {
  const last = width - SIZE + 1;
  const across = Math.ceil(width / TILE);
  const bands = Math.ceil(height / TILE);
  const differs = new Uint8Array((bands + 1) * (across + 1));
  for (let y = 0; y < height; y += 1) {
    const band = Math.floor(y / TILE) * (across + 1);
    for (let tile = 0; tile < across; tile += 1) {
      const from = y * width + tile * TILE;
      const to = y * width + Math.min(width, (tile + 1) * TILE);
      if (!differs[band + tile] && differ(a, b, from, to)) {
        differs[band + tile] = 1;
      }
    }
  }
  return Array.from({ length: bands }, (_, band) => {
    const spans: Span[] = [];
    for (let tile = 0; tile < across; tile += 1) {
      const at = band * (across + 1) + tile;
      // A window reaches into the next tiles.
      const sees =
        differs[at] || differs[at + 1] || differs[at + across + 1] || differs[at + across + 2];
      const to = Math.min(last, (tile + 1) * TILE);
      if (sees && to > tile * TILE) spans.push({ from: tile * TILE, to });
    }
    return merged(spans);
  });
}

function differ(a: Uint8Array, b: Uint8Array, from: number, to: number): boolean {
  for (let i = from; i < to; i += 1) if (a[i] !== b[i]) return true;
  return false;
}

/** Spans in their order, those that touch or lie over each other as one. */
function merged(spans: readonly Span[]): Span[] {
  const all: Span[] = [];
  for (const { from, to } of spans.toSorted((a, b) => a.from - b.from)) {
    const last = all.at(-1);
    if (last && from <= last.to) last.to = Math.max(last.to, to);
    else all.push({ from, to });
  }
  return all;
}

/** A part of a row of both, around zero, and what they make multiplied. @param at its beginning */
function readRow(
  [before, after]: readonly [Uint8Array, Uint8Array],
  at: number,
  [a, b, squares, product]: Four,
  { from, to }: Span,
): void {
  for (let x = from; x < to; x += 1) {
    const p = (before[at + x] as number) - MIDDLE;
    const q = (after[at + x] as number) - MIDDLE;
    a[x] = p;
    b[x] = q;
    squares[x] = p * p + q * q;
    product[x] = p * q;
  }
}

/** A row of the map from the means under its windows. @returns their sum */
function similarityOf([ma, mb, ms, mp]: Means, into: Row, { from, to }: Span): number {
  let sum = 0;
  for (let x = from; x < to; x += 1) {
    const p = ma[x] as number;
    const q = mb[x] as number;
    const variances = (ms[x] as number) - p * p - q * q;
    const covariance = (mp[x] as number) - p * q;
    const u = p + MIDDLE;
    const v = q + MIDDLE;
    const value =
      ((2 * u * v + C1) * (2 * covariance + C2)) / ((u * u + v * v + C1) * (variances + C2));
    into[x] = value;
    sum += value;
  }
  return sum;
}
