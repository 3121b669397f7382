import { bottom, right, union, type Rect } from '../geometry/rect';
import type { ReadablePixels } from '../raster/pixels';
import { inkSpots } from './ink';

/** Words of one size, standing beside each other. */
export interface TextRun {
  box: Rect;
  /** Height of a small x, pixels. */
  xHeight: number;
}

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
  const letters = inkSpots(picture).filter(
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
