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
  if (starts(bytes, 0, 0x49, 0x49, 0x2a, 0) || starts(bytes, 0, 0x4d, 0x4d, 0, 0x2a)) return 'tiff';
  if (ascii(bytes, 4, 8) === 'ftyp' && /avif|avis/.test(ascii(bytes, 8, 40))) return 'avif';
  return null;
}

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
