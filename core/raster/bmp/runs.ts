import { BmpProblem, type BmpHeader } from './header';

/** Second byte after a zero; larger ones say how many pixels follow as they are. */
const END_OF_ROW = 0;
const END = 1;
const JUMP = 2;

/** The i-th pixel of those that begin at a byte, as 0xRRGGBB. */
type Colour = (at: number, i: number) => number;

/** How runs of a depth are written. */
interface Signs {
  /** Bytes of the colours of a run. */
  run: number;
  /** Of a run, which repeats what it holds. */
  repeated: Colour;
  /** Of pixels as they are. */
  each: Colour;
}

function signsOf(bytes: Uint8Array, { bits, palette }: BmpHeader): Signs {
  const byte = (at: number): number => bytes[at] ?? 0;
  const of = (index: number): number =>
    ((palette[index * 3] ?? 0) << 16) |
    ((palette[index * 3 + 1] ?? 0) << 8) |
    (palette[index * 3 + 2] ?? 0);
  const half = (at: number, i: number): number => of(i & 1 ? byte(at) & 15 : byte(at) >> 4);
  const three = (at: number): number => (byte(at + 2) << 16) | (byte(at + 1) << 8) | byte(at);
  if (bits === 4) return { run: 1, repeated: half, each: (at, i) => half(at + (i >> 1), i) };
  if (bits === 8)
    return { run: 1, repeated: (at) => of(byte(at)), each: (at, i) => of(byte(at + i)) };
  return { run: 3, repeated: three, each: (at, i) => three(at + 3 * i) };
}

/**
 * Decodes runs of 4, 8 or 24 bits a pixel into RGBA. What they leave out has the first colour.
 * @param rows where a row of the file begins in `data`, bytes
 * @throws BmpProblem when a run lies below the picture, or the file ends before the picture does
 * Source: Microsoft, “Bitmap Compression”; 24 bits: Encyclopedia of Graphics File Formats, “OS/2 Bitmap”
 */
export function readRuns(
  bytes: Uint8Array,
  header: BmpHeader,
  rows: (y: number) => number,
  data: Uint8Array,
): void {
  const { width, height, bits, palette } = header;
  const { run, repeated, each } = signsOf(bytes, header);
  const [red = 0, green = 0, blue = 0] = palette;
  data.set([red, green, blue, 255]);
  // What is there already is doubled until all is full.
  for (let at = 4; at < data.length; at *= 2) data.copyWithin(at, 0, at);
  let [x, y, at] = [0, 0, header.start];
  const paint = (colour: Colour, from: number, count: number) => {
    if (y >= height) throw new BmpProblem(null);
    let out = rows(y) + x * 4;
    // Some writers fill the last byte of a row with a pixel that is none.
    const shown = Math.min(count, width - x);
    for (let i = 0; i < shown; i += 1) {
      const value = colour(from, i);
      data[out] = value >> 16;
      data[out + 1] = (value >> 8) & 255;
      data[out + 2] = value & 255;
      out += 4;
    }
    x += count;
  };
  while (at + 2 <= bytes.length) {
    const [count = 0, sign = 0] = bytes.subarray(at, at + 2);
    if (count > 0) {
      if (at + 1 + run > bytes.length) break;
      paint(repeated, at + 1, count);
      at += 1 + run;
    } else if (sign === END) {
      return;
    } else if (sign === END_OF_ROW) {
      [x, y, at] = [0, y + 1, at + 2];
    } else if (sign === JUMP) {
      x += bytes[at + 2] ?? 0;
      y += bytes[at + 3] ?? 0;
      at += 4;
    } else {
      const length = Math.ceil((sign * bits) / 8);
      if (at + 2 + length > bytes.length) break;
      paint(each, at + 2, sign);
      at += 2 + length + (length & 1);
    }
  }
  // Without an end mark it is whole only where its last row is.
  if (y < height && !(y === height - 1 && x >= width)) throw new BmpProblem(null);
}
