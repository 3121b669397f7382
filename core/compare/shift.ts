import type { Rect } from '../geometry/rect';
import type { Size } from '../geometry/size';
import { wordsOf, type ReadablePixels } from '../raster/pixels';

/** Where the upper left corner of the second picture lies on the first, whole pixels. */
export interface Shift {
  x: number;
  y: number;
}

/** Where both pictures are, in pixels of the first; empty where they do not meet. */
export function overlapOf(first: Size, second: Size, { x, y }: Shift): Rect {
  const [left, top] = [Math.max(0, x), Math.max(0, y)];
  const width = Math.max(0, Math.min(first.width, x + second.width) - left);
  const height = Math.max(0, Math.min(first.height, y + second.height) - top);
  return { x: left, y: top, width, height };
}

/** Runs of so many pixels are known again. */
const RUN = 24;
/** A run in which the colour changes less often says nothing. */
const LEAST_CHANGES = 4;
/** Of all runs one in so many is looked at: by its pixels, so that it is the same in both pictures. */
const ONE_IN = { small: 2, large: 64 };
const SMALL = 300_000;
/** So many of the shifts with most votes are tried on the pictures. */
const TRIED = 6;
/** A shift is one only when so much more of the pictures agrees by it. */
const BETTER = 0.08;
/** So much of what is drawn in them agrees then, at least. */
const ENOUGH = 0.5;
/** So much of the smaller picture both must show. */
const LEAST_SHARED = 0.1;

/**
 * How one picture is shifted against the other: by what was scrolled, or because another part was
 * taken. Runs of pixels that each picture has once vote for where they went (sampled by their own
 * content, as in S. Schleimer et al., Winnowing); what stays in place while the rest is scrolled
 * has its vote, too, so the shifts with most votes are tried, and that counts by which most agrees.
 * @param first RGBA, row-major, width × height × 4, as is `second`
 */
export function shiftBetween(first: ReadablePixels, second: ReadablePixels): Shift {
  const none = { x: 0, y: 0 };
  const unshifted = agreement(first, second, none);
  if (unshifted === 1) return none;
  let [best, agreed] = [none, unshifted];
  for (const shift of votedShifts(first, second)) {
    const agrees = agreement(first, second, shift);
    if (agrees > agreed) [best, agreed] = [shift, agrees];
  }
  return agreed >= ENOUGH && agreed >= unshifted + BETTER ? best : none;
}

/** Shifts by the votes they have, the most first. */
function votedShifts(first: ReadablePixels, second: ReadablePixels): Shift[] {
  const area = Math.min(first.width * first.height, second.width * second.height);
  const oneIn = area < SMALL ? ONE_IN.small : ONE_IN.large;
  const places = onceOnly(first, oneIn);
  const votes = new Map<string, { shift: Shift; count: number }>();
  for (const [hash, at] of onceOnly(second, oneIn)) {
    const other = places.get(hash);
    if (other === undefined) continue;
    const shift = {
      x: (other % first.width) - (at % second.width),
      y: Math.floor(other / first.width) - Math.floor(at / second.width),
    };
    const key = `${shift.x} ${shift.y}`;
    const vote = votes.get(key);
    if (vote) vote.count += 1;
    else votes.set(key, { shift, count: 1 });
  }
  const all = [...votes.values()].sort((p, q) => q.count - p.count);
  return all.slice(0, TRIED).map(({ shift }) => shift);
}

const BASE = 0x01000193;
/** What the first pixel of a run was multiplied by when the run is complete. */
const OLDEST = Array.from({ length: RUN }).reduce<number>((power) => Math.imul(power, BASE), 1);

/** Where the runs begin that are in a picture once, by their hash (a rolling polynomial one). */
function onceOnly(pixels: ReadablePixels, oneIn: number): Map<number, number> {
  const words = wordsOf(pixels);
  const { width, height } = pixels;
  const places = new Map<number, number>();
  const latest = new Map<number, number>();
  const twice = new Set<number>();
  for (let y = 0, at = 0; y < height; y += 1, at = y * width) {
    let hash = 0;
    let changes = 0;
    for (let x = 0; x < width; x += 1, at += 1) {
      const word = words[at] as number;
      hash = (Math.imul(hash, BASE) + word) | 0;
      if (x > 0 && word !== words[at - 1]) changes += 1;
      if (x < RUN) continue;
      hash = (hash - Math.imul(words[at - RUN] as number, OLDEST)) | 0;
      if (words[at - RUN] !== words[at - RUN + 1]) changes -= 1;
      if (changes < LEAST_CHANGES) continue;
      const mixed = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d) >>> 0;
      if (mixed % oneIn !== 0) continue;
      const begin = at - RUN + 1;
      const lowest = latest.get(mixed);
      latest.set(mixed, begin);
      // The same in the row below is one thing: a stroke, not its rows.
      if (lowest === begin - width) continue;
      if (lowest === undefined) places.set(mixed, begin);
      else twice.add(mixed);
    }
  }
  for (const hash of twice) places.delete(hash);
  return places;
}

/** Every so many pixels one is looked at, each way. */
const SAMPLED = 3;

/** Of the places where something is drawn in both, how much is the same by a shift, 0–1. */
function agreement(first: ReadablePixels, second: ReadablePixels, { x, y }: Shift): number {
  const [a, b] = [wordsOf(first), wordsOf(second)];
  const both = overlapOf(first, second, { x, y });
  const smaller = Math.min(first.width * first.height, second.width * second.height);
  if (both.width * both.height < LEAST_SHARED * smaller) return 0;
  let [drawn, same] = [0, 0];
  for (let v = both.y; v < both.y + both.height; v += SAMPLED) {
    for (let u = both.x + 1; u < both.x + both.width; u += SAMPLED) {
      const at = v * first.width + u;
      const to = (v - y) * second.width + u - x;
      const one = a[at] as number;
      const other = b[to] as number;
      if (one === a[at - 1] && other === b[to - 1]) continue;
      drawn += 1;
      if (one === other) same += 1;
    }
  }
  return drawn === 0 ? 1 : same / drawn;
}
