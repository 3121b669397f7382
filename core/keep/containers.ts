import type { Size } from '../geometry/size';
import { joined, latin, utf8 } from './bytes';
import type { Facts } from './facts';

/** What goes into a file beside its picture: an Exif block, and an XMP packet or nothing. */
export interface Inside {
  exif: Uint8Array;
  xmp: string;
}

const PER_INCH = 1;
const VERSION = [1, 1];
const NO_THUMBNAIL = [0, 0];

/** A segment of a JPEG: a marker, its length, what it holds (ITU-T T.81, B.1.1.4). */
function segment(marker: number, ...parts: Uint8Array[]): Uint8Array {
  const data = joined(parts);
  const length = data.length + 2;
  return joined([Uint8Array.of(0xff, marker, length >> 8, length & 0xff), data]);
}

/**
 * A JPEG with its density (JFIF, ITU-T T.871, §10.1) and the facts (Exif 2.32, 4.7.2; XMP
 * Specification Part 3, 1.1.3) right behind its start.
 */
export function withJpegFacts(
  jpeg: Uint8Array,
  { density }: Pick<Facts, 'density'>,
  { exif, xmp }: Inside,
): Uint8Array {
  const dots = [density >> 8, density & 0xff];
  const jfif = Uint8Array.of(...VERSION, PER_INCH, ...dots, ...dots, ...NO_THUMBNAIL);
  const hasOne = jpeg[2] === 0xff && jpeg[3] === 0xe0;
  const rest = hasOne ? 4 + (((jpeg[4] ?? 0) << 8) | (jpeg[5] ?? 0)) : 2;
  return joined([
    jpeg.subarray(0, 2),
    segment(0xe0, latin('JFIF\0'), jfif),
    segment(0xe1, latin('Exif\0\0'), exif),
    ...(xmp ? [segment(0xe1, latin('http://ns.adobe.com/xap/1.0/\0'), utf8(xmp))] : []),
    jpeg.subarray(rest),
  ]);
}

const HAS_ALPHA = 0x10;
const HAS_EXIF = 0x08;
const HAS_XMP = 0x04;
const OWN = new Set(['VP8X', 'EXIF', 'XMP ']);

export function riffChunk(name: string, data: Uint8Array): Uint8Array {
  const length = new Uint8Array(4);
  new DataView(length.buffer).setUint32(0, data.length, true);
  return joined([latin(name), length, data, new Uint8Array(data.length % 2)]);
}

/** Whether the picture of a lossless chunk uses its transparency (RFC 9649, 3.4). */
const usesAlpha = (data: Uint8Array): boolean => ((data[4] ?? 0) & HAS_ALPHA) !== 0;

/** A WebP with the facts behind its picture (RFC 9649, 2.7). */
export function withWebpFacts(
  webp: Uint8Array,
  { width, height }: Size,
  { exif, xmp }: Inside,
): Uint8Array {
  const view = new DataView(webp.buffer, webp.byteOffset, webp.byteLength);
  const picture: Uint8Array[] = [];
  let flags = HAS_EXIF | (xmp ? HAS_XMP : 0);
  for (let at = 12; at + 8 <= webp.length;) {
    const name = String.fromCharCode(...webp.subarray(at, at + 4));
    const length = view.getUint32(at + 4, true);
    const end = at + 8 + length + (length % 2);
    const data = webp.subarray(at + 8, at + 8 + length);
    if (name === 'ALPH' || (name === 'VP8L' && usesAlpha(data))) flags |= HAS_ALPHA;
    if (!OWN.has(name)) picture.push(webp.subarray(at, end));
    at = end;
  }
  const size = [width - 1, height - 1].flatMap((n) => [n & 255, (n >> 8) & 255, n >> 16]);
  const body = joined([
    latin('WEBP'),
    riffChunk('VP8X', Uint8Array.of(flags, 0, 0, 0, ...size)),
    ...picture,
    riffChunk('EXIF', exif),
    ...(xmp ? [riffChunk('XMP ', utf8(xmp))] : []),
  ]);
  return riffChunk('RIFF', body);
}
