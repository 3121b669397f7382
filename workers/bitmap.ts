import type { Sheet } from '@/core/marks/contract';
import type { RgbaPixels } from '@/core/raster/pixels';

function cpuCanvas(width: number, height: number) {
  const canvas = new OffscreenCanvas(width, height);
  const surface = canvas.getContext('2d', { willReadFrequently: true });
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  return { canvas, surface };
}

const made = new WeakMap<RgbaPixels, OffscreenCanvas>();

/** Pixels as a canvas that another canvas can draw; the same pixels give the same canvas. */
export function bitmap(pixels: RgbaPixels): OffscreenCanvas {
  const known = made.get(pixels);
  if (known) return known;
  const { data, width, height } = pixels;
  const { canvas, surface } = cpuCanvas(width, height);
  surface.putImageData(new ImageData(data, width, height), 0, 0);
  made.set(pixels, canvas);
  return canvas;
}

/** A canvas in main memory whose pixels can be read. */
export function sheet(width: number, height: number): Sheet {
  const { canvas, surface } = cpuCanvas(width, height);
  return {
    surface,
    image: canvas,
    read: (part = { x: 0, y: 0, width, height }) => ({
      data: surface.getImageData(part.x, part.y, part.width, part.height).data,
      width: part.width,
      height: part.height,
    }),
  };
}
