import { bottom, right, union, type Rect } from '../geometry/rect';
import type { ReadablePixels } from '../raster/pixels';

// Asked for every pixel.
const { abs, max } = Math;

/** Words of one size, standing beside each other. */
export interface TextRun {
  box: Rect;
  /** Height of a small x, pixels. */
  xHeight: number;
}

/** Side of the squares whose commonest brightness is taken for the ground. */
const BLOCK = 24;
/** Less contrast than that is no ink, of 255. */
const LEAST_CONTRAST = 45;
/** So much of the block's contrast a pixel must have: about half covered by a letter. */
const SHARE = 0.5;
const LETTER = { least: 3, most: 70 };
/** Letters of one run. */
const LEAST_LETTERS = 5;
/** So many of a run's letters are small ones without a stem, as a rule. */
const SMALL_ONES = 0.3;

/**
 * The runs of words in a picture with the height of their small letters, found from the pixels
 * alone: letters are connected spots of ink, runs are letters on one base line.
 */
export function textRuns(picture: ReadablePixels): TextRun[] {
  const letters = spots(inkOf(picture), picture.width, picture.height).filter(
    ({ width, height }) =>
      height >= LETTER.least && height <= LETTER.most && width <= 3 * height && width >= 1,
  );
  return runsOf(letters).flatMap((run) => {
    const xHeight = smallHeight(run.map((letter) => letter.height));
    return xHeight === null ? [] : [{ box: union(run), xHeight }];
  });
}

/** The smallest words of a picture; null where none are found. */
export function smallestText(picture: ReadablePixels): TextRun | null {
  return textRuns(picture).reduce<TextRun | null>(
    (least, run) => (least === null || run.xHeight < least.xHeight ? run : least),
    null,
  );
}

/** 1 where a pixel is ink: far enough from the ground of its block. */
function inkOf({ data, width, height }: ReadablePixels): Uint8Array {
  const light = new Uint8Array(width * height);
  for (let i = 0; i < light.length; i += 1) {
    const at = i * 4;
    light[i] = 0.299 * (data[at] ?? 0) + 0.587 * (data[at + 1] ?? 0) + 0.114 * (data[at + 2] ?? 0);
  }
  const ink = new Uint8Array(width * height);
  for (let y = 0; y < height; y += BLOCK) {
    for (let x = 0; x < width; x += BLOCK) inkBlock(light, ink, width, height, x, y);
  }
  return ink;
}

function inkBlock(
  light: Uint8Array,
  ink: Uint8Array,
  width: number,
  height: number,
  x0: number,
  y0: number,
): void {
  // The ground is looked up a little around the block, so that a block full of a letter has one.
  const counts = new Uint32Array(32);
  const [left, top] = [Math.max(0, x0 - BLOCK), Math.max(0, y0 - BLOCK / 2)];
  const [far, low] = [Math.min(width, x0 + 2 * BLOCK), Math.min(height, y0 + 1.5 * BLOCK)];
  for (let y = top; y < low; y += 1)
    for (let x = left; x < far; x += 1) {
      const bin = (light[y * width + x] ?? 0) >> 3;
      counts[bin] = (counts[bin] ?? 0) + 1;
    }
  const ground = counts.indexOf(Math.max(...counts)) * 8 + 4;
  let contrast = 0;
  for (let y = top; y < low; y += 1)
    for (let x = left; x < far; x += 1) {
      contrast = max(contrast, abs((light[y * width + x] ?? 0) - ground));
    }
  if (contrast < LEAST_CONTRAST) return;
  const least = contrast * SHARE;
  for (let y = y0; y < Math.min(height, y0 + BLOCK); y += 1)
    for (let x = x0; x < Math.min(width, x0 + BLOCK); x += 1) {
      if (abs((light[y * width + x] ?? 0) - ground) > least) ink[y * width + x] = 1;
    }
}

/** Bounding boxes of connected ink, by runs of rows that touch. */
function spots(ink: Uint8Array, width: number, height: number): Rect[] {
  const parent: number[] = [];
  const boxes: { x0: number; y0: number; x1: number; y1: number }[] = [];
  const find = (i: number): number => {
    let at = i;
    while (parent[at] !== at) at = parent[at] = parent[parent[at] ?? at] ?? at;
    return at;
  };
  let above: { x0: number; x1: number; id: number }[] = [];
  for (let y = 0; y < height; y += 1) {
    const here: typeof above = [];
    for (let x = 0; x < width; x += 1) {
      if (!ink[y * width + x]) continue;
      const x0 = x;
      while (x < width && ink[y * width + x]) x += 1;
      const id = parent.length;
      parent.push(id);
      boxes.push({ x0, y0: y, x1: x, y1: y + 1 });
      for (const run of above) {
        if (run.x0 > x) break;
        if (run.x1 < x0) continue;
        const [a, b] = [find(run.id), find(id)];
        if (a !== b) parent[Math.max(a, b)] = Math.min(a, b);
      }
      here.push({ x0, x1: x, id });
    }
    above = here;
  }
  const joined = new Map<number, { x0: number; y0: number; x1: number; y1: number }>();
  boxes.forEach((box, i) => {
    const root = find(i);
    const all = joined.get(root);
    if (!all) joined.set(root, { ...box });
    else {
      all.x0 = Math.min(all.x0, box.x0);
      all.y0 = Math.min(all.y0, box.y0);
      all.x1 = Math.max(all.x1, box.x1);
      all.y1 = Math.max(all.y1, box.y1);
    }
  });
  return [...joined.values()].map(({ x0, y0, x1, y1 }) => ({
    x: x0,
    y: y0,
    width: x1 - x0,
    height: y1 - y0,
  }));
}

/** Letters whose feet stand on one line, near enough to each other to be words. */
function runsOf(letters: readonly Rect[]): Rect[][] {
  const byFoot = new Map<number, Rect[]>();
  for (const letter of letters) {
    const foot = bottom(letter);
    byFoot.set(foot, [...(byFoot.get(foot) ?? []), letter]);
  }
  const runs: Rect[][] = [];
  for (const [foot, on] of byFoot) {
    // Round letters reach a pixel lower; those lines are told from the one they belong to.
    const lower = byFoot.get(foot + 1) ?? [];
    if (lower.length > on.length) continue;
    const upper = byFoot.get(foot - 1) ?? [];
    if (upper.length > on.length) continue;
    const all = [...on, ...lower, ...upper].sort((a, b) => a.x - b.x);
    let run: Rect[] = [];
    for (const letter of all) {
      const before = run.at(-1);
      if (before && letter.x - right(before) > 2.5 * Math.max(before.height, letter.height)) {
        if (run.length >= LEAST_LETTERS) runs.push(run);
        run = [];
      }
      run.push(letter);
    }
    if (run.length >= LEAST_LETTERS) runs.push(run);
  }
  return runs;
}

/** The lowest height that many letters have; null where there is none. */
function smallHeight(heights: readonly number[]): number | null {
  const sorted = [...heights].sort((a, b) => a - b);
  for (const height of sorted) {
    const alike = heights.filter((h) => h >= height && h <= height + 1);
    if (alike.length >= Math.max(3, heights.length * SMALL_ONES)) {
      return alike.reduce((sum, h) => sum + h, 0) / alike.length;
    }
  }
  return null;
}
