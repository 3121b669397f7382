import type { Shot } from '@/core/contracts/shot';
import { nameFactsOf } from '@/core/keep/nameFacts';
import { hasNumber, pathFrom } from '@/core/naming/pattern';
import { numbered } from '@/core/naming/safeName';
import type { MadePicture } from '../../api/picture';
import { nextNumber, type BrowserFolder } from './folders';

const MOST_NAMES = 10_000;

const named = (error: unknown): string => (error instanceof DOMException ? error.name : '');

/** What the browser's refusal means. */
function inWords(error: unknown, { name }: BrowserFolder): Error {
  const words: Record<string, string> = {
    NotAllowedError: `The browser may not write into “${name}”. Try again and allow it.`,
    NoModificationAllowedError: `“${name}” cannot be written into now.`,
    NotFoundError: `The folder “${name}” is not there any more.`,
    QuotaExceededError: `There is no space left in “${name}”.`,
  };
  const known = words[named(error)];
  return known ? new Error(known) : error instanceof Error ? error : new Error(String(error));
}

/**
 * Asks whether the folder may still be written into: browsers forget that from one visit to the
 * next. Must be called soon after a click, or the browser does not ask.
 * @throws Error in plain words
 */
export async function allowWriting(folder: BrowserFolder): Promise<void> {
  const wish = { mode: 'readwrite' } as const;
  const { handle } = folder;
  if ((await handle.queryPermission(wish)) === 'granted') return;
  const answer = await handle.requestPermission(wish).catch(() => 'denied');
  if (answer !== 'granted') throw inWords(new DOMException('', 'NotAllowedError'), folder);
}

/**
 * Writes a picture under a name that is free; nothing is overwritten.
 * @returns the path within the folder
 * @throws Error in plain words
 */
export async function writeInto(
  folder: BrowserFolder,
  shot: Shot,
  picture: MadePicture,
  { pattern, extension }: { pattern: string; extension: string },
): Promise<string> {
  const counts = hasNumber(pattern);
  const nameAt = async (attempt: number): Promise<string[]> => {
    const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
    const number = counts ? await nextNumber(folder.id) : 1;
    const parts = pathFrom(pattern, nameFactsOf(shot, picture, number, timeZone));
    const name = numbered(parts.pop() ?? 'shot', counts ? 1 : attempt);
    return [...parts, `${name}.${extension}`];
  };
  // The interface cannot make a file only where none is: one tab after the other looks first.
  return navigator.locks.request(`rezzik folder ${folder.id}`, async () => {
    try {
      for (let attempt = 1; attempt <= MOST_NAMES; attempt += 1) {
        const path = await nameAt(attempt);
        if (await writeAt(folder.handle, path, picture.blob)) return path.join('/');
      }
    } catch (error) {
      throw inWords(error, folder);
    }
    throw new Error('Every name that the pattern gives is taken.');
  });
}

/** @returns false when something of that name is there */
async function writeAt(
  root: FileSystemDirectoryHandle,
  path: readonly string[],
  blob: Blob,
): Promise<boolean> {
  let place = root;
  for (const part of path.slice(0, -1)) {
    place = await place.getDirectoryHandle(part, { create: true });
  }
  const name = path.at(-1) ?? '';
  if (await isThere(place, name)) return false;
  const file = await place.getFileHandle(name, { create: true });
  try {
    const writing = await file.createWritable();
    await writing.write(blob);
    // What is written stands in the file only from here on, all of it.
    await writing.close();
  } catch (error) {
    await place.removeEntry(name).catch(() => undefined);
    throw error;
  }
  return true;
}

async function isThere(place: FileSystemDirectoryHandle, name: string): Promise<boolean> {
  try {
    await place.getFileHandle(name);
    return true;
  } catch (error) {
    if (named(error) === 'NotFoundError') return false;
    if (named(error) === 'TypeMismatchError') return true;
    throw error;
  }
}
