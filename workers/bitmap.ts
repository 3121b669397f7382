import type { RgbaPixels } from '@/core/raster/pixels';

/** Pixels as a canvas that another canvas can draw. */
export function bitmap({ data, width, height }: RgbaPixels): OffscreenCanvas {
  const canvas = new OffscreenCanvas(width, height);
  const surface = canvas.getContext('2d', { willReadFrequently: true });
  surface?.putImageData(new ImageData(data, width, height), 0, 0);
  return canvas;
}
