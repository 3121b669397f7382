/**
 * What a TIFF file says of its first picture, as far as its reading depends on it.
 * Source: TIFF 6.0 (Adobe, 1992), sections 2, 8 and 15; for the numbers of later ones, libtiff.
 */
export interface TiffHeader {
  compression: number;
  photometric: number;
  /** Bits of a sample. */
  bits: number;
  samples: number;
  /** Its samples lie in planes of their own. */
  planes: boolean;
  tiled: boolean;
  /** Its samples are numbers with a point. */
  points: boolean;
  /** All of its pixels lie within the file. */
  whole: boolean;
}

const TAG = {
  bits: 258,
  compression: 259,
  photometric: 262,
  stripOffsets: 273,
  samples: 277,
  stripCounts: 279,
  planes: 284,
  tileOffsets: 324,
  tileCounts: 325,
  format: 339,
} as const;

const BIG = 43;
const SIZES: Record<number, 1 | 2 | 4> = { 1: 1, 3: 2, 4: 4 };
const OLD_JPEG = 6;
const JPEG = 7;
const LAB = [8, 9, 10];
const SEPARATE = 2;
const POINTS = 3;
const DEEPEST = 16;
/** More pieces than these are not looked at. */
const MOST_VALUES = 100_000;

/** Whether it is of the kind whose places are numbers of 64 bits. */
export const isBigTiff = (bytes: Uint8Array): boolean =>
  (bytes[0] === 0x49 ? bytes[2] : bytes[3]) === BIG;

/** @returns null when it holds no directory that can be read */
export function tiffHeader(bytes: Uint8Array): TiffHeader | null {
  const little = bytes[0] === 0x49;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 8) return null;
  const at = view.getUint32(4, little);
  if (at + 2 > bytes.length) return null;
  const count = view.getUint16(at, little);
  if (at + 2 + 12 * count > bytes.length) return null;
  const entries = new Map<number, number>();
  for (let i = 0; i < count; i += 1) {
    const entry = at + 2 + 12 * i;
    entries.set(view.getUint16(entry, little), entry);
  }
  const values = (tag: number): number[] => valuesOf(view, entries.get(tag), little);
  const first = (tag: number, otherwise: number): number => values(tag)[0] ?? otherwise;
  const tiled = entries.has(TAG.tileOffsets);
  const offsets = values(tiled ? TAG.tileOffsets : TAG.stripOffsets);
  const counts = values(tiled ? TAG.tileCounts : TAG.stripCounts);
  return {
    compression: first(TAG.compression, 1),
    photometric: first(TAG.photometric, 1),
    bits: values(TAG.bits).reduce((most, one) => Math.max(most, one), 1),
    samples: first(TAG.samples, 1),
    planes: first(TAG.planes, 1) === SEPARATE,
    tiled,
    points: values(TAG.format).includes(POINTS),
    whole:
      offsets.length > 0 &&
      offsets.length === counts.length &&
      offsets.every((offset, i) => offset + (counts[i] ?? 0) <= bytes.length),
  };
}

/** The numbers of an entry of a directory; none where they cannot be read. */
function valuesOf(view: DataView, entry: number | undefined, little: boolean): number[] {
  if (entry === undefined) return [];
  const size = SIZES[view.getUint16(entry + 2, little)];
  const count = view.getUint32(entry + 4, little);
  if (!size || count > MOST_VALUES) return [];
  const at = size * count <= 4 ? entry + 8 : view.getUint32(entry + 8, little);
  if (at + size * count > view.byteLength) return [];
  const read = { 1: 'getUint8', 2: 'getUint16', 4: 'getUint32' } as const;
  return Array.from({ length: count }, (_, i) => view[read[size]](at + i * size, little));
}

/**
 * The kinds of TIFF that are not read, or would be read wrong.
 * @returns “a TIFF in Lab colours”; null for those that are read
 */
export function unreadTiff(header: TiffHeader): string | null {
  const { compression, photometric, bits, samples, planes, tiled, points } = header;
  if (compression === OLD_JPEG) return 'a TIFF with JPEG of the old kind inside';
  if (compression === JPEG && bits > 8) return `a TIFF with JPEG of ${bits} bits inside`;
  if (LAB.includes(photometric)) return 'a TIFF in Lab colours';
  if (planes && tiled) return 'a TIFF in tiles of separate planes';
  if (planes && samples === 2) return 'a TIFF with grey and opacity in separate planes';
  if (points) return 'a TIFF of numbers with a point';
  if (bits > DEEPEST) return `a TIFF with ${bits} bits for each colour`;
  return null;
}
