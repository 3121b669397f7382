import type { Shaper } from '@/core/drawing/shaper';
import type { Point } from '@/core/geometry/point';
import type { Rect } from '@/core/geometry/rect';
import type { Size } from '@/core/geometry/size';
import type { PaintedPart } from '@/core/paint/parts';
import {
  blankPlanar,
  cutPlanar,
  planarLength,
  planarOf,
  planarPixels,
  putPlanar,
  rgbaOf,
  type PlanarPixels,
} from '@/core/raster/planar';
import type { Planes } from '@/core/raster/yCbCr';
import { inkOf, type Ink } from '@/core/raster/ink';
import { randomFrom } from '@/core/random/random';
import {
  blackOut,
  cutPixels,
  putPixels,
  type ReadablePixels,
  type RgbaPixels,
} from '@/core/raster/pixels';
import { flattenPart } from './flatten';

/** A picture of a clip: RGBA, or in planes as films hold it. */
export type ClipPixels = RgbaPixels | PlanarPixels;
/** The same, to be read only. */
export type ReadableClip = ReadablePixels | PlanarPixels;

/** @param planes null for RGBA */
export const bytesFor = (size: Size, planes: Planes | null): number =>
  planes ? planarLength(size, planes) : size.width * size.height * 4;

/** The picture that some bytes are, which stay where they are. */
export function pixelsIn(bytes: Buffer, size: Size, planes: Planes | null): ClipPixels {
  const { buffer, byteOffset, length } = bytes;
  if (planes)
    return planarPixels(size, planes, new Uint8Array(buffer as ArrayBuffer, byteOffset, length));
  const data = new Uint8ClampedArray(buffer as ArrayBuffer, byteOffset, length);
  return { data, width: size.width, height: size.height };
}

export const bytesOf = ({ data }: ReadableClip): Uint8Array =>
  new Uint8Array(data.buffer, data.byteOffset, data.length);

export const cut = (from: ClipPixels, part: Rect): ClipPixels =>
  'planes' in from ? cutPlanar(from, part) : cutPixels(from, part);

/** @throws Error where one is in planes and the other is not */
export function put(into: ClipPixels, from: ReadableClip, at: Point): void {
  if ('planes' in into && 'planes' in from) return putPlanar(into, from, at);
  if ('planes' in into || 'planes' in from) throw new Error('These are of two kinds.');
  putPixels(into, from, at);
}

/** Leaves nothing of what is seen in some parts. */
export function blank(pixels: ClipPixels, parts: readonly Rect[]): void {
  if ('planes' in pixels) return blankPlanar(pixels, parts);
  for (const part of parts) blackOut(pixels, part);
}

/** A part of a picture as it leaves, as it was given. @param given what of the picture is read for it */
export function flattenClipPart(
  given: ClipPixels,
  part: PaintedPart,
  shaper: Shaper,
): RgbaPixels | PlanarPixels {
  if (!('planes' in given)) return flattenPart(given, part, shaper);
  const rgba = rgbaOf(given);
  const painted = flattenPart(rgba, part, shaper);
  const { needs } = part;
  const place = { ...part.part, x: part.part.x - needs.x, y: part.part.y - needs.y };
  const before = { planar: cutPlanar(given, place), rgba: cutPixels(rgba, place) };
  return planarOf(painted, given.planes, before);
}

/** Pixels that may be painted on outside of the pool: it takes no longer than copying the picture. */
const MOST_INK = 20_000;

/** What lies on a part, where that is the same whatever it shows; else null. @param step as in `Ink` */
export function inkOn(part: PaintedPart, step: 1 | 2, shaper: Shaper): Ink | null {
  const { needs } = part;
  const filled = (of: (i: number) => number): RgbaPixels => {
    const data = new Uint8ClampedArray(needs.width * needs.height * 4);
    for (let i = 0; i < data.length; i += 1) data[i] = i % 4 === 3 ? 255 : of(i);
    return { data, width: needs.width, height: needs.height };
  };
  const next = randomFrom(1);
  const others = filled(() => 255 * next());
  const painted = (given: RgbaPixels) => flattenPart(given, part, shaper);
  const place = { ...part.part, x: part.part.x - needs.x, y: part.part.y - needs.y };
  const trial = {
    onBlack: painted(filled(() => 0)),
    onWhite: painted(filled(() => 255)),
    onOthers: painted(others),
    others: cutPixels(others, place),
  };
  return inkOf(trial, step, MOST_INK);
}
