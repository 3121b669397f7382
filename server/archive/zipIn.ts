import { createHash } from 'node:crypto';
import { open, unlink } from 'node:fs/promises';
import { crc32 } from 'node:zlib';
import { Entry, openPromise, type ZipFile } from 'yauzl';
import type { z } from 'zod';
import { ABOUT, entryKind, MANIFEST, mostBytes } from '@/core/archive/entries';
import { readManifest } from '@/core/archive/manifest';
import { aboutSchema, ARCHIVE_VERSION, issueWords, type About } from '@/core/archive/records';
import { loopTurn } from '../base/pieces';
import { errorCode } from '../base/errorCode';
import { Fault } from '../base/fault';

/** Entries of a file at most: a shot has two or three. */
const MOST_ENTRIES = 2_000_000;
/** Of versionMadeBy, the system; and of the attributes there, what says that it is a link (stat(7)). */
const UNIX = 3;
const FILE_TYPE = 0o170000;
const LINK = 0o120000;
const LOCAL_HEADER = 30;

const refused = (words: string): Fault =>
  new Fault(422, 'no-archive', `${words} Nothing was brought in.`);

/** What is wrong with one entry; the rest of the archive may be sound. */
export class Damaged extends Error {}

interface Told {
  bytes: number;
  sha256: string;
  entry: Entry;
}

/** An archive that was opened: its manifest is read, its other entries are read when they are asked for. */
export interface OpenArchive {
  about: About;
  /** The names of what can be asked for, in the order of the manifest. */
  names: string[];
  /** Entries that cannot, with the reason. */
  damaged: { entry: string; why: string }[];
  has(name: string): boolean;
  /** What the manifest says of an entry. */
  sha256(name: string): string | null;
  /** @throws Damaged */
  bytes(name: string): Promise<Buffer>;
  /** Unpacks an entry into a new file, which is there whole or not at all. @throws Damaged */
  toFile(name: string, path: string): Promise<void>;
  /** @throws Damaged for what is no JSON, or does not fit */
  json<T extends z.ZodType>(name: string, schema: T): Promise<z.output<T>>;
  close(): void;
}

/**
 * Opens an archive. A file that is none, that is cut short or that could lead astray is refused as a
 * whole; what is wrong with a single entry is told, and the others hold. @throws Fault 422
 */
