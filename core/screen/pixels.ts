import { bottom, right, type Rect } from '../geometry/rect';

/** How a display lays out one pixel; masks say which bits hold which colour. */
export interface PixelLayout {
  bitsPerPixel: number;
  red: number;
  green: number;
  blue: number;
  /** True when the most significant byte comes first. */
  bigEndian: boolean;
  /** Bits that each row is rounded up to. */
  rowPad: number;
}

/** What 32-bit displays nearly always use: blue, green, red, unused. */
const isBgrx = (l: PixelLayout): boolean =>
  l.bitsPerPixel === 32 &&
  !l.bigEndian &&
  l.red === 0xff0000 &&
  l.green === 0xff00 &&
  l.blue === 0xff;

/** Bytes of one row of a picture, its end included. */
export const rowBytes = (width: number, { bitsPerPixel, rowPad }: PixelLayout): number =>
  (Math.ceil((width * bitsPerPixel) / rowPad) * rowPad) / 8;

/**
 * Pixels of a display as opaque RGBA, row-major, width × height × 4.
 * @throws RangeError when a pixel has neither 16 nor 32 bits, or there are too few bytes
 */
export function toRgba(
  bytes: Uint8Array,
  width: number,
  height: number,
  layout: PixelLayout,
): Uint8ClampedArray<ArrayBuffer> {
  const { bitsPerPixel } = layout;
  if (bitsPerPixel !== 16 && bitsPerPixel !== 32) {
    throw new RangeError(`A display of ${bitsPerPixel} bits a pixel cannot be read.`);
  }
  const perRow = rowBytes(width, layout);
  if (bytes.length < perRow * height) throw new RangeError('The display sent too few pixels.');
  if (isBgrx(layout) && bytes.byteOffset % 4 === 0) return swapped(bytes, width * height);
  const out = new Uint8ClampedArray(width * height * 4);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const read = channelReaders(layout);
  for (let y = 0, to = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, to += 4) {
      const at = y * perRow + (x * bitsPerPixel) / 8;
      const value =
        bitsPerPixel === 32
          ? view.getUint32(at, !layout.bigEndian)
          : view.getUint16(at, !layout.bigEndian);
      out[to] = read.red(value);
      out[to + 1] = read.green(value);
      out[to + 2] = read.blue(value);
      out[to + 3] = 255;
    }
  }
  return out;
}

/**
 * Pixels of a window that can be transparent, as RGBA that is not premultiplied, row-major, width ×
 * height × 4. Such windows hold their colours premultiplied (X Rendering Extension, “Picture
 * formats”); the bits of a pixel that no colour takes are its alpha.
 * @param opaque what parts without transparency drew into it: there those bits say nothing
 * @throws RangeError as `toRgba`
 */
export function toRgbaWithAlpha(
  bytes: Uint8Array,
  width: number,
  height: number,
  layout: PixelLayout,
  opaque: Rect | null,
): Uint8ClampedArray<ArrayBuffer> {
  const out = toRgba(bytes, width, height, layout);
  const mask = ~(layout.red | layout.green | layout.blue);
  if (layout.bitsPerPixel !== 32 || mask === 0) return out;
  const [shift, most] = [lowest(mask), mask >>> lowest(mask)];
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  for (let y = 0, i = 0; y < height; y += 1) {
    const crosses = opaque && y >= opaque.y && y < bottom(opaque);
    const [from, to] = crosses ? [opaque.x, right(opaque)] : [width, width];
    for (let x = 0; x < width; x += 1, i += 4) {
      if (x >= from && x < to) continue;
      const alpha = (view.getUint32(i, !layout.bigEndian) >>> shift) / most;
      for (let c = 0; c < 3; c += 1) out[i + c] = alpha && (out[i + c] as number) / alpha;
      out[i + 3] = alpha * 255;
    }
  }
  return out;
}

/** The place of the lowest bit that is set. */
const lowest = (mask: number): number => 31 - Math.clz32(mask & -mask);

/** Blue, green, red and what is unused as red, green, blue and opaque. */
function swapped(bytes: Uint8Array, count: number): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(count * 4);
  // Signed, since these numbers fit into a register as they are: twice as fast as unsigned ones.
  const from = new Int32Array(bytes.buffer, bytes.byteOffset, count);
  const to = new Int32Array(out.buffer);
  for (let i = 0; i < count; i += 1) {
    const v = from[i] as number;
    to[i] = 0xff000000 | ((v & 0xff) << 16) | (v & 0xff00) | ((v >>> 16) & 0xff);
  }
  return out;
}

function channelReaders({ red, green, blue }: PixelLayout) {
  const reader = (mask: number) => {
    const shift = lowest(mask);
    const most = mask >>> shift;
    return (value: number) => Math.round((((value & mask) >>> shift) / most) * 255);
  };
  return { red: reader(red), green: reader(green), blue: reader(blue) };
}

/**
 * A pointer's pixels, packed as premultiplied ARGB words in little-endian order, as RGBA that is
 * not premultiplied.
 */
export function fromPremultipliedArgb(bytes: Uint8Array): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(bytes.length);
  for (let i = 0; i + 3 < bytes.length; i += 4) {
    const alpha = bytes[i + 3] ?? 0;
    const straight = (v: number) => (alpha === 0 ? 0 : Math.round((v * 255) / alpha));
    out[i] = straight(bytes[i + 2] ?? 0);
    out[i + 1] = straight(bytes[i + 1] ?? 0);
    out[i + 2] = straight(bytes[i] ?? 0);
    out[i + 3] = alpha;
  }
  return out;
}
