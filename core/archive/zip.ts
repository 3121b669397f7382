/**
 * The records of a zip around the files in it (PKWARE, APPNOTE 6.3.10), for a file that is written
 * from its beginning to its end: every number is known before what it tells of. Places beyond 4 GB
 * and more than 65 535 files are told as §4.3.14 and §4.5.3 have it (ZIP64).
 */

import { utf8 } from '../keep/bytes';

/** What is told of a file in a zip. */
export interface Zipped {
  name: string;
  /** CRC-32 of the file. */
  crc: number;
  /** Bytes as they lie in the zip, and as they are unpacked: each below 4 GB. */
  packed: number;
  unpacked: number;
  /** Squeezed by Deflate (RFC 1951), else as they are. */
  deflated: boolean;
}

/** When everything in the zip was made: as its clocks have it, of two seconds. */
export interface ZipTime {
  date: number;
  time: number;
}

const NEEDED = 20;
const NEEDED_64 = 45;
/** Names are UTF-8 (§4.4.4, bit 11). */
const FLAGS = 0x0800;
/** Made under Unix, by version 4.5. */
const MADE_BY = (3 << 8) | NEEDED_64;
/** A plain file that its owner reads and writes (stat(7)), where Unix looks for it. */
const ATTRIBUTES = (0o100600 << 16) >>> 0;
const ALL_16 = 0xffff;
const ALL_32 = 0xffffffff;

/** Writes numbers of two, four and eight bytes one after the other, the lowest byte first. */
function record(length: number): {
  bytes: Uint8Array;
  put: (...pairs: [2 | 4 | 8, number][]) => void;
} {
  const bytes = new Uint8Array(length);
  const view = new DataView(bytes.buffer);
  let at = 0;
  return {
    bytes,
    put(...pairs) {
      for (const [width, value] of pairs) {
        if (width === 2) view.setUint16(at, value, true);
        else if (width === 4) view.setUint32(at, value, true);
        else view.setBigUint64(at, BigInt(value), true);
        at += width;
      }
    },
  };
}

/** MS-DOS date and time (§4.4.6) of a moment in whatever zone its parts are read in. */
export const zipTime = (
  year: number,
  month: number,
  day: number,
  h = 0,
  m = 0,
  s = 0,
): ZipTime => ({
  date: ((Math.min(2107, Math.max(1980, year)) - 1980) << 9) | (month << 5) | day,
  time: (h << 11) | (m << 5) | (s >> 1),
});

/** What local header and directory say alike (§4.3.7 and §4.3.12). */
const shared = (file: Zipped, { date, time }: ZipTime, name: Uint8Array, extra: number) =>
  [
    [2, FLAGS],
    [2, file.deflated ? 8 : 0],
    [2, time],
    [2, date],
    [4, file.crc],
    [4, file.packed],
    [4, file.unpacked],
    [2, name.length],
    [2, extra],
  ] as [2 | 4, number][];

/** What stands before the bytes of a file. */
export function localHeader(file: Zipped, at: ZipTime): Uint8Array {
  const name = utf8(file.name);
  const { bytes, put } = record(30 + name.length);
  put([4, 0x04034b50], [2, NEEDED], ...shared(file, at, name, 0));
  bytes.set(name, 30);
  return bytes;
}

/** What the directory says of a file whose local header lies at `offset`. */
export function directoryEntry(file: Zipped, at: ZipTime, offset: number): Uint8Array {
  const name = utf8(file.name);
  const far = offset >= ALL_32;
  const { bytes, put } = record(46 + name.length + (far ? 12 : 0));
  put([4, 0x02014b50], [2, MADE_BY], [2, far ? NEEDED_64 : NEEDED]);
  put(...shared(file, at, name, far ? 12 : 0));
  // No comment, the first disk, nothing of its inside.
  put([2, 0], [2, 0], [2, 0], [4, ATTRIBUTES], [4, far ? ALL_32 : offset]);
  bytes.set(name, 46);
  if (far) {
    const extra = record(12);
    extra.put([2, 0x0001], [2, 8], [8, offset]);
    bytes.set(extra.bytes, 46 + name.length);
  }
  return bytes;
}

/**
 * What stands at the end: where the directory lies.
 * @param count files, and `length` bytes of their directory, which lies at `offset`
 */
export function zipEnd(count: number, offset: number, length: number): Uint8Array {
  const large = count >= ALL_16 || offset >= ALL_32 || length >= ALL_32;
  const { bytes, put } = record(22 + (large ? 76 : 0));
  if (large) {
    // Its own length without its first twelve bytes (§4.3.14.1).
    put([4, 0x06064b50], [8, 44], [2, MADE_BY], [2, NEEDED_64], [4, 0], [4, 0]);
    put([8, count], [8, count], [8, length], [8, offset]);
    put([4, 0x07064b50], [4, 0], [8, offset + length], [4, 1]);
  }
  const files = Math.min(count, ALL_16);
  put([4, 0x06054b50], [2, 0], [2, 0], [2, files], [2, files]);
  put([4, Math.min(length, ALL_32)], [4, Math.min(offset, ALL_32)], [2, 0]);
  return bytes;
}
