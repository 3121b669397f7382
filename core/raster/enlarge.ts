import type { RgbaPixels } from './pixels';

/**
 * Enlarges pixels, as squares or bilinearly. Transparent ones are weighed by their opacity.
 * @param width of the result, at least 1
 * @param height of the result, at least 1
 */
export function enlarge(
  from: RgbaPixels,
  width: number,
  height: number,
  sharp: boolean,
): RgbaPixels {
  return sharp ? squares(from, width, height) : bilinear(from, width, height);
}

function squares(from: RgbaPixels, width: number, height: number): RgbaPixels {
  const data = new Uint8ClampedArray(width * height * 4);
  const words = new Uint32Array(data.buffer);
  const source = new Uint32Array(from.data.buffer, from.data.byteOffset, from.width * from.height);
  for (let y = 0; y < height; y += 1) {
    const row = Math.floor(((y + 0.5) * from.height) / height) * from.width;
    for (let x = 0; x < width; x += 1) {
      words[y * width + x] = source[row + Math.floor(((x + 0.5) * from.width) / width)] ?? 0;
    }
  }
  return { data, width, height };
}

function bilinear(from: RgbaPixels, width: number, height: number): RgbaPixels {
  const data = new Uint8ClampedArray(width * height * 4);
  const source = from.data;
  for (let y = 0; y < height; y += 1) {
    const v = Math.min(Math.max(((y + 0.5) * from.height) / height - 0.5, 0), from.height - 1);
    const y0 = Math.floor(v);
    const y1 = Math.min(y0 + 1, from.height - 1);
    const fy = v - y0;
    for (let x = 0; x < width; x += 1) {
      const u = Math.min(Math.max(((x + 0.5) * from.width) / width - 0.5, 0), from.width - 1);
      const x0 = Math.floor(u);
      const x1 = Math.min(x0 + 1, from.width - 1);
      const fx = u - x0;
      const [a, b] = [(y0 * from.width + x0) * 4, (y0 * from.width + x1) * 4];
      const [c, d] = [(y1 * from.width + x0) * 4, (y1 * from.width + x1) * 4];
      const [wa, wb] = [(1 - fx) * (1 - fy), fx * (1 - fy)];
      const [wc, wd] = [(1 - fx) * fy, fx * fy];
      const alphaA = (source[a + 3] ?? 0) * wa;
      const alphaB = (source[b + 3] ?? 0) * wb;
      const alphaC = (source[c + 3] ?? 0) * wc;
      const alphaD = (source[d + 3] ?? 0) * wd;
      const alpha = alphaA + alphaB + alphaC + alphaD;
      const to = (y * width + x) * 4;
      data[to + 3] = alpha;
      if (alpha === 0) continue;
      for (let k = 0; k < 3; k += 1) {
        data[to + k] =
          ((source[a + k] ?? 0) * alphaA +
            (source[b + k] ?? 0) * alphaB +
            (source[c + k] ?? 0) * alphaC +
            (source[d + k] ?? 0) * alphaD) /
          alpha;
      }
    }
  }
  return { data, width, height };
}
