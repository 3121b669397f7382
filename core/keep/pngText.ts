import { joined, latin, utf8 } from './bytes';
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

/** A chunk: length, type, data and the checksum of type and data. */
function chunk(type: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(data.length + 12);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  out.set(latin(type), 4);
  out.set(data, 8);
  view.setUint32(8 + data.length, crc32(out.subarray(4, 8 + data.length)));
  return out;
}

/** An uncompressed iTXt chunk (W3C, PNG Third Edition, §11.3.3.4). */
export const iTXt = (keyword: string, text: string): Uint8Array => {
  return chunk('iTXt', joined([latin(`${keyword}\0\0\0\0\0`), utf8(text)]));
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
const withChunks = (png: Uint8Array, parts: readonly Uint8Array[]): Uint8Array<ArrayBuffer> =>
  joined([png.subarray(0, IHDR_END), ...parts, png.subarray(IHDR_END)]);

/** A PNG with a colour profile (§11.3.2.3). @param packed the profile (ICC), in zlib's format */
export function withProfile(png: Uint8Array, packed: Uint8Array): Uint8Array {
  return withChunks(png, [chunk('iCCP', joined([latin('profile\0\0'), packed]))]);
}

/** Samples are those of screens (§11.3.2.5), as they are meant to look. */
const sRGB = chunk('sRGB', Uint8Array.of(0));

/** A PNG that says that its colours are those of screens. */
export const withScreenColours = (png: Uint8Array): Uint8Array<ArrayBuffer> =>
  withChunks(png, [sRGB]);

/** A PNG with the facts as text chunks, right behind its header. */
export function withTexts(png: Uint8Array, facts: Facts, xmp: string): Uint8Array {
  const added = texts(facts)
    .filter(([, text]) => text !== '')
    .map(([keyword, text]) => iTXt(keyword, text));
  if (xmp) added.push(iTXt('XML:com.adobe.xmp', xmp));
  return withChunks(png, [sRGB, ...added]);
}
