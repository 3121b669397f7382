import { createCanvas, ImageData, type Canvas } from '@napi-rs/canvas';
import sharp, { type Sharp } from 'sharp';
import type { ShotDocument } from '@/core/contracts/document';
import type { Sheet } from '@/core/marks/contract';
import { paintShot } from '@/core/paint/painter';
import { cutPixels, type RgbaPixels } from '@/core/raster/pixels';
import { isTurned, turnedPixels } from '@/core/shot/turn';
import type { Shaper } from '@/core/paint/shaper';

/** Painted pixels: RGBA, row-major, width × height × 4, not premultiplied. */
export interface Pixels {
  data: Uint8ClampedArray;
  width: number;
  height: number;
  /** True when no pixel is transparent. */
  opaque: boolean;
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
    read: () => ({
      data: new Uint8ClampedArray(surface.getImageData(0, 0, width, height).data),
      width,
      height,
    }),
  };
}

/** The part of the frame that a view shows, turned as the view says. */
async function shownPixels(
  frame: Uint8Array,
  opaque: boolean,
  { view: { crop, turn } }: ShotDocument,
): Promise<RgbaPixels> {
  const whole = sharp(frame, { limitInputPixels: false }).ensureAlpha();
  const read = async (from: Sharp): Promise<RgbaPixels> => {
    const { data, info } = await from.raw().toBuffer({ resolveWithObject: true });
    const { width, height } = info;
    return {
      data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
      width,
      height,
    };
  };
  if (isTurned(turn)) return cutPixels(turnedPixels(await read(whole), turn, opaque), crop);
  return read(whole.extract({ left: crop.x, top: crop.y, width: crop.width, height: crop.height }));
}

/** Paints a shot as it leaves: the view of the frame with its marks, and nothing else. */
export async function flatten(
  { frame, opaque, document }: { frame: Uint8Array; opaque: boolean; document: ShotDocument },
  shaper: Shaper,
): Promise<Pixels> {
  const { crop } = document.view;
  const cut = bitmap(await shownPixels(frame, opaque, document));
  const canvas = createCanvas(crop.width, crop.height);
  const surface = canvas.getContext('2d');
  paintShot(surface, document, { shaper, bitmap, sheet }, (to) =>
    to.drawImage(cut, crop.x, crop.y),
  );
  const { data: painted } = surface.getImageData(0, 0, crop.width, crop.height);
  // Marks cover or multiply, and neither lets anything through; a free shape does.
  return {
    data: painted,
    width: crop.width,
    height: crop.height,
    opaque: opaque && !document.view.shape && !document.view.turn?.angle,
  };
}
