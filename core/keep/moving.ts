import { joined, utf8 } from './bytes';
import { riffChunk } from './containers';
import type { Facts } from './facts';
import { commentOf } from './gifComment';
import { iTXt } from './pngText';
import { xmpPacket } from './xmp';

/** What is changed of a file, so that it says its title and description: its end, and some bytes. */
export interface Change {
  at: number;
  bytes: Uint8Array;
}

/** How a moving picture begins and ends, as much of it as is looked at. */
export interface Ends {
  /** So many bytes it has. */
  length: number;
  first: Uint8Array;
  last: Uint8Array;
}

/** Bytes of the first and the last that are looked at. */
export const LOOKED_AT = { first: 30, last: 12 } as const;

const TRAILER = 0x3b;
const HAS_XMP = 0x04;
const FLAGS = 20;
const RIFF_LENGTH = 4;

const nameAt = (bytes: Uint8Array, at: number): string =>
  String.fromCharCode(...bytes.subarray(at, at + 4));

function u32(value: number): Uint8Array {
  const bytes = new Uint8Array(4);
  new DataView(bytes.buffer).setUint32(0, value, true);
  return bytes;
}

type Words = Pick<Facts, 'title' | 'description'>;

/** A comment before the trailer (GIF89a, §24, §27). */
function inGif({ length, last }: Ends, { title, description }: Words): Change[] {
  if (last.at(-1) !== TRAILER) return [];
  const comment = commentOf([title, description].filter(Boolean).join('\n'));
  return [{ at: length - 1, bytes: joined([comment, Uint8Array.of(TRAILER)]) }];
}

/** Text before the end (W3C, PNG Third Edition, §5.6, §11.3.3). */
function inPng({ length, last }: Ends, { title, description }: Words): Change[] {
  if (nameAt(last, 4) !== 'IEND') return [];
  const texts = [
    ...(title ? [iTXt('Title', title)] : []),
    ...(description ? [iTXt('Description', description)] : []),
  ];
  return [{ at: length - last.length, bytes: joined([...texts, last]) }];
}

/** An XMP packet at the end, and said at the begin that it is there (RFC 9649, 2.7). */
function inWebp({ length, first }: Ends, words: Words): Change[] {
  if (nameAt(first, 12) !== 'VP8X') return [];
  const nothing = { origin: '', takenAt: '', software: '', density: 0 };
  const packet = riffChunk('XMP ', utf8(xmpPacket({ ...nothing, ...words })));
  return [
    { at: length, bytes: packet },
    { at: FLAGS, bytes: Uint8Array.of((first[FLAGS] ?? 0) | HAS_XMP) },
    { at: RIFF_LENGTH, bytes: u32(length + packet.length - 8) },
  ];
}

const ways = { gif: inGif, apng: inPng, webp: inWebp };
export type MovingForm = keyof typeof ways;

/**
 * What is to be written where, so that a moving picture says its title and description.
 * @returns nothing where it has neither, or where the file is not what it should be
 */
export const movingFacts = (form: MovingForm, ends: Ends, words: Words): Change[] =>
  words.title || words.description ? ways[form](ends, words) : [];
