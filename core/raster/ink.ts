import type { Point } from '../geometry/point';
import { layout, type PlanarPixels } from './planar';
import type { ReadablePixels } from './pixels';
import { BITS, tablesOf, weightsOf } from './yCbCr';

/**
 * What is painted over some pixels where that is the same whatever they show. It is laid in groups:
 * the pixels that have one colour in common.
 */
export interface Ink {
  /** A group has so many pixels across and down. */
  step: 1 | 2;
  /** Of each group that is painted on, the column and the row of its first pixel. */
  at: Uint16Array;
  /** Of each pixel of those groups, row by row: what is added to red, green and blue, 0–255. */
  add: Uint8Array;
  /** The same: which share of what was there is left, 0–1. */
  keep: Float32Array;
}

/** By what is measured: red, green and blue of what was painted over all black, all white and others. */
export interface Trial {
  onBlack: ReadablePixels;
  onWhite: ReadablePixels;
  onOthers: ReadablePixels;
  others: ReadablePixels;
}

/** What was painted may be rounded twice, 0–255. */
const ROUNDED = 1.5;

/**
 * Measures what was painted.
 * @param most pixels that it may touch
 * @returns null where it is not the same over other pixels, or touches more
 */
export function inkOf(trial: Trial, step: 1 | 2, most: number): Ink | null {
  const { onBlack, onWhite } = trial;
  const { width, height } = onBlack;
  const touched = touchedGroups(trial, step);
  if (!touched || touched.length * step * step > most) return null;
  const each = step * step * 3;
  const ink: Ink = {
    step,
    at: new Uint16Array(2 * touched.length),
    add: new Uint8Array(each * touched.length),
    keep: new Float32Array(each * touched.length),
  };
  touched.forEach(({ x, y }, n) => {
    ink.at.set([x, y], 2 * n);
    for (let i = 0; i < step * step; i += 1) {
      const [column, row] = [x + (i % step), y + Math.floor(i / step)];
      // Of a group at an odd edge the pixels beyond it change nothing.
      const from = column < width && row < height ? 4 * (row * width + column) : null;
      for (let c = 0; c < 3; c += 1) {
        const black = from === null ? 0 : (onBlack.data[from + c] ?? 0);
        const white = from === null ? 255 : (onWhite.data[from + c] ?? 255);
        ink.add[each * n + 3 * i + c] = black;
        ink.keep[each * n + 3 * i + c] = (white - black) / 255;
      }
    }
  });
  return ink;
}

function touchedGroups({ onBlack, onWhite, onOthers, others }: Trial, step: number) {
  const { width, height } = onBlack;
  const is = new Uint8Array(Math.ceil(width / step) * Math.ceil(height / step));
  for (let i = 0; i < width * height * 4; i += 1) {
    if (i % 4 === 3) continue;
    const black = onBlack.data[i] ?? 0;
    const white = onWhite.data[i] ?? 255;
    const expected = black + ((white - black) * (others.data[i] ?? 0)) / 255;
    if (Math.abs((onOthers.data[i] ?? 0) - expected) > ROUNDED) return null;
    if (black === 0 && white === 255) continue;
    const pixel = Math.floor(i / 4);
    const row = Math.floor(Math.floor(pixel / width) / step);
    is[row * Math.ceil(width / step) + Math.floor((pixel % width) / step)] = 1;
  }
  const groups: Point[] = [];
  const across = Math.ceil(width / step);
  is.forEach((one, i) => {
    if (one === 1) groups.push({ x: step * (i % across), y: step * Math.floor(i / across) });
  });
  return groups;
}

/** Lays ink over pixels whose groups are as large. @param place where its first group begins */
export function layInk(into: PlanarPixels, ink: Ink, place: Point): void {
  const { data, planes, width, height } = into;
  const { bright, redOfCr, greenOfCb, greenOfCr, blueOfCb } = tablesOf(planes);
  const { brightness, colours } = weightsOf(planes);
  const [, cb, cr] = layout(into, planes);
  const { step, at } = ink;
  const each = step * step;
  for (let n = 0; n < at.length / 2; n += 1) {
    const x = place.x + (at[2 * n] ?? 0);
    const y = place.y + (at[2 * n + 1] ?? 0);
    const colour = (y / step) * cb.width + x / step;
    const b = data[cb.at + colour] ?? 0;
    const r = data[cr.at + colour] ?? 0;
    const greenOf = (greenOfCb[b] ?? 0) + (greenOfCr[r] ?? 0);
    let reds = 0;
    let greens = 0;
    let blues = 0;
    let count = 0;
    for (let i = 0; i < each; i += 1) {
      const column = x + (i % step);
      const row = y + (i >= step ? 1 : 0);
      if (column >= width || row >= height) continue;
      const own = 3 * (each * n + i);
      const luma = row * width + column;
      const light = bright[data[luma] ?? 0] ?? 0;
      const red = laid(ink, own, light + (redOfCr[r] ?? 0));
      const green = laid(ink, own + 1, light + greenOf);
      const blue = laid(ink, own + 2, light + (blueOfCb[b] ?? 0));
      reds += red;
      greens += green;
      blues += blue;
      count += 1;
      if (isTouched(ink, own)) data[luma] = brightness(red, green, blue);
    }
    data[cb.at + colour] = colours.blue(reds / count, greens / count, blues / count);
    data[cr.at + colour] = colours.red(reds / count, greens / count, blues / count);
  }
}

const isTouched = ({ keep }: Ink, at: number): boolean =>
  keep[at] !== 1 || keep[at + 1] !== 1 || keep[at + 2] !== 1;

/** What becomes of a channel, 0–255. @param before as `tablesOf` adds it up */
function laid({ add, keep }: Ink, at: number, before: number): number {
  const value = Math.min(255, Math.max(0, before >> BITS));
  return (add[at] ?? 0) + (keep[at] ?? 1) * value;
}
