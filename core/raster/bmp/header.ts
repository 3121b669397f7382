/**
 * What stands before the pixels of a bitmap file.
 * Source: Microsoft, “Bitmap Storage”, “BITMAPCOREHEADER”, “BITMAPINFOHEADER”, “BITMAPV4HEADER” and
 * “BITMAPV5HEADER”; for the headers of OS/2 2.x: J. D. Murray, W. vanRyper, “Encyclopedia of
 * Graphics File Formats”, 2nd ed., “OS/2 Bitmap”.
 */
export interface BmpHeader {
  /** Pixels. */
  width: number;
  height: number;
  /** The first row of the file is the upper one. */
  topDown: boolean;
  /** Bits a pixel. */
  bits: 1 | 2 | 4 | 8 | 16 | 24 | 32;
  packing: 'plain' | 'runs' | 'colourRuns';
  /** Colours of up to 8 bits a pixel: red, green, blue, three bytes each. */
  palette: Uint8Array;
  /** Which bits of 16 or 32 are red, green, blue and opacity; 0 for none. */
  masks: readonly [red: number, green: number, blue: number, alpha: number];
  /** Nobody said whether the fourth byte of 32 bits is opacity. */
  fourthByteOpen: boolean;
  /** First byte of the pixels. */
  start: number;
  /** The colour profile (ICC) that lies in the file, or null. */
  profile: Uint8Array | null;
}

/** Why a bitmap file is not read. */
export class BmpProblem extends Error {
  /** @param unread the kind of file, when it may be sound but is not read; null when it is damaged */
  constructor(readonly unread: string | null) {
    super(unread ? `a BMP ${unread}` : 'a damaged BMP');
  }
}

const FILE_HEADER = 14;
const CORE = 12;
const INFO = 40;
const V2 = 52;
const V3 = 56;
const V4 = 108;
const V5 = 124;
const OS2 = 64;
const DEPTHS = [1, 2, 4, 8, 16, 24, 32] as const;
const EMBEDDED = 0x4d424544;
/** Profiles of printers have a few megabytes; what is larger is none. */
const MOST_PROFILE = 8_000_000;

/** How the pixels are written, by the numbers of Windows. */
const RUNS_8 = 1;
const RUNS_4 = 2;
const MASKS = 3;
const ALPHA_MASKS = 6;
const UNREAD: Record<number, string> = {
  4: 'with a JPEG inside',
  5: 'with a PNG inside',
  11: 'in CMYK',
  12: 'in CMYK',
  13: 'in CMYK',
};
/** By those of OS/2. */
const OS2_FAX = 3;
const OS2_RUNS_24 = 4;

const MASKS_16 = [0x7c00, 0x3e0, 0x1f, 0] as const;
const MASKS_32 = [0xff0000, 0xff00, 0xff, 0] as const;

const damaged = () => new BmpProblem(null);

/** @throws BmpProblem when it is damaged, or of a kind that is not read */
export function bmpHeader(bytes: Uint8Array): BmpHeader {
  if (bytes.length < FILE_HEADER + CORE) throw damaged();
  const file = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const size = file.getUint32(FILE_HEADER, true);
  if (size < CORE || FILE_HEADER + size > bytes.length) throw damaged();
  return size === CORE ? coreHeader(file, bytes) : infoHeader(file, bytes, size);
}

const depthOf = (bits: number): BmpHeader['bits'] => {
  const depth = DEPTHS.find((one) => one === bits);
  if (!depth) throw damaged();
  return depth;
};

function coreHeader(file: DataView, bytes: Uint8Array): BmpHeader {
  const bits = depthOf(file.getUint16(24, true));
  const said = file.getUint32(10, true);
  const at = FILE_HEADER + CORE;
  const end = said > at && bits <= 8 ? said : Infinity;
  const palette = readPalette(bytes, at, 3, bits > 8 ? 0 : 1 << bits, end);
  return {
    width: file.getUint16(18, true),
    height: file.getUint16(20, true),
    topDown: false,
    bits,
    packing: 'plain',
    palette,
    masks: bits === 16 ? MASKS_16 : MASKS_32,
    fourthByteOpen: bits === 32,
    start: said >= at ? said : at + palette.length,
    profile: null,
  };
}

