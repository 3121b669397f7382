import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { PassThrough, type Readable } from 'node:stream';
import { promisify } from 'node:util';
import { crc32, deflateRaw } from 'node:zlib';
import { MANIFEST } from '@/core/archive/entries';
import { manifestLine } from '@/core/archive/manifest';
import { directoryEntry, localHeader, zipEnd, zipTime, type Zipped } from '@/core/archive/zip';
import { piecesOf } from '../base/pieces';

/** Bytes that are handed on in one go: hashed, summed up and written between two looks at what else came. */
const PIECE = 200_000;
const squeeze = promisify(deflateRaw);

/** Anything that JSON can say, as it stands in an entry. */
export const jsonBytes = (value: unknown): Buffer => Buffer.from(`${JSON.stringify(value)}\n`);

/** A zip that is written while it is read: nothing of it is held but its directory and its manifest. */
export interface ZipOut {
  stream: Readable;
  /** Adds an entry and waits until it is on its way. Of what is squeezed already nothing is squeezed again. */
  add(name: string, bytes: Uint8Array, squeezed: boolean): Promise<void>;
  /** Adds the manifest and ends the file. */
  end(): Promise<void>;
  /** Breaks it off: whoever reads is told that it is not whole. */
  fail(why: unknown): void;
}

/** Bytes one behind the other in few large pieces: hundreds of thousands of small ones take several times the room. */
function growing() {
  const full: Buffer[] = [];
  let last = Buffer.alloc(PIECE);
  let used = 0;
  return {
    add(bytes: Uint8Array): void {
      if (used + bytes.length > last.length) {
        full.push(last.subarray(0, used));
        last = Buffer.alloc(Math.max(PIECE, bytes.length));
        used = 0;
      }
      last.set(bytes, used);
      used += bytes.length;
    },
    parts: (): Buffer[] => [...full, last.subarray(0, used)],
  };
}

export function zipOut(made: Date): ZipOut {
  const stream = new PassThrough();
  const at = zipTime(
    ...([made.getFullYear(), made.getMonth() + 1, made.getDate()] as const),
    ...([made.getHours(), made.getMinutes(), made.getSeconds()] as const),
  );
  const lines = growing();
  const directory = growing();
  let entries = 0;
  let length = 0;
  let failed: Error | null = null;
  const broken = new AbortController();
  const fail = (why: unknown): void => {
    failed ??= why instanceof Error ? why : new Error(String(why));
    broken.abort();
    stream.destroy(failed);
  };
  stream.on('close', () => fail(new Error('Nobody reads this archive any more.')));
  stream.on('error', () => undefined);

  async function write(bytes: Uint8Array): Promise<void> {
    if (failed) throw failed;
    length += bytes.length;
    if (stream.write(bytes)) return;
    await once(stream, 'drain', { signal: broken.signal }).catch(() => {
      throw failed ?? new Error('The archive was broken off.');
    });
  }

  /** @returns the SHA-256 of its bytes */
  async function put(name: string, bytes: Uint8Array, squeezed: boolean): Promise<string> {
    const hash = createHash('sha256');
    let crc = 0;
    for await (const piece of piecesOf(bytes, PIECE)) {
      hash.update(piece);
      crc = crc32(piece, crc);
    }
    const packed = squeezed ? bytes : await squeeze(bytes);
    const file: Zipped = {
      ...{ name, crc, deflated: !squeezed },
      ...{ packed: packed.length, unpacked: bytes.length },
    };
    directory.add(directoryEntry(file, at, length));
    entries += 1;
    await write(localHeader(file, at));
    for await (const piece of piecesOf(packed, PIECE))
      await write(Buffer.from(piece.buffer, piece.byteOffset, piece.length));
    return hash.digest('hex');
  }

  const add = async (name: string, bytes: Uint8Array, squeezed: boolean): Promise<void> => {
    const sha256 = await put(name, bytes, squeezed);
    lines.add(Buffer.from(manifestLine({ name, bytes: bytes.length, sha256 })));
  };
  return {
    stream,
    add,
    async end() {
      await put(MANIFEST, Buffer.concat(lines.parts()), false);
      const begins = length;
      for (const part of directory.parts()) await write(part);
      await write(zipEnd(entries, begins, length - begins));
      stream.end();
    },
    fail,
  };
}
