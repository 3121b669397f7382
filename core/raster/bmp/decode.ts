import { bmpHeader, BmpProblem, type BmpHeader } from './header';
import { readRuns } from './runs';

/** Decoded pixels: RGBA, row-major, width × height × 4. */
export interface DecodedBmp {
  data: Uint8Array<ArrayBuffer>;
  width: number;
  height: number;
  /** True when its fourth byte says nothing. */
  opaque: boolean;
}

/**
 * Decodes a bitmap file of any depth, with a palette or masks, plain or run-length encoded.
 * A colour that the palette does not have is black; pixels that runs leave out have its first one.
 * @throws BmpProblem when it is damaged, or of a kind that is not read
 * Source: Microsoft, “Bitmap Storage”, “Bitmap Compression”
 */
export function decodeBmp(bytes: Uint8Array): DecodedBmp {
  const header = bmpHeader(bytes);
  const { width, height } = header;
  const data = new Uint8Array(width * height * 4);
  const rows = rowsOf(header);
  if (header.packing !== 'plain') {
    readRuns(bytes, header, rows, data);
    return { data, width, height, opaque: true };
  }
  const rowBytes = Math.ceil((width * header.bits) / 32) * 4;
  // Some writers leave off the padding of the last row.
  const last = Math.ceil((width * header.bits) / 8);
  if (header.start + rowBytes * (height - 1) + last > bytes.length) throw new BmpProblem(null);
  const read = header.bits <= 8 ? readIndices : header.bits === 24 ? readBytes : readMasked;
  for (let y = 0; y < height; y += 1) {
    read(bytes.subarray(header.start + y * rowBytes), header, data, rows(y));
  }
  if (header.bits === 16 || header.bits === 32) {
    return { data, width, height, opaque: settleAlpha(data, header) };
  }
  return { data, width, height, opaque: true };
}

/** Where a row of the file goes, in bytes. */
const rowsOf =
  ({ width, height, topDown }: BmpHeader) =>
  (y: number): number =>
    (topDown ? y : height - 1 - y) * width * 4;

type ReadRow = (row: Uint8Array, header: BmpHeader, data: Uint8Array, to: number) => void;

const readIndices: ReadRow = (row, { width, bits, palette }, data, to) => {
  const mask = (1 << bits) - 1;
  for (let x = 0; x < width; x += 1) {
    const at = x * bits;
    const index = ((row[at >> 3] ?? 0) >> (8 - bits - (at & 7))) & mask;
    const out = to + x * 4;
    data[out] = palette[index * 3] ?? 0;
    data[out + 1] = palette[index * 3 + 1] ?? 0;
    data[out + 2] = palette[index * 3 + 2] ?? 0;
    data[out + 3] = 255;
  }
};

const readBytes: ReadRow = (row, { width }, data, to) => {
  for (let x = 0; x < width; x += 1) {
    const out = to + x * 4;
    data[out] = row[x * 3 + 2] ?? 0;
    data[out + 1] = row[x * 3 + 1] ?? 0;
    data[out + 2] = row[x * 3] ?? 0;
    data[out + 3] = 255;
  }
};

/** Where the bits of a channel lie, and what its largest number is. */
const channel = (mask: number) => {
  const low = mask === 0 ? 0 : 31 - Math.clz32(mask & -mask);
  return { mask, low, scale: mask === 0 ? 0 : 255 / (mask >>> low) };
};

/** Numbers of few bits are spread over 0–255, so that the largest is white. */
const readMasked: ReadRow = (row, { width, bits, masks, fourthByteOpen }, data, to) => {
  const [red, green, blue, alpha] = masks;
  const channels = [red, green, blue, fourthByteOpen ? 0xff000000 : alpha].map(channel);
  const bytes = bits / 8;
  for (let x = 0; x < width; x += 1) {
    let value = 0;
    for (let i = bytes - 1; i >= 0; i -= 1) value = (value << 8) | (row[x * bytes + i] ?? 0);
    const out = to + x * 4;
    for (let i = 0; i < 4; i += 1) {
      const { mask, low, scale } = channels[i] ?? channel(0);
      data[out + i] = Math.round(((value & mask) >>> low) * scale);
    }
  }
};

/**
 * Most writers leave the fourth byte empty, whatever the header says: it is opacity only if some of
 * it is set. @returns whether no pixel can be seen through
 */
function settleAlpha(data: Uint8Array, { masks, fourthByteOpen }: BmpHeader): boolean {
  if (masks[3] !== 0 || fourthByteOpen) {
    for (let i = 3; i < data.length; i += 4) if (data[i] !== 0) return false;
  }
  for (let i = 3; i < data.length; i += 4) data[i] = 255;
  return true;
}