/** Headers of later versions hold the earlier ones; OS/2 may leave off what is nothing. */
function infoHeader(file: DataView, bytes: Uint8Array, size: number): BmpHeader {
  const isWindows = [INFO, V2, V3, V4, V5].includes(size);
  if (!isWindows && (size < 16 || size > OS2)) throw damaged();
  const number = (at: number) => (at + 4 <= size ? file.getUint32(FILE_HEADER + at, true) : 0);
  const high = file.getInt32(22, true);
  const compression = number(16);
  const unread = isWindows && UNREAD[compression];
  if (unread) throw new BmpProblem(unread);
  const bits = depthOf(file.getUint16(28, true));
  const packing = isWindows ? windowsPacking(compression, bits) : os2Packing(compression, bits);
  const masked = isWindows && (compression === MASKS || compression === ALPHA_MASKS);
  const behind = masked && size === INFO ? (compression === MASKS ? 12 : 16) : 0;
  const at = FILE_HEADER + size + behind;
  if (at > bytes.length) throw damaged();
  const said = file.getUint32(10, true);
  const colours = bits > 8 ? 0 : number(32) || 1 << bits;
  const palette = readPalette(bytes, at, 4, colours, said >= at ? said : Infinity);
  const width = file.getInt32(18, true);
  if (width < 0) throw damaged();
  return {
    width,
    height: Math.abs(high),
    topDown: high < 0,
    bits,
    packing,
    palette,
    masks: masked ? readMasks(file, size, compression) : bits === 16 ? MASKS_16 : MASKS_32,
    fourthByteOpen: bits === 32 && !masked,
    start: said >= at ? said : at + (palette.length / 3) * 4,
    profile:
      size === V5 && number(56) === EMBEDDED ? profileAt(bytes, number(112), number(116)) : null,
  };
}

function windowsPacking(compression: number, bits: number): BmpHeader['packing'] {
  if (compression === 0) return 'plain';
  if (compression === RUNS_8 && bits === 8) return 'runs';
  if (compression === RUNS_4 && bits === 4) return 'runs';
  const masked = compression === MASKS || compression === ALPHA_MASKS;
  if (masked && (bits === 16 || bits === 32)) return 'plain';
  throw damaged();
}

function os2Packing(compression: number, bits: number): BmpHeader['packing'] {
  if (compression === OS2_FAX && bits === 1) throw new BmpProblem('packed as a fax is');
  if (compression === OS2_RUNS_24 && bits === 24) return 'colourRuns';
  if (compression >= MASKS) throw damaged();
  return windowsPacking(compression, bits);
}

/** Blue, green, red and mostly a byte of nothing. A shorter one than it says is taken as it is. */
function readPalette(
  bytes: Uint8Array,
  at: number,
  entry: 3 | 4,
  colours: number,
  end: number,
): Uint8Array {
  const room = Math.floor((Math.min(end, bytes.length) - at) / entry);
  const count = Math.max(0, Math.min(colours, 256, room));
  const palette = new Uint8Array(count * 3);
  for (let i = 0; i < count; i += 1) {
    const from = at + i * entry;
    palette.set([bytes[from + 2] ?? 0, bytes[from + 1] ?? 0, bytes[from] ?? 0], i * 3);
  }
  return palette;
}

function readMasks(file: DataView, size: number, compression: number): BmpHeader['masks'] {
  const mask = (i: number) => file.getUint32(FILE_HEADER + INFO + 4 * i, true);
  const alpha = size >= V3 || compression === ALPHA_MASKS ? mask(3) : 0;
  return [mask(0), mask(1), mask(2), alpha];
}

/** @param at from the beginning of the header */
function profileAt(bytes: Uint8Array, at: number, length: number): Uint8Array | null {
  const from = FILE_HEADER + at;
  if (length > MOST_PROFILE) return null;
  return length > 0 && from + length <= bytes.length ? bytes.subarray(from, from + length) : null;
}
