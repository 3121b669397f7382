import { channelsOf } from '../finish/surround/background';
import { deviationOf, type Shadow } from '../finish/surround/shadow';
import { blurLine, blurPlane, blurReach } from '../raster/blur';
import type { RgbaPixels } from '../raster/pixels';

/** A shadow and how far it reaches beyond what throws it, on each side. */
export interface Thrown {
  pixels: RgbaPixels;
  reach: number;
}

/**
 * The shadow of some pixels, unmoved.
 * @param pixels RGBA, row-major; only their alpha counts
 * @param scale pixels for one of the frame
 */
export function shadowOf(pixels: RgbaPixels, shadow: Shadow, scale = 1): Thrown {
  const deviation = deviationOf(shadow) * scale;
  const reach = blurReach(deviation);
  const [width, height] = [pixels.width + 2 * reach, pixels.height + 2 * reach];
  const alpha = isOpaque(pixels)
    ? ofRectangle(pixels, deviation, reach)
    : ofAny(pixels, deviation, reach);
  const [r, g, b] = channelsOf(shadow.colour);
  const colour = (b << 16) | (g << 8) | r;
  const data = new Uint8ClampedArray(width * height * 4);
  const words = new Uint32Array(data.buffer);
  const share = (shadow.strength / 100) * 255;
  for (let y = 0, at = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, at += 1) {
      words[at] = (Math.round(alpha(x, y, at) * share) << 24) | colour;
    }
  }
  return { pixels: { data, width, height }, reach };
}

const isOpaque = ({ data }: RgbaPixels): boolean => {
  for (let i = 3; i < data.length; i += 4) if (data[i] !== 255) return false;
  return true;
};

type Alpha = (x: number, y: number, at: number) => number;

/** The blur of a rectangle is that of its width times that of its height. */
function ofRectangle({ width, height }: RgbaPixels, deviation: number, reach: number): Alpha {
  const line = (length: number) => {
    const values = new Float32Array(length + 2 * reach);
    values.fill(1, reach, reach + length);
    return blurLine(values, deviation);
  };
  const [across, down] = [line(width), line(height)];
  return (x, y) => (across[x] as number) * (down[y] as number);
}

function ofAny({ data, width, height }: RgbaPixels, deviation: number, reach: number): Alpha {
  const [w, h] = [width + 2 * reach, height + 2 * reach];
  const plane = new Float32Array(w * h);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0, to = (y + reach) * w + reach; x < width; x += 1, to += 1) {
      plane[to] = (data[(y * width + x) * 4 + 3] as number) / 255;
    }
  }
  const blurred = blurPlane(plane, w, h, deviation);
  return (_x, _y, at) => blurred[at] as number;
}
