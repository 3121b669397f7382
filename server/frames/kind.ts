/** The pictures Rezzik reads, told by their first bytes and never by their names. */
export type PictureType = 'png' | 'jpeg' | 'gif' | 'webp' | 'bmp' | 'tiff' | 'avif';

const starts = (bytes: Uint8Array, at: number, ...values: number[]): boolean =>
  values.every((value, i) => bytes[at + i] === value);

const ascii = (bytes: Uint8Array, from: number, to: number): string =>
  String.fromCharCode(...bytes.subarray(from, to));

export function pictureType(bytes: Uint8Array): PictureType | null {
  if (starts(bytes, 0, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'png';
  if (starts(bytes, 0, 0xff, 0xd8, 0xff)) return 'jpeg';
  if (/^GIF8[79]a$/.test(ascii(bytes, 0, 6))) return 'gif';
  if (ascii(bytes, 0, 4) === 'RIFF' && ascii(bytes, 8, 12) === 'WEBP') return 'webp';
  if (ascii(bytes, 0, 2) === 'BM') return 'bmp';
  // 42, or 43 for the kind whose places are numbers of 64 bits.
  if (starts(bytes, 0, 0x49, 0x49, 0x2a, 0) || starts(bytes, 0, 0x4d, 0x4d, 0, 0x2a)) return 'tiff';
  if (starts(bytes, 0, 0x49, 0x49, 0x2b, 0) || starts(bytes, 0, 0x4d, 0x4d, 0, 0x2b)) return 'tiff';
  if (isAvif(bytes)) return 'avif';
  return null;
}

/**
 * An AV1 picture by its boxes (ISO/IEC 14496-12, §4.3; AV1 Image File Format, §6): a file type box
 * of a true length that names the brand, and the description of the picture somewhere behind it.
 */
function isAvif(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 0;
  for (let box = 0; at + 8 <= bytes.length && box < MOST_BOXES; box += 1) {
    const length = view.getUint32(at);
    const type = ascii(bytes, at + 4, at + 8);
    // Neither boxes to the end of the file nor 64-bit ones come before the description.
    if (length < 8 || at + length > bytes.length) return false;
    if (box === 0) {
      if (type !== 'ftyp' || length % 4 !== 0 || length > LONGEST_TYPE) return false;
      const brands = [8, ...range(16, length)].map((i) => ascii(bytes, i, i + 4));
      if (!brands.includes('avif') && !brands.includes('avis')) return false;
    }
    if (type === 'meta') return ascii(bytes, at + 16, at + 20) === 'hdlr';
    at += length;
  }
  return false;
}

const MOST_BOXES = 16;
const LONGEST_TYPE = 256;
const range = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, (to - from) / 4) }, (_, i) => from + 4 * i);

/** Whether a plain PNG has a channel of transparency (W3C, PNG Third Edition, §11.2.1). */
export const hasAlpha = (png: Uint8Array): boolean => png[COLOUR_TYPE] === 6;
const COLOUR_TYPE = 25;

/** Chunks that say nothing but the pixels (W3C, PNG Third Edition, §5.6). */
const PLAIN_CHUNKS = new Set(['IHDR', 'sRGB', 'IDAT', 'IEND']);

/**
 * True for a PNG that holds just 8-bit sRGB pixels: no palette, profile, gamma, text or bytes
 * behind its end. Such a file is a frame as it stands; any other is written anew.
 */
export function isPlainPng(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 8;
  while (at + 12 <= bytes.length) {
    const length = view.getUint32(at);
    const type = ascii(bytes, at + 4, at + 8);
    if (!PLAIN_CHUNKS.has(type)) return false;
    if (type === 'IHDR') {
      const [depth, colourType, , , interlace] = bytes.subarray(at + 16, at + 21);
      if (depth !== 8 || (colourType !== 2 && colourType !== 6) || interlace !== 0) return false;
    }
    at += 12 + length;
    if (type === 'IEND') return at === bytes.length;
  }
  return false;
}
