import type { Size } from '../geometry/size';

/*
 * A film as it goes from one program to the next: every picture whole, at its own time. Matroska
 * (RFC 9559) with the codec V_UNCOMPRESSED, its elements written as EBML (RFC 8794).
 */

/** How its pixels lie, by their FourCC: RGBA, or in planes of 4:2:0 or 4:4:4. */
export type RawKind = 'RGBA' | 'I420' | '444P';

/** Letters of ASCII. */
const letters = (word: string): Uint8Array => Uint8Array.from(word, (one) => one.charCodeAt(0));

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  parts.reduce((at, part) => {
    all.set(part, at);
    return at + part.length;
  }, 0);
  return all;
}

/** A whole number, the higher byte first, in as few bytes as it takes, or in so many. */
function bytesOf(value: number, least = 1): Uint8Array {
  const bytes: number[] = [];
  for (let rest = value; rest > 0; rest = Math.floor(rest / 256)) bytes.unshift(rest % 256);
  while (bytes.length < least) bytes.unshift(0);
  return Uint8Array.from(bytes);
}

/** A length in eight bytes, the first of which says so. */
function lengthOf(value: number): Uint8Array {
  const bytes = bytesOf(value, 8);
  bytes[0] = 0x01;
  return bytes;
}

const element = (id: number, ...within: readonly Uint8Array[]): Uint8Array => {
  const content = joined(within);
  return joined([bytesOf(id), lengthOf(content.length), content]);
};
const number = (id: number, value: number): Uint8Array => element(id, bytesOf(value));
const word = (id: number, value: string): Uint8Array => element(id, letters(value));

const NAME = 'Rezzik';
/** Of a length that is not known yet. */
const OPEN = Uint8Array.of(0x01, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff);
/** Times are thousandths of a second. */
const SCALE = 1_000_000;

/** What stands before the pictures. @param size of every one of them, pixels */
export const rawFilmHead = ({ width, height }: Size, kind: RawKind): Uint8Array =>
  joined([
    element(
      0x1a45dfa3,
      ...[number(0x4286, 1), number(0x42f7, 1), number(0x42f2, 4), number(0x42f3, 8)],
      ...[word(0x4282, 'matroska'), number(0x4287, 4), number(0x4285, 2)],
    ),
    ...[bytesOf(0x18538067), OPEN],
    element(0x1549a966, number(0x2ad7b1, SCALE), word(0x4d80, NAME), word(0x5741, NAME)),
    element(
      0x1654ae6b,
      element(
        0xae,
        ...[number(0xd7, 1), number(0x73c5, 1), number(0x83, 1), number(0x9c, 0)],
        word(0x86, 'V_UNCOMPRESSED'),
        element(0xe0, number(0xb0, width), number(0xba, height), word(0x2eb524, kind)),
      ),
    ),
  ]);

/**
 * What stands before the pixels of a picture.
 * @param at when it comes, and how long it lasts, whole thousandths of a second
 * @param length of its pixels, bytes
 */
export function rawPictureHead(at: number, lasts: number, length: number): Uint8Array {
  // Track 1, at the time of its cluster itself, no flags.
  const block = Uint8Array.of(0x81, 0, 0, 0);
  const duration = number(0x9b, lasts);
  const blockHead = joined([bytesOf(0xa1), lengthOf(block.length + length), block]);
  const groupLength = duration.length + blockHead.length + length;
  const time = number(0xe7, at);
  const group = joined([bytesOf(0xa0), lengthOf(groupLength), duration, blockHead]);
  const cluster = lengthOf(time.length + group.length + length);
  return joined([bytesOf(0x1f43b675), cluster, time, group]);
}
