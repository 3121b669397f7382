import type { Rect } from '../geometry/rect';
import type { Size } from '../geometry/size';
import type { ReadablePixels, RgbaPixels } from './pixels';
import { BITS, tablesOf, weightsOf, type Planes } from './yCbCr';

/*
 * Pixels as films hold them: brightness Y and the colour differences Cb and Cr, each a plane of its
 * own, one byte a sample (ITU-T H.273, §8.3).
 */

/** Y, Cb and Cr one after the other, each row-major without gaps; of what is half, odd sides are rounded up. */
export interface PlanarPixels extends Size {
  data: Uint8Array<ArrayBuffer>;
  planes: Planes;
}

interface Plane extends Size {
  /** Where it begins in the data, bytes. */
  at: number;
  /** So many pixels one of its samples is for, across and down. */
  step: 1 | 2;
}

/** The three planes of so many pixels. */
export function layout({ width, height }: Size, { half }: Planes): [Plane, Plane, Plane] {
  const step = half ? 2 : 1;
  const [w, h] = [Math.ceil(width / step), Math.ceil(height / step)];
  const colour = { step, width: w, height: h } as const;
  const whole = width * height;
  return [
    { at: 0, step: 1, width, height },
    { ...colour, at: whole },
    { ...colour, at: whole + w * h },
  ];
}

/** How many bytes so many pixels take. */
export function planarLength(size: Size, planes: Planes): number {
  const [, , last] = layout(size, planes);
  return last.at + last.width * last.height;
}

/** @param data as long as `planarLength` says; otherwise made anew, and black in no range */
export const planarPixels = (
  { width, height }: Size,
  planes: Planes,
  data = new Uint8Array(planarLength({ width, height }, planes)),
): PlanarPixels => ({ width, height, planes, data });

/** A part of some pixels, which must lie within them and begin where samples meet. */
export function cutPlanar(from: PlanarPixels, part: Rect): PlanarPixels {
  const to = planarPixels(part, from.planes);
  const into = layout(to, to.planes);
  layout(from, from.planes).forEach((plane, i) => {
    const { at, width, height } = into[i] ?? plane;
    const first = plane.at + (part.y / plane.step) * plane.width + part.x / plane.step;
    for (let row = 0; row < height; row += 1) {
      const begin = first + row * plane.width;
      to.data.set(from.data.subarray(begin, begin + width), at + row * width);
    }
  });
  return to;
}

/** Puts some pixels into others of the same planes, at a place where samples meet; they must fit. */
export function putPlanar(
  into: PlanarPixels,
  from: PlanarPixels,
  { x, y }: { x: number; y: number },
): void {
  const target = layout(into, into.planes);
  layout(from, from.planes).forEach((plane, i) => {
    const to = target[i] ?? plane;
    const first = to.at + (y / to.step) * to.width + x / to.step;
    for (let row = 0; row < plane.height; row += 1) {
      const begin = plane.at + row * plane.width;
      into.data.set(from.data.subarray(begin, begin + plane.width), first + row * to.width);
    }
  });
}

/**
 * Leaves nothing of the pixels of some parts, which must lie within. A colour that is for pixels in
 * and out of a part is, too, of both: there it becomes one from beside it.
 */
export function blankPlanar({ data, planes, ...size }: PlanarPixels, parts: readonly Rect[]): void {
  const [, cb, cr] = layout(size, planes);
  const touched = new Uint8Array(cb.width * cb.height);
  const rows = (part: Rect, step: number, act: (from: number, to: number) => void) => {
    const [left, right] = [Math.floor(part.x / step), Math.ceil((part.x + part.width) / step)];
    const [top, bottom] = [Math.floor(part.y / step), Math.ceil((part.y + part.height) / step)];
    const width = Math.ceil(size.width / step);
    for (let row = top; row < bottom; row += 1) act(row * width + left, row * width + right);
  };
  for (const part of parts) {
    rows(part, 1, (from, to) => data.fill(16, from, to));
    rows(part, cb.step, (from, to) => {
      touched.fill(1, from, to);
      for (const { at } of [cb, cr]) data.fill(128, at + from, at + to);
    });
  }
  if (cb.step === 1) return;
  for (const part of parts) {
    rows(part, cb.step, (from, to) => {
      for (let at = from; at < to; at += 1) {
        const other = sharesColour(part, at % cb.width, Math.floor(at / cb.width))
          ? beside(touched, cb, at)
          : null;
        if (other === null) continue;
        for (const plane of [cb, cr]) data[plane.at + at] = data[plane.at + other] ?? 128;
      }
    });
  }
}

/** A colour for two by two pixels is for some in a part and for some that are not. */
const sharesColour = ({ x, y, width, height }: Rect, column: number, row: number): boolean =>
  2 * column < x || 2 * column + 2 > x + width || 2 * row < y || 2 * row + 2 > y + height;

