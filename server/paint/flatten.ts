import { createCanvas, ImageData, type Canvas } from '@napi-rs/canvas';
import sharp, { type Sharp } from 'sharp';
import type { ShotDocument } from '@/core/document/document';
import { adjustPixels } from '@/core/finish/adjust/pixels';
import type { Rect } from '@/core/geometry/rect';
import type { Size } from '@/core/geometry/size';
import type { PaintTools, Sheet } from '@/core/marks/contract';
import { sizeProblem } from '@/core/keep/fitSize';
import { adjustShown, hiddenPart, hideShown, paintShot } from '@/core/paint/painter';
import { paintedParts, type PaintedPart } from '@/core/paint/parts';
import { isPlain, plainlySurrounded } from '@/core/paint/plainly';
import { layoutOfShot, leavesOpaque, wholeSize } from '@/core/paint/whole';
import { cutPixels, putPixels, type RgbaPixels } from '@/core/raster/pixels';
import { isTurned, turnedPixels } from '@/core/document/turn';
import type { Shaper } from '@/core/drawing/shaper';
import { Fault } from '../base/fault';

/** Painted pixels: RGBA, row-major, width × height × 4, not premultiplied. */
export interface Pixels {
  data: Uint8ClampedArray;
  width: number;
  height: number;
  /** True when no pixel is transparent. */
  opaque: boolean;
}

/** What a shot is painted from. */
export interface Unpainted {
  /** PNG. */
  frame: Uint8Array;
  /** No pixel of the frame is transparent. */
  opaque: boolean;
  document: ShotDocument;
}

/** Pixels as a canvas that another can draw. */
export function bitmap({ data, width, height }: RgbaPixels): Canvas {
  const canvas = createCanvas(width, height);
  canvas.getContext('2d').putImageData(new ImageData(data, width, height), 0, 0);
  return canvas;
}

/** A canvas whose pixels can be read. */
export function sheet(width: number, height: number): Sheet {
  const canvas = createCanvas(width, height);
  const surface = canvas.getContext('2d');
  return {
    surface,
    image: canvas,
    read: (part = { x: 0, y: 0, width, height }) => ({
      data: new Uint8ClampedArray(
        surface.getImageData(part.x, part.y, part.width, part.height).data,
      ),
      width: part.width,
      height: part.height,
    }),
  };
}

/** The pixels of a picture. */
export async function decoded(image: Sharp): Promise<RgbaPixels> {
  const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  return { data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length), width, height };
}

/** A part of a frame, not decoded yet; from top to bottom, without the whole in memory. */
const partOf = (frame: Uint8Array, { x, y, width, height }: Rect): Sharp =>
  sharp(frame, { limitInputPixels: false, sequentialRead: true }).extract({
    left: x,
    top: y,
    width,
    height,
  });

/** The part of the frame that a view shows, turned as the view says. */
async function shownPixels({ frame, opaque, document }: Unpainted): Promise<RgbaPixels> {
  const { crop, turn } = document.view;
  if (!isTurned(turn)) return decoded(partOf(frame, crop));
  const whole = await decoded(sharp(frame, { limitInputPixels: false }));
  return turnedPixels(whole, turn, opaque, crop);
}

/**
 * The picture of an opaque shot on which nothing lies, off which nothing but its edges is cut: the
 * part of its frame in view is what leaves. Null for every other shot, which must be painted.
 */
export function unpainted({ frame, opaque, document }: Unpainted): Sharp | null {
  const { view } = document;
  const isItself = opaque && isBare(document) && !view.shape && !view.room && !isTurned(view.turn);
  return isItself ? partOf(frame, view.crop).removeAlpha() : null;
}

/** Nothing lies on it, and nothing is done to it. */
const isBare = ({ marks, finish }: ShotDocument): boolean => marks.length === 0 && !finish;

/** Paints a shot as it leaves: the view of the frame with its marks, and nothing else. */
export const flatten = async (shot: Unpainted, shaper: Shaper): Promise<Pixels> =>
  painted(await shownPixels(shot), shot, shaper);

/** The same of a frame that is pixels, all of them opaque. */
export function flattenPixels(frame: RgbaPixels, document: ShotDocument, shaper: Shaper): Pixels {
  const { crop, turn } = document.view;
  const shown = isTurned(turn) ? turnedPixels(frame, turn, true, crop) : cutPixels(frame, crop);
  return painted(shown, { opaque: true, document }, shaper);
}

/** What parts are painted on, kept for the next one of the same size. */
let drawingSheet: Canvas | null = null;

