import type { Rect } from '../geometry/rect';
import type { Size } from '../geometry/size';
import { wordsOf, type ReadablePixels } from '../raster/pixels';
import { overlapOf, type Shift } from './shift';

/** What two pictures differ by, in pixels of the first. */
export interface Differences {
  /** Where both are. */
  both: Rect;
  /** How many pixels differ there, however little. */
  pixels: number;
  /** Places that differ so that it can be seen, the largest first. */
  places: Rect[];
}

/** The side of a tile, pixels. */
const TILE = 8;
/** So far apart may a channel be without anybody seeing it, of 255. */
const TOLERANCE = 24;
/** So many such pixels make a tile that differs. */
const LEAST = 2;
/** Tiles that far apart are one place. */
const JOINED = 2;
const MOST_PLACES = 500;

/**
 * Where two pictures differ.
 * @param first RGBA, row-major, width × height × 4, as is `second`
 * @param shift where the upper left corner of the second lies on the first
 */
export function differences(
  first: ReadablePixels,
  second: ReadablePixels,
  shift: Shift = { x: 0, y: 0 },
): Differences {
  const both = overlapOf(first, second, shift);
  const across = Math.ceil(both.width / TILE);
  const tiles = new Uint16Array(across * Math.ceil(both.height / TILE));
  const [a, b] = [wordsOf(first), wordsOf(second)];
  let pixels = 0;
  for (let y = 0; y < both.height; y += 1) {
    let at = (both.y + y) * first.width + both.x;
    let to = (both.y + y - shift.y) * second.width + both.x - shift.x;
    const row = Math.floor(y / TILE) * across;
    for (let x = 0; x < both.width; x += 1, at += 1, to += 1) {
      const one = a[at] as number;
      const other = b[to] as number;
      if (one === other) continue;
      pixels += 1;
      const tile = row + Math.floor(x / TILE);
      if (isSeen(one, other)) tiles[tile] = (tiles[tile] as number) + 1;
    }
  }
  const pair = { a, b, first, second, shift };
  const places = joined(tiles, across).map((place) =>
    tightened(pair, {
      x: both.x + place.x * TILE,
      y: both.y + place.y * TILE,
      width: Math.min(place.width * TILE, both.width - place.x * TILE),
      height: Math.min(place.height * TILE, both.height - place.y * TILE),
    }),
  );
  places.sort((p, q) => q.width * q.height - p.width * p.height || p.y - q.y || p.x - q.x);
  return { both, pixels, places: places.slice(0, MOST_PLACES) };
}

interface Pair {
  a: Uint32Array;
  b: Uint32Array;
  first: Size;
  second: Size;
  shift: Shift;
}

/** A place, to the pixel. */
function tightened({ a, b, first, second, shift }: Pair, place: Rect): Rect {
  const [right, bottom] = [place.x + place.width, place.y + place.height];
  let [x0, y0, x1, y1] = [right, bottom, place.x, place.y];
  for (let y = place.y; y < bottom; y += 1) {
    for (let x = place.x; x < right; x += 1) {
      const one = a[y * first.width + x] as number;
      const other = b[(y - shift.y) * second.width + x - shift.x] as number;
      if (one === other || !isSeen(one, other)) continue;
      if (x < x0) x0 = x;
      if (x >= x1) x1 = x + 1;
      if (y < y0) y0 = y;
      if (y >= y1) y1 = y + 1;
    }
  }
  return { x: x0, y: y0, width: x1 - x0, height: y1 - y0 };
}

function isSeen(one: number, other: number): boolean {
  for (let shift = 0; shift < 32; shift += 8) {
    const apart = ((one >>> shift) & 255) - ((other >>> shift) & 255);
    if (apart > TOLERANCE || apart < -TOLERANCE) return true;
  }
  return false;
}

/** Tiles that differ, put together where they lie close, as rectangles of tiles. */
function joined(tiles: Uint16Array, across: number): Rect[] {
  const down = across === 0 ? 0 : tiles.length / across;
  const seen = new Uint8Array(tiles.length);
  const places: Rect[] = [];
  for (let begin = 0; begin < tiles.length; begin += 1) {
    if (seen[begin] || (tiles[begin] as number) < LEAST) continue;
    seen[begin] = 1;
    const left = [begin];
    let [x0, y0, x1, y1] = [across, down, 0, 0];
    for (let at = left.pop(); at !== undefined; at = left.pop()) {
      const [x, y] = [at % across, Math.floor(at / across)];
      [x0, y0, x1, y1] = [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)];
      for (let v = Math.max(0, y - JOINED); v <= Math.min(down - 1, y + JOINED); v += 1) {
        for (let u = Math.max(0, x - JOINED); u <= Math.min(across - 1, x + JOINED); u += 1) {
          const next = v * across + u;
          if (seen[next] || (tiles[next] as number) < LEAST) continue;
          seen[next] = 1;
          left.push(next);
        }
      }
    }
    places.push({ x: x0, y: y0, width: x1 - x0 + 1, height: y1 - y0 + 1 });
  }
  return places;
}
