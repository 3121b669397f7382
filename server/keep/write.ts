import { randomUUID } from 'node:crypto';
import { link, open, rename, stat, unlink, type FileHandle } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { errorCode } from '../base/errorCode';

export interface Part {
  path: string;
}

/** Where bytes are written first: beside their later place, under a name nobody else has. */
export const partIn = (folder: string): Part => ({
  path: join(folder, `.rezzik-${randomUUID()}.part`),
});

/** Of a folder's permissions, what a file in it gets: never to be run, never for all to write. */
const FOR_FILES = 0o664;

/** Who may enter a folder may read what is kept in it, whatever this process writes otherwise. */
async function likeItsFolder(file: FileHandle, folder: string): Promise<void> {
  const { mode } = await stat(folder);
  // Some file systems have no permissions; what they give then is theirs.
  await file.chmod(mode & FOR_FILES).catch(() => undefined);
}

/** Begins a part, for who may enter its folder. */
export async function openPart({ path }: Part): Promise<FileHandle> {
  const file = await open(path, 'wx', 0o600);
  try {
    await likeItsFolder(file, dirname(path));
    return file;
  } catch (error) {
    await file.close();
    throw error;
  }
}

/** Writes the bytes of a part and makes sure they are on the disk. */
export async function writePart(part: Part, bytes: Uint8Array): Promise<void> {
  const file = await openPart(part);
  try {
    await file.writeFile(bytes);
    await file.sync();
  } finally {
    await file.close();
  }
}

/**
 * Gives a written part its name, if that is free. Never overwrites: a hard link fails when the
 * name is taken; where there are no hard links, an exclusively made placeholder holds the name.
 * @returns false when the name is taken
 */
export async function placePart(part: Part, target: string): Promise<boolean> {
  try {
    await link(part.path, target);
    await unlink(part.path);
    return true;
  } catch (error) {
    if (errorCode(error) === 'EEXIST') return false;
    if (!['EPERM', 'ENOTSUP', 'EOPNOTSUPP', 'ENOSYS', 'EMLINK'].includes(errorCode(error))) {
      throw error;
    }
  }
  return placeByRename(part, target);
}

/** A placeholder, made only where nothing is, holds the name until the part takes it. */
async function placeByRename(part: Part, target: string): Promise<boolean> {
  const holder = await open(target, 'wx').catch((error: unknown) => {
    if (errorCode(error) === 'EEXIST') return null;
    throw error;
  });
  if (!holder) return false;
  try {
    // The name of the part in it tells a later start that this is a placeholder.
    await holder.writeFile(basename(part.path)).finally(() => holder.close());
    await rename(part.path, target);
    return true;
  } catch (error) {
    await unlink(target);
    throw error;
  }
}

/** Makes a new name in a folder last through a power cut, where the file system can. */
export async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r').catch(() => null);
  await handle?.sync().catch(() => undefined);
  await handle?.close();
}

/** Writes a new file, whole or not at all and never over another. @returns false when the name is taken */
export async function writeWhole(path: string, bytes: Uint8Array): Promise<boolean> {
  const part = partIn(dirname(path));
  try {
    await writePart(part, bytes);
    return await placePart(part, path);
  } finally {
    await dropPart(part);
  }
}

export const dropPart = (part: Part): Promise<void> => unlink(part.path).catch(() => undefined);