/**
 * A part of a shot as it leaves, the same to the pixel as in the whole.
 * @param given what of the frame is read for it: `needs`
 */
export function flattenPart(given: RgbaPixels, painting: PaintedPart, shaper: Shaper): RgbaPixels {
  const tools = { shaper, bitmap, sheet };
  const hidden = hiddenPart(given, painting, tools);
  if (hidden) return hidden;
  const { part, needs, document } = painting;
  const { crop } = document.view;
  // As large as the view: elsewhere the edges of shapes would be rounded otherwise.
  if (drawingSheet?.width !== crop.width || drawingSheet.height !== crop.height)
    drawingSheet = createCanvas(crop.width, crop.height);
  const surface = drawingSheet.getContext('2d');
  const [x, y] = [part.x - crop.x, part.y - crop.y];
  surface.save();
  surface.beginPath();
  surface.rect(x, y, part.width, part.height);
  surface.clip();
  surface.clearRect(x, y, part.width, part.height);
  const cut = bitmap(given);
  paintShot(surface, document, tools, (to) => to.drawImage(cut, needs.x, needs.y));
  surface.restore();
  const { data } = surface.getImageData(x, y, part.width, part.height);
  return { data: new Uint8ClampedArray(data), width: part.width, height: part.height };
}

/** Each part costs a millisecond by itself: with more marks all of it is painted as quickly. */
const MOST_MARKS = 24;
/** Pixels of a sheet that is kept. */
const MOST_KEPT = 10_000_000;

/**
 * Paints an opaque picture only where something lies on it, the same as painted as a whole: drawing
 * all of it and reading it back takes longer than all else.
 * @param shown as large as the view
 * @returns false where it must be painted as a whole, and nothing was done
 */
function paintedInPlace(shown: RgbaPixels, document: ShotDocument, tools: PaintTools): boolean {
  if (hideShown(shown, document, tools)) return true;
  const { finish: _, ...bare } = document;
  const { crop } = bare.view;
  const parts = bare.marks.length > MOST_MARKS ? null : paintedParts(bare, tools);
  if (!parts) return false;
  const inView = (rect: Rect): Rect => ({ ...rect, x: rect.x - crop.x, y: rect.y - crop.y });
  // All are made before any is put there: each is made of the picture as it was.
  const made = parts.map((one) => ({
    at: inView(one.part),
    pixels: flattenPart(cutPixels(shown, inView(one.needs)), one, tools.shaper),
  }));
  for (const { at, pixels } of made) putPixels(shown, pixels, at);
  if (crop.width * crop.height > MOST_KEPT) drawingSheet = null;
  return true;
}

/** @throws Fault 409 */
function checkSize(whole: Size): void {
  const problem = sizeProblem({ scaled: whole, sheet: whole });
  if (problem) throw new Fault(409, 'too-many-pixels', problem);
}

/** @param shown what the view shows of the frame */
function painted(
  shown: RgbaPixels,
  shot: Pick<Unpainted, 'opaque' | 'document'>,
  shaper: Shaper,
): Pixels {
  const { crop, shape, turn } = shot.document.view;
  const isWhole = shot.opaque && !turn?.angle && !shot.document.view.room;
  const isOpaque = isWhole && !shape;
  const document = isWhole ? adjustShown(shot.document, shown) : shot.document;
  const { surround, ...finish } = document.finish ?? {};
  const { adjust } = finish;
  const layout = layoutOfShot(document, shaper);
  if (surround && layout && isOpaque && isPlain(surround)) {
    checkSize(layout.whole);
    const bare = { ...document, finish };
    const picture = painted(shown, { opaque: true, document: bare }, shaper);
    const whole = plainlySurrounded(picture, surround, layout);
    return { ...whole, opaque: leavesOpaque(document, true, shaper) };
  }
  const tools = { shaper, bitmap, sheet };
  if (isOpaque && !surround && paintedInPlace(shown, document, tools)) {
    if (adjust) adjustPixels(shown, adjust);
    return { ...shown, opaque: true };
  }
  const cut = bitmap(shown);
  const { width, height } = layout?.whole ?? wholeSize(document, shaper);
  checkSize({ width, height });
  const canvas = createCanvas(width, height);
  const surface = canvas.getContext('2d');
  paintShot(surface, document, tools, (to) => to.drawImage(cut, crop.x, crop.y));
  const { data } = surface.getImageData(0, 0, width, height);
  // Marks cover or multiply, and neither lets anything through; a free shape does.
  return { data, width, height, opaque: leavesOpaque(document, shot.opaque, shaper) };
}
