import { createHash, randomUUID } from 'node:crypto';
import { numbered } from '@/core/naming/safeName';
import { davAt, type Dav, type To } from './dav';
import type { Patience } from './exchange';
import { namesIn } from './listing';
import { inWords, problemOf, RemoteProblem } from './problems';

/** How a remote folder keeps a name from being taken twice: by a header, by moving, or not at all. */
export type Guard = 'header' | 'move' | 'none';

const MOST_NAMES = 1_000;
/** The only answers that mean: it is stored (RFC 4918, §9.7; RFC 9110, §9.3.4). */
const STORED = [201, 204];
/** The name is taken: nothing was overwritten (RFC 9110, §13.1.2; RFC 4918, §9.9.4). */
const TAKEN = 412;

const FRESH = { 'If-None-Match': '*' };

export interface Sent {
  name: string;
  guard: Guard;
}

interface Sending {
  /** With its subfolders. */
  name: string;
  bytes: Uint8Array;
  /** How this remote keeps from overwriting, as far as known. */
  guard: Guard | null;
  /** The name that was being written when the last try broke off. */
  trying: string | null;
  /** Writes down the name before it is written at the other end. */
  note: (name: string) => Promise<void>;
  signal: AbortSignal;
  patience?: Patience;
}

/**
 * Puts a file into a remote folder under a name that is free there: nothing is overwritten, a taken
 * name gets the next number. A file whose answer was lost is found again and not sent twice.
 * @returns the name it got, and how the remote keeps from overwriting
 * @throws RemoteProblem
 */
export async function sendFile(to: To, sending: Sending): Promise<Sent> {
  const { name, bytes, trying, note, signal, patience } = sending;
  try {
    const dav = davAt(to, signal, patience);
    const parts = name.split('/');
    const file = parts.pop() ?? name;
    await makeFolders(dav, parts);
    const guard = sending.guard ?? (await probe(dav, parts));
    if (trying && (await isThere(dav, trying, bytes))) return { name: trying, guard };
    const [, stem = file, extension = ''] = /^(.*?)(\.[^.]*)?$/.exec(file) ?? [];
    const taken = await namesIn(dav, parts);
    for (let attempt = 1; attempt <= MOST_NAMES; attempt += 1) {
      const name = `${numbered(stem, attempt)}${extension}`;
      if (taken.has(name)) continue;
      const free = [...parts, name].join('/');
      if (guard !== 'header' && (await exists(dav, free))) continue;
      await note(free);
      if (await write[guard](dav, parts, free, bytes)) return { name: free, guard };
    }
  } catch (error) {
    throw inWords(error);
  }
  throw new RemoteProblem('Every name is taken in the remote folder.');
}

async function makeFolders(dav: Dav, parts: readonly string[]): Promise<void> {
  let path = '';
  for (const part of parts) {
    path += `/${part}`;
    // Some servers make a folder only where the name ends like one.
    const { status } = await dav.ask({ method: 'MKCOL', path: `${path}/` });
    if (![201, 405].includes(status)) throw problemOf(status);
  }
}

async function put(dav: Dav, path: string, bytes: Uint8Array, headers = {}): Promise<boolean> {
  const { status } = await dav.ask({ method: 'PUT', path: `/${path}`, headers, body: bytes });
  if (status === TAKEN) return false;
  if (!STORED.includes(status)) throw problemOf(status);
  return true;
}

async function move(dav: Dav, from: string, to: string): Promise<boolean> {
  const headers = { Destination: dav.address(`/${to}`), Overwrite: 'F' };
  const { status } = await dav.ask({ method: 'MOVE', path: `/${from}`, headers });
  if (status === TAKEN) return false;
  if (!STORED.includes(status)) throw problemOf(status);
  return true;
}

const remove = (dav: Dav, path: string): Promise<unknown> =>
  dav.ask({ method: 'DELETE', path: `/${path}` }).catch(() => undefined);

async function exists(dav: Dav, path: string): Promise<boolean> {
  const { status } = await dav.ask({ method: 'HEAD', path: `/${path}` });
  if (status === 404) return false;
  if (status >= 200 && status < 300) return true;
  throw problemOf(status);
}

const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

async function isThere(dav: Dav, path: string, bytes: Uint8Array): Promise<boolean> {
  const { status, body } = await dav.ask({ method: 'GET', path: `/${path}`, most: bytes.length });
  return status === 200 && body.length === bytes.length && hashOf(body) === hashOf(bytes);
}

const own = (parts: readonly string[]): string =>
  [...parts, `rezzik-${randomUUID()}.part`].join('/');

/** How a file gets its name, by what the remote heeds. @returns false when the name is taken */
const write: Record<
  Guard,
  (dav: Dav, parts: readonly string[], name: string, bytes: Uint8Array) => Promise<boolean>
> = {
  header: (dav, _, name, bytes) => put(dav, name, bytes, FRESH),
  move: async (dav, parts, name, bytes) => {
    const part = own(parts);
    try {
      await put(dav, part, bytes);
      const moved = await move(dav, part, name);
      if (!moved) await remove(dav, part);
      return moved;
    } catch (error) {
      await remove(dav, part);
      throw error;
    }
  },
  // Asked before; between the asking and the writing nothing keeps others out.
  none: (dav, _, name, bytes) => put(dav, name, bytes, FRESH),
};

const PROBE = Buffer.from('Rezzik asks whether a file would be overwritten here.\n');

/** Finds out, with files of our own that are removed again, what keeps a name from being taken twice. */
async function probe(dav: Dav, parts: readonly string[]): Promise<Guard> {
  const [a, b] = [own(parts), own(parts)];
  try {
    await put(dav, a, PROBE, FRESH);
    if (!(await put(dav, a, PROBE, FRESH))) return 'header';
    await put(dav, b, PROBE);
    const moved = await move(dav, b, a).catch(() => null);
    return moved === false ? 'move' : 'none';
  } finally {
    await Promise.all([remove(dav, a), remove(dav, b)]);
  }
}

/** Tries a remote folder when it is set up. @throws RemoteProblem when it cannot be reached */
export async function tryOut(to: To, signal: AbortSignal, patience?: Patience): Promise<Guard> {
  try {
    return await probe(davAt(to, signal, patience), []);
  } catch (error) {
    throw inWords(error);
  }
}
