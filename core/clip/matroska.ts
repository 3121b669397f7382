import type { Size } from '../geometry/size';

/*
 * A film as it goes from one program to the next, every picture at its own time: Matroska (RFC 9559),
 * its elements written as EBML (RFC 8794).
 */

/** How pixels lie that are not packed, by their FourCC: RGBA, or in planes of 4:2:0 or 4:4:4. */
export type RawKind = 'RGBA' | 'I420' | '444P';

/** How its pictures lie. */
export type Lies =
  | { raw: RawKind; packed?: never }
  /** What whoever unpacks them must know first, where that is no part of them. */
  | { packed: PackedKind; setup: Uint8Array | null; raw?: never };

/** By Matroska's list of codecs (RFC 9559, §27.8). */
const codecs = { h264: 'V_MPEG4/ISO/AVC', vp9: 'V_VP9', av1: 'V_AV1' } as const;
export type PackedKind = keyof typeof codecs;

/** Letters of ASCII. */
const letters = (word: string): Uint8Array => Uint8Array.from(word, (one) => one.charCodeAt(0));

export function joined(parts: readonly Uint8Array[]): Uint8Array {
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
export function filmHead({ width, height }: Size, lies: Lies): Uint8Array {
  const sides = [number(0xb0, width), number(0xba, height)];
  const track = lies.raw
    ? [word(0x86, 'V_UNCOMPRESSED'), element(0xe0, ...sides, word(0x2eb524, lies.raw))]
    : [
        word(0x86, codecs[lies.packed]),
        ...(lies.setup ? [element(0x63a2, lies.setup)] : []),
        element(0xe0, ...sides),
      ];
  return joined([
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
        ...track,
      ),
    ),
  ]);
}

export interface PictureHead {
  /** When it comes, and how long it lasts, whole thousandths of a second. */
  at: number;
  lasts: number;
  /** Bytes of the picture. */
  length: number;
  /** It can be begun with. */
  isKey: boolean;
}

/** That it builds on the one before it: how much sooner that came is looked at by no program. */
const BUILDS = element(0xfb, Uint8Array.of(0xff));

/** What stands before a picture. */
export function pictureHead({ at, lasts, length, isKey }: PictureHead): Uint8Array {
  // Track 1, at the time of its cluster itself, no flags.
  const block = Uint8Array.of(0x81, 0, 0, 0);
  const said = joined([number(0x9b, lasts), ...(isKey ? [] : [BUILDS])]);
  const blockHead = joined([bytesOf(0xa1), lengthOf(block.length + length), block]);
  const groupLength = said.length + blockHead.length + length;
  const time = number(0xe7, at);
  const group = joined([bytesOf(0xa0), lengthOf(groupLength), said, blockHead]);
  const cluster = lengthOf(time.length + group.length + length);
  return joined([bytesOf(0x1f43b675), cluster, time, group]);
}
