import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { open, type FileHandle } from 'node:fs/promises';
import { PassThrough, type Readable } from 'node:stream';
import { promisify } from 'node:util';
import { crc32, deflateRaw } from 'node:zlib';
import { MANIFEST } from '@/core/archive/entries';
import { manifestLine } from '@/core/archive/manifest';
import { directoryEntry, localHeader, zipEnd, zipTime, type Zipped } from '@/core/archive/zip';
import { errorCode } from '../base/errorCode';
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
  /**
   * Adds a file of the disk as it is, which nobody changes meanwhile and which is never held as a whole.
   * @returns false, with nothing added, where there is none or it has more than `most` bytes
   */
  addFile(name: string, path: string, most: number): Promise<boolean>;
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

async function* read(file: FileHandle): AsyncGenerator<Buffer> {
  for (let at = 0; ;) {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(PIECE), 0, PIECE, at);
    if (bytesRead === 0) return;
    at += bytesRead;
    yield buffer.subarray(0, bytesRead);
  }
}

async function summed(pieces: AsyncIterable<Uint8Array | Uint8ClampedArray>) {
  const hash = createHash('sha256');
  let crc = 0;
  let bytes = 0;
  for await (const piece of pieces) {
    hash.update(piece);
    crc = crc32(piece, crc);
    bytes += piece.length;
  }
  return { crc, bytes, sha256: hash.digest('hex') };
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

  async function begin(file: Zipped): Promise<void> {
    directory.add(directoryEntry(file, at, length));
    entries += 1;
    await write(localHeader(file, at));
  }

  /** @returns the SHA-256 of its bytes */
  async function put(name: string, bytes: Uint8Array, squeezed: boolean): Promise<string> {
    const { crc, sha256 } = await summed(piecesOf(bytes, PIECE));
    const packed = squeezed ? bytes : await squeeze(bytes);
    const lengths = { packed: packed.length, unpacked: bytes.length };
    await begin({ name, crc, deflated: !squeezed, ...lengths });
    for await (const piece of piecesOf(packed, PIECE))
      await write(Buffer.from(piece.buffer, piece.byteOffset, piece.length));
    return sha256;
  }

  const tell = (name: string, bytes: number, sha256: string): void =>
    lines.add(Buffer.from(manifestLine({ name, bytes, sha256 })));

  async function putFile(name: string, file: FileHandle): Promise<void> {
    const { crc, sha256, bytes } = await summed(read(file));
    await begin({ name, crc, deflated: false, packed: bytes, unpacked: bytes });
    const begun = length;
    for await (const piece of read(file)) await write(piece);
    if (length - begun !== bytes) throw new Error(`${name} was changed while it was read.`);
    tell(name, bytes, sha256);
  }

  const add = async (name: string, bytes: Uint8Array, squeezed: boolean): Promise<void> => {
    tell(name, bytes.length, await put(name, bytes, squeezed));
  };
  const addFile = async (name: string, path: string, most: number): Promise<boolean> => {
    // Held open, it can be read to its end also where its name is removed meanwhile.
    const file = await open(path, 'r').catch((error: unknown) => {
      if (errorCode(error) === 'ENOENT') return null;
      throw error;
    });
    try {
      if (!file || (await file.stat()).size > most) return false;
      await putFile(name, file);
      return true;
    } finally {
      await file?.close();
    }
  };
  return {
    stream,
    add,
    addFile,
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
