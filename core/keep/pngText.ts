import type { Facts } from './facts';

/** CRC-32 of the PNG standard (W3C, PNG Third Edition, annex D). */
const table = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k += 1) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c >>> 0;
});

export function crc32(bytes: Uint8Array): number {
  let crc = 0xffffffff;
  for (const byte of bytes) crc = (table[(crc ^ byte) & 0xff] ?? 0) ^ (crc >>> 8);
  return (crc ^ 0xffffffff) >>> 0;
}

const utf8 = (text: string): Uint8Array => {
  const bytes: number[] = [];
  for (const character of text) {
    const code = character.codePointAt(0) ?? 0;
    if (code < 0x80) bytes.push(code);
    else if (code < 0x800) bytes.push(0xc0 | (code >> 6), 0x80 | (code & 63));
    else if (code < 0x10000)
      bytes.push(0xe0 | (code >> 12), 0x80 | ((code >> 6) & 63), 0x80 | (code & 63));
    else
      bytes.push(
        0xf0 | (code >> 18),
        0x80 | ((code >> 12) & 63),
        0x80 | ((code >> 6) & 63),
        0x80 | (code & 63),
      );
  }
  return Uint8Array.from(bytes);
};

/** A chunk: length, type, data and the checksum of type and data. */
function chunk(type: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(data.length + 12);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  out.set(utf8(type), 4);
  out.set(data, 8);
  view.setUint32(8 + data.length, crc32(out.subarray(4, 8 + data.length)));
  return out;
}

/** An uncompressed iTXt chunk (W3C, PNG Third Edition, §11.3.3.4). */
export const iTXt = (keyword: string, text: string): Uint8Array => {
  const words = utf8(text);
  const head = utf8(`${keyword}\0\0\0\0\0`);
  const data = new Uint8Array(head.length + words.length);
  data.set(head);
  data.set(words, head.length);
  return chunk('iTXt', data);
};

/** Keywords that the standard names (§11.3.3.1), with what stands behind them. */
const texts = (facts: Facts): [string, string][] => [
  ['Title', facts.title],
  ['Description', facts.description],
  ['Source', facts.origin],
  ['Creation Time', facts.takenAt],
  ['Software', facts.software],
];

const IHDR_END = 8 + 25;

/** @param parts chunks that stand right behind the header */
function withChunks(png: Uint8Array, parts: readonly Uint8Array[]): Uint8Array {
  const size = parts.reduce((sum, part) => sum + part.length, png.length);
  const out = new Uint8Array(size);
  out.set(png.subarray(0, IHDR_END));
  let at = IHDR_END;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  out.set(png.subarray(IHDR_END), at);
  return out;
}

/** A PNG with a colour profile (§11.3.2.3). @param packed the profile (ICC), in zlib's format */
export function withProfile(png: Uint8Array, packed: Uint8Array): Uint8Array {
  const head = utf8('profile\0\0');
  const data = new Uint8Array(head.length + packed.length);
  data.set(head);
  data.set(packed, head.length);
  return withChunks(png, [chunk('iCCP', data)]);
}

/** A PNG with the facts as text chunks, right behind its header. */
export function withTexts(png: Uint8Array, facts: Facts, xmp: string): Uint8Array {
  const added = texts(facts)
    .filter(([, text]) => text !== '')
    .map(([keyword, text]) => iTXt(keyword, text));
  added.push(iTXt('XML:com.adobe.xmp', xmp));
  return withChunks(png, added);
}
