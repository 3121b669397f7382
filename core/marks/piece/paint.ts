import { identity, multiply, rotation, translation } from '../../geometry/matrix';
import { cornersOf } from '../../geometry/mapping';
import { boundsOf, centre, outerPixels, type Rect } from '../../geometry/rect';
import type { Surface } from '../../drawing/surface';
import { fromBase64 } from '../../raster/base64';
import { cutPixels, scaleSmoothly, type RgbaPixels } from '../../raster/pixels';
import { warp } from '../../raster/warp';
import type { Patch, PaintTools, Scene } from '../contract';
import { turnSurface } from '../shared/turnable';
import type { PieceMark, PointerPixels } from './schema';
import { paintPointer, SHAPE_SIDE } from './shapes';

export function paintPiece(
  surface: Surface,
  mark: PieceMark,
  tools: PaintTools,
  scene: Scene,
): void {
  const { pixels, pointer, picture } = mark;
  if (picture !== undefined) {
    const whole = scene.picture(picture);
    if (whole) paintPixels(surface, mark, cutOut(whole, mark), tools);
  } else if (pixels && (!pointer || pixels.width === Math.round(mark.width))) {
    paintPixels(surface, mark, unpack(pixels), tools);
  } else if (pointer) {
    if (mark.angle) turnSurface(surface, centre(mark), mark.angle);
    const { x, y, width, height, hotSpot } = mark;
    const at = { x: x + hotSpot.x * width, y: y + hotSpot.y * height };
    paintPointer(surface, pointer, at, height / SHAPE_SIDE);
  }
}

/**
 * Pixels are scaled and turned in core and drawn at whole places, since canvases differ in how they
 * do that. While they are pulled about in the editor the canvas may do it, which is faster.
 */
function paintPixels(surface: Surface, mark: PieceMark, from: RgbaPixels, tools: PaintTools): void {
  if (tools.live) {
    surface.save();
    if (mark.angle) turnSurface(surface, centre(mark), mark.angle);
    surface.translate(mark.x, mark.y);
    surface.scale(mark.width / from.width, mark.height / from.height);
    surface.drawImage(tools.bitmap(from), 0, 0);
    surface.restore();
    return;
  }
  const { x, y, pixels } = placed(mark, from);
  surface.drawImage(tools.bitmap(pixels), x, y);
}

const cuts = new WeakMap<RgbaPixels, { key: string; pixels: RgbaPixels }>();

/** The part of a picture that a piece shows. */
function cutOut(whole: RgbaPixels, { cut }: PieceMark): RgbaPixels {
  if (!cut || (cut.width === whole.width && cut.height === whole.height)) return whole;
  const key = JSON.stringify(cut);
  const known = cuts.get(whole);
  if (known?.key === key) return known.pixels;
  const pixels = cutPixels(whole, cut);
  cuts.set(whole, { key, pixels });
  return pixels;
}

const patches = new WeakMap<RgbaPixels, { key: string; patch: Patch }>();

/** The pixels as they lie on the picture: in their size, at their angle, at whole pixels. */
function placed({ x, y, width, height, angle = 0 }: PieceMark, from: RgbaPixels): Patch {
  const key = JSON.stringify([x, y, width, height, angle]);
  const known = patches.get(from);
  if (known?.key === key) return known.patch;
  const w = Math.max(1, Math.round(width));
  const h = Math.max(1, Math.round(height));
  const scaled = scaleSmoothly(from, w, h);
  const at = { x: Math.round(x), y: Math.round(y) };
  const patch =
    angle === 0 ? { ...at, pixels: scaled } : turned(scaled, { ...at, width: w, height: h }, angle);
  patches.set(from, { key, patch });
  return patch;
}

function turned(pixels: RgbaPixels, r: Rect, angle: number): Patch {
  const box = outerPixels(boundsOf(cornersOf(r, angle)));
  const c = centre(r);
  const steps = [
    translation(-r.x, -r.y),
    translation(c.x, c.y),
    rotation(-angle),
    translation(-c.x, -c.y),
  ];
  const toPixels = steps.reduce(multiply, identity);
  const toSource = multiply(toPixels, translation(box.x, box.y));
  return {
    x: box.x,
    y: box.y,
    pixels: warp(pixels, toSource, { x: 0, y: 0, width: box.width, height: box.height }),
  };
}

const unpacked = new WeakMap<PointerPixels, RgbaPixels>();

function unpack(packed: PointerPixels): RgbaPixels {
  const known = unpacked.get(packed);
  if (known) return known;
  const { width, height, rgba } = packed;
  const pixels = { width, height, data: new Uint8ClampedArray(fromBase64(rgba).buffer) };
  unpacked.set(packed, pixels);
  return pixels;
}