export async function openArchive(path: string): Promise<OpenArchive> {
  const zip = await opened(path);
  try {
    const entries = await listed(zip);
    const about = await readAbout(zip, entries);
    const { told, damaged } = await readTold(zip, entries);
    const toldOf = (name: string): Told => {
      const one = told.get(name);
      if (!one) throw new Damaged('it is not in the archive');
      return one;
    };
    const bytes = async (name: string): Promise<Buffer> => unpacked(zip, toldOf(name));
    return {
      about,
      names: [...told.keys()],
      damaged,
      has: (name) => told.has(name),
      sha256: (name) => told.get(name)?.sha256 ?? null,
      bytes,
      toFile: async (name, path) => unpackedTo(zip, toldOf(name), path),
      json: async (name, schema) => parsed(await bytes(name), schema),
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw error;
  }
}

async function opened(path: string): Promise<ZipFile> {
  try {
    return await openPromise(path, { lazyEntries: true, autoClose: false, strictFileNames: true });
  } catch (error) {
    throw why(error);
  }
}

/** What the reader of zips says, in words. */
function why(error: unknown): Fault {
  if (error instanceof Fault) return error;
  if (errorCode(error) === 'ENOENT') return refused('The file is not there any more.');
  const said = error instanceof Error ? error.message : String(error);
  if (/relative path|absolute path|invalid characters/i.test(said)) {
    return refused('This file holds a name that leads out of it, which no archive of Rezzik does.');
  }
  if (/End of central directory/i.test(said)) {
    return refused('This is no zip file, or it is cut short: its end is missing.');
  }
  return refused(`This zip file is damaged (${said}).`);
}

/** Every entry by its name; each is looked at before anything is unpacked. */
async function listed(zip: ZipFile): Promise<Map<string, Entry>> {
  if (zip.entryCount > MOST_ENTRIES)
    throw refused('This file holds more entries than any archive.');
  const entries = new Map<string, Entry>();
  const folded = new Set<string>();
  const spans: { from: number; to: number }[] = [];
  try {
    for await (const entry of zip.eachEntry()) {
      const name = entry.fileName;
      const key = name.toLowerCase();
      if (folded.has(key)) throw refused(`This file holds two entries called “${name}”.`);
      folded.add(key);
      if (isLink(entry)) throw refused(`“${name}” in this file is a link.`);
      spans.push({
        from: entry.relativeOffsetOfLocalHeader,
        // Behind its own header (APPNOTE, §4.3.7), which has the name, too.
        to:
          entry.relativeOffsetOfLocalHeader +
          LOCAL_HEADER +
          entry.fileNameLength +
          entry.compressedSize,
      });
      entries.set(name, slim(entry));
    }
  } catch (error) {
    throw why(error);
  }
  spans.sort((a, b) => a.from - b.from);
  const overlap = spans.some(({ from }, i) => i > 0 && from < (spans[i - 1]?.to ?? 0));
  if (overlap) throw refused('Entries of this file lie over each other.');
  return entries;
}

const isLink = ({ versionMadeBy, externalFileAttributes }: Entry): boolean =>
  versionMadeBy >> 8 === UNIX && ((externalFileAttributes >>> 16) & FILE_TYPE) === LINK;

/** Only what is needed to unpack it: there may be some hundred thousand. */
function slim(entry: Entry): Entry {
  const slim = new Entry();
  slim.compressionMethod = entry.compressionMethod;
  slim.generalPurposeBitFlag = entry.generalPurposeBitFlag;
  slim.compressedSize = entry.compressedSize;
  slim.uncompressedSize = entry.uncompressedSize;
  slim.relativeOffsetOfLocalHeader = entry.relativeOffsetOfLocalHeader;
  slim.crc32 = entry.crc32;
  return slim;
}

async function readAbout(zip: ZipFile, entries: ReadonlyMap<string, Entry>): Promise<About> {
  const entry = entries.get(ABOUT);
  if (!entry || !entries.has(MANIFEST)) {
    throw refused('This zip file is no archive of Rezzik: it has no manifest.');
  }
  const value = await read(zip, entry, mostBytes.about)
    .then((bytes): unknown => JSON.parse(bytes.toString('utf8')))
    .catch(() => null);
  const newer = value && typeof value === 'object' && 'version' in value ? value.version : null;
  if (typeof newer === 'number' && newer > ARCHIVE_VERSION) {
    throw refused(
      `This archive was written by a newer Rezzik (version ${newer}); this one reads up to version ${ARCHIVE_VERSION}.`,
    );
  }
  const about = aboutSchema.safeParse(value);
  if (!about.success) throw refused('This zip file is no archive of Rezzik.');
  return about.data;
}

async function readTold(zip: ZipFile, entries: ReadonlyMap<string, Entry>) {
  const entry = entries.get(MANIFEST);
  const text = await (entry ? read(zip, entry, mostBytes.manifest) : Promise.reject(new Damaged()))
    .then((bytes) => bytes.toString('utf8'))
    .catch(() => {
      throw refused('The manifest of this archive is damaged.');
    });
  const manifest = readManifest(text);
  const damaged = manifest.odd.map(({ line, why }) => ({
    entry: `${MANIFEST}, line ${line}`,
    why,
  }));
  const told = new Map<string, Told>();
  const named = new Set(manifest.lines.map(({ name }) => name));
  for (const { name, bytes, sha256 } of manifest.lines) {
    const entry = entries.get(name);
    const kind = entryKind(name);
    if (entry && kind && bytes > mostBytes[kind]) {
      damaged.push({ entry: name, why: 'it is larger than anything of its kind' });
    } else if (entry) told.set(name, { bytes, sha256, entry });
    else damaged.push({ entry: name, why: 'it is named in the manifest and missing' });
  }
  for (const name of entries.keys()) {
    if (name === MANIFEST || named.has(name)) continue;
    damaged.push({ entry: name.slice(0, 200), why: 'the manifest does not name it' });
  }
  return { told, damaged };
}

/** @throws Damaged unless every bit is as the manifest says */
async function unpacked(zip: ZipFile, told: Told): Promise<Buffer> {
  if (told.entry.uncompressedSize !== told.bytes) throw new Damaged(LENGTH);
  const all = await read(zip, told.entry, told.bytes);
  const sums = new Sums();
  for (let at = 0; at < all.length; at += PIECE) {
    sums.add(all.subarray(at, at + PIECE));
    if (all.length > PIECE) await loopTurn();
  }
  sums.check(told);
  return all;
}
const PIECE = 1_000_000;
const LENGTH = 'it is not as long as the manifest says';

/** The same, never held as a whole. @throws Damaged, what is wrong with the disk */
async function unpackedTo(zip: ZipFile, told: Told, path: string): Promise<void> {
  if (told.entry.uncompressedSize !== told.bytes) throw new Damaged(LENGTH);
  const file = await open(path, 'wx', 0o600);
  try {
    const sums = new Sums();
    for await (const part of parts(zip, told.entry, told.bytes)) {
      sums.add(part);
      await file.appendFile(part);
    }
    sums.check(told);
  } catch (error) {
    await unlink(path);
    throw error;
  } finally {
    await file.close();
  }
}

/** What is summed up of an entry while it comes. */
class Sums {
  private readonly hash = createHash('sha256');
  private crc = 0;

  add(piece: Buffer): void {
    this.hash.update(piece);
    this.crc = crc32(piece, this.crc);
  }

  /** @throws Damaged */
  check({ sha256, entry }: Told): void {
    if (this.crc !== entry.crc32) throw new Damaged('its checksum (CRC-32) is wrong');
    if (this.hash.digest('hex') !== sha256)
      throw new Damaged('it is not what the manifest says (SHA-256)');
  }
}

/** Never more than it says of itself, and never more than `most`. @throws Damaged */
async function* parts(zip: ZipFile, entry: Entry, most: number): AsyncGenerator<Buffer> {
  if (entry.uncompressedSize > most) throw new Damaged('it is larger than anything of its kind');
  let length = 0;
  const odd = (error: unknown): never => {
    throw new Damaged(`it cannot be read (${error instanceof Error ? error.message : 'damaged'})`);
  };
  const stream = await zip.openReadStreamPromise(entry).catch(odd);
  const pieces = (stream as AsyncIterable<Buffer>)[Symbol.asyncIterator]();
  try {
    for (;;) {
      const next = await pieces.next().catch(odd);
      if (next.done) return;
      length += next.value.length;
      if (length > most) throw new Damaged('it is larger than it says');
      yield next.value;
    }
  } finally {
    await pieces.return?.();
  }
}

async function read(zip: ZipFile, entry: Entry, most: number): Promise<Buffer> {
  const all: Buffer[] = [];
  for await (const part of parts(zip, entry, most)) all.push(part);
  return Buffer.concat(all);
}

function parsed<T extends z.ZodType>(bytes: Buffer, schema: T): z.output<T> {
  let value: unknown;
  try {
    value = JSON.parse(bytes.toString('utf8'));
  } catch {
    throw new Damaged('it is no JSON');
  }
  const fit = schema.safeParse(value);
  if (fit.success) return fit.data;
  throw new Damaged(issueWords(fit.error));
}
