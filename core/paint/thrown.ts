import { channelsOf } from '../finish/surround/background';
import { deviationOf, type Shadow } from '../finish/surround/shadow';
import { blurLine, blurPlane, blurReach } from '../raster/blur';
import { isOpaque, wordsOf, type RgbaPixels } from '../raster/pixels';

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
  const [r, g, b] = channelsOf(shadow.colour);
  const colour = (b << 16) | (g << 8) | r;
  const share = (shadow.strength / 100) * 255;
  const data = new Uint8ClampedArray(width * height * 4);
  const words = new Uint32Array(data.buffer);
  if (isOpaque(pixels)) {
    // The blur of a rectangle is that of its width times that of its height.
    const line = (length: number) => {
      const values = new Float32Array(length + 2 * reach);
      return blurLine(values.fill(1, reach, reach + length), deviation);
    };
    const [across, down] = [line(pixels.width), line(pixels.height)];
    for (let y = 0, at = 0; y < height; y += 1) {
      const by = (down[y] as number) * share;
      for (let x = 0; x < width; x += 1, at += 1) {
        words[at] = (((across[x] as number) * by + 0.5) << 24) | colour;
      }
    }
  } else {
    const blurred = blurPlane(alphaOf(pixels, reach), width, height, deviation);
    for (let at = 0; at < words.length; at += 1) {
      words[at] = (((blurred[at] as number) * share + 0.5) << 24) | colour;
    }
  }
  return { pixels: { data, width, height }, reach };
}

/** Alpha, 0–1, with nothing around it. */
function alphaOf(pixels: RgbaPixels, reach: number): Float32Array {
  const { width, height } = pixels;
  const words = wordsOf(pixels);
  const w = width + 2 * reach;
  const plane = new Float32Array(w * (height + 2 * reach));
  for (let y = 0, from = 0; y < height; y += 1) {
    for (let x = 0, to = (y + reach) * w + reach; x < width; x += 1, to += 1, from += 1) {
      plane[to] = ((words[from] as number) >>> 24) / 255;
    }
  }
  return plane;
}