/** A sample next to another that is not touched; null where there is none. */
function beside(touched: Uint8Array, { width }: Size, at: number): number | null {
  if (at % width > 0 && touched[at - 1] === 0) return at - 1;
  if (at % width < width - 1 && touched[at + 1] === 0) return at + 1;
  if (touched[at - width] === 0) return at - width;
  return touched[at + width] === 0 ? at + width : null;
}

/** Red, green and blue of every pixel (H.273, equations 38 to 61 inverted); all are opaque. */
export function rgbaOf({ data, planes, width, height }: PlanarPixels): RgbaPixels {
  const { bright, redOfCr, greenOfCb, greenOfCr, blueOfCb } = tablesOf(planes);
  const [, cb, cr] = layout({ width, height }, planes);
  const shift = planes.half ? 1 : 0;
  const rgba = new Uint8ClampedArray(width * height * 4);
  let to = 0;
  for (let row = 0; row < height; row += 1) {
    const blues = cb.at + (row >> shift) * cb.width;
    const reds = cr.at + (row >> shift) * cr.width;
    for (let column = 0; column < width; column += 1) {
      const y = bright[data[row * width + column] ?? 0] ?? 0;
      const b = data[blues + (column >> shift)] ?? 0;
      const r = data[reds + (column >> shift)] ?? 0;
      rgba[to] = (y + (redOfCr[r] ?? 0)) >> BITS;
      rgba[to + 1] = (y + (greenOfCb[b] ?? 0) + (greenOfCr[r] ?? 0)) >> BITS;
      rgba[to + 2] = (y + (blueOfCb[b] ?? 0)) >> BITS;
      rgba[to + 3] = 255;
      to += 4;
    }
  }
  return { data: rgba, width, height };
}

/** What pixels were made of, and what they were before they were painted on. */
export interface Before {
  planar: PlanarPixels;
  rgba: ReadablePixels;
}

/**
 * The planes of some opaque pixels (H.273, equations 38 to 61); where one sample is for several, of
 * their mean.
 * @param before of the same size: what is as it was there keeps its very samples
 */
export function planarOf(pixels: ReadablePixels, planes: Planes, before?: Before): PlanarPixels {
  const made = planarPixels(pixels, planes, before?.planar.data.slice());
  const changed = before ? changedIn(pixels, before.rgba) : null;
  const { data: rgba, width, height } = pixels;
  const { data } = made;
  const [, cb, cr] = layout(made, planes);
  const { brightness, colours } = weightsOf(planes);
  for (let i = 0, at = 0; i < width * height; i += 1, at += 4) {
    if (changed && changed[i] === 0) continue;
    const [r, g, b] = [rgba[at] ?? 0, rgba[at + 1] ?? 0, rgba[at + 2] ?? 0];
    data[i] = brightness(r, g, b);
    if (planes.half) continue;
    data[cb.at + i] = colours.blue(r, g, b);
    data[cr.at + i] = colours.red(r, g, b);
  }
  if (planes.half) halve(pixels, made, changed);
  return made;
}

/** One colour for two by two pixels: of those that are there the mean. */
function halve(
  { data: rgba, width, height }: ReadablePixels,
  { data, planes }: PlanarPixels,
  changed: Uint8Array | null,
): void {
  const [, cb, cr] = layout({ width, height }, planes);
  const { colours } = weightsOf(planes);
  for (let row = 0; row < cb.height; row += 1) {
    for (let column = 0; column < cb.width; column += 1) {
      const first = 2 * row * width + 2 * column;
      // At an odd edge the last one counts twice.
      const second = first + (2 * column + 1 < width ? 1 : 0);
      const down = 2 * row + 1 < height ? width : 0;
      const [third, fourth] = [first + down, second + down];
      if (changed && !(changed[first] || changed[second] || changed[third] || changed[fourth]))
        continue;
      const mean = (channel: number): number =>
        ((rgba[4 * first + channel] ?? 0) +
          (rgba[4 * second + channel] ?? 0) +
          (rgba[4 * third + channel] ?? 0) +
          (rgba[4 * fourth + channel] ?? 0)) /
        4;
      const [r, g, b] = [mean(0), mean(1), mean(2)];
      const at = row * cb.width + column;
      data[cb.at + at] = colours.blue(r, g, b);
      data[cr.at + at] = colours.red(r, g, b);
    }
  }
}

/** 1 where a pixel is another than before. */
function changedIn({ data: now }: ReadablePixels, { data: before }: ReadablePixels): Uint8Array {
  const changed = new Uint8Array(now.length / 4);
  for (let i = 0, at = 0; i < changed.length; i += 1, at += 4)
    if (now[at] !== before[at] || now[at + 1] !== before[at + 1] || now[at + 2] !== before[at + 2])
      changed[i] = 1;
  return changed;
}
