/** Pixels: RGBA, row-major, width × height × 4, not premultiplied. */
export interface RgbaPixels {
  data: Uint8ClampedArray<ArrayBuffer>;
  width: number;
  height: number;
}

/** The same, to be read only: it may lie in memory that several threads see. */
export interface ReadablePixels {
  readonly data: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
}

/**
 * Pixels as one number each, alpha the highest byte as on every machine that runs this, to be read:
 * the same memory, or a copy of it where it does not begin at a whole number.
 */
export function wordsOf({ data, width, height }: ReadablePixels): Uint32Array {
  const whole = data.byteOffset % 4 === 0 ? data : data.slice();
  return new Uint32Array(whole.buffer, whole.byteOffset, width * height);
}

/** The alpha of an opaque pixel, where a pixel is one number as in `wordsOf`. */
export const OPAQUE = 0xff000000;

/** Whether no pixel is transparent, not even a little. */
export function isOpaque(pixels: ReadablePixels): boolean {
  const words = wordsOf(pixels);
  for (let i = 0; i < words.length; i += 1) if ((words[i] as number) >>> 24 !== 255) return false;
  return true;
}

/** Catmull–Rom weight for a distance (Keys 1981, a = −½). */
function weight(distance: number): number {
  const d = Math.abs(distance);
  if (d < 1) return 1.5 * d ** 3 - 2.5 * d ** 2 + 1;
  return d < 2 ? -0.5 * d ** 3 + 2.5 * d ** 2 - 4 * d + 2 : 0;
}

interface Tap {
  at: number;
  weight: number;
}

/** For every target pixel the source pixels it is made of; widened when it gets smaller. */
function taps(from: number, to: number): Tap[][] {
  const step = from / to;
  const reach = Math.max(1, step);
  return Array.from({ length: to }, (_, i) => {
    const middle = (i + 0.5) * step - 0.5;
    const first = Math.ceil(middle - 2 * reach);
    const last = Math.floor(middle + 2 * reach);
    const all: Tap[] = [];
    for (let at = first; at <= last; at += 1) {
      const w = weight((at - middle) / reach);
      if (w !== 0) all.push({ at: Math.min(Math.max(at, 0), from - 1), weight: w });
    }
    const sum = all.reduce((total, tap) => total + tap.weight, 0);
    return all.map((tap) => ({ ...tap, weight: tap.weight / sum }));
  });
}

/**
 * Scales a small picture smoothly, by bicubic convolution of premultiplied pixels.
 * @param width of the result, at least 1
 * @param height of the result, at least 1
 */
export function scaleSmoothly(from: RgbaPixels, width: number, height: number): RgbaPixels {
  if (width === from.width && height === from.height) return from;
  const across = taps(from.width, width);
  const down = taps(from.height, height);
  const rows = new Float64Array(width * from.height * 4);
  for (let y = 0; y < from.height; y += 1) {
    across.forEach((row, x) => {
      const to = (y * width + x) * 4;
      for (const tap of row) {
        const at = (y * from.width + tap.at) * 4;
        const alpha = (from.data[at + 3] ?? 0) * tap.weight;
        for (let c = 0; c < 3; c += 1) {
          rows[to + c] = (rows[to + c] ?? 0) + ((from.data[at + c] ?? 0) * alpha) / 255;
        }
        rows[to + 3] = (rows[to + 3] ?? 0) + alpha;
      }
    });
  }
  const data = new Uint8ClampedArray(width * height * 4);
  down.forEach((column, y) => {
    for (let x = 0; x < width; x += 1) {
      const sum = [0, 0, 0, 0];
      for (const tap of column) {
        const at = (tap.at * width + x) * 4;
        for (let c = 0; c < 4; c += 1) sum[c] = (sum[c] ?? 0) + (rows[at + c] ?? 0) * tap.weight;
      }
      const [r = 0, g = 0, b = 0, a = 0] = sum;
      const to = (y * width + x) * 4;
      if (a > 0) {
        data[to] = (r * 255) / a;
        data[to + 1] = (g * 255) / a;
        data[to + 2] = (b * 255) / a;
        data[to + 3] = a;
      }
    }
  });
  return { data, width, height };
}

/** A part of some pixels; it must lie within them. */
export function cutPixels(
  from: RgbaPixels,
  part: { x: number; y: number; width: number; height: number },
): RgbaPixels {
  const { x, y, width, height } = part;
  const data = new Uint8ClampedArray(width * height * 4);
  for (let row = 0; row < height; row += 1) {
    const at = ((y + row) * from.width + x) * 4;
    data.set(from.data.subarray(at, at + width * 4), row * width * 4);
  }
  return { data, width, height };
}

/** Lays those of some pixels that are opaque over others, as far as they lie on them; none is half so. */
export function layOver(
  into: RgbaPixels,
  from: RgbaPixels,
  { x, y }: { x: number; y: number },
): void {
  const [to, words] = [wordsOf(into), wordsOf(from)];
  const [left, right] = [Math.max(0, -x), Math.min(from.width, into.width - x)];
  for (let row = Math.max(0, -y); row < Math.min(from.height, into.height - y); row += 1) {
    const line = (y + row) * into.width + x;
    for (let column = left; column < right; column += 1) {
      const word = words[row * from.width + column] ?? 0;
      if (word >>> 24 === 255) to[line + column] = word;
    }
  }
}

/** Makes the pixels of a part, which must lie within them, black and opaque. */
export function blackOut(
  { data, width }: RgbaPixels,
  part: { x: number; y: number; width: number; height: number },
): void {
  for (let row = 0; row < part.height; row += 1) {
    const at = ((part.y + row) * width + part.x) * 4;
    data.fill(0, at, at + part.width * 4);
    for (let i = 0; i < part.width; i += 1) data[at + i * 4 + 3] = 255;
  }
}

/** Puts some pixels into others at a place; they must fit there. */
export function putPixels(
  into: RgbaPixels,
  { data, width, height }: ReadablePixels,
  at: { x: number; y: number },
): void {
  for (let row = 0; row < height; row += 1) {
    const to = ((at.y + row) * into.width + at.x) * 4;
    into.data.set(data.subarray(row * width * 4, (row + 1) * width * 4), to);
  }
}
