import { createCanvas, ImageData } from '@napi-rs/canvas';
import sharp from 'sharp';
import type { ShotDocument } from '@/core/contracts/document';
import { paintShot } from '@/core/paint/painter';
import type { RgbaPixels } from '@/core/raster/pixels';
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
export function bitmap({ data, width, height }: RgbaPixels): unknown {
  const canvas = createCanvas(width, height);
  canvas.getContext('2d').putImageData(new ImageData(data, width, height), 0, 0);
  return canvas;
}

/** Paints a shot as it leaves: the view of the frame with its marks, and nothing else. */
export async function flatten(
  { frame, opaque, document }: { frame: Uint8Array; opaque: boolean; document: ShotDocument },
  shaper: Shaper,
): Promise<Pixels> {
  const { crop } = document.view;
  const { data } = await sharp(frame, { limitInputPixels: false })
    .extract({ left: crop.x, top: crop.y, width: crop.width, height: crop.height })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const canvas = createCanvas(crop.width, crop.height);
  const surface = canvas.getContext('2d');
  const pixels = new ImageData(
    new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
    crop.width,
    crop.height,
  );
  // putImageData knows no transform: the cut-out pixels start at the canvas's own corner.
  paintShot(surface, document, { shaper, bitmap }, () => surface.putImageData(pixels, 0, 0));
  const { data: painted } = surface.getImageData(0, 0, crop.width, crop.height);
  // Marks cover or multiply, and neither lets anything through; a free shape does.
  return {
    data: painted,
    width: crop.width,
    height: crop.height,
    opaque: opaque && !document.view.shape,
  };
}
