import { randomUUID } from 'node:crypto';
import { link, open, rename, unlink } from 'node:fs/promises';
import { join } from 'node:path';
import { errorCode } from '../errorCode';

export interface Part {
  path: string;
}

/** Writes bytes beside their later place and makes sure they are on the disk. */
export async function writePart(folder: string, bytes: Uint8Array): Promise<Part> {
  const path = join(folder, `.rezzik-${randomUUID()}.part`);
  const file = await open(path, 'wx', 0o644);
  try {
    await file.writeFile(bytes);
    await file.sync();
  } catch (error) {
    await unlink(path).catch(() => undefined);
    throw error;
  } finally {
    await file.close();
  }
  return { path };
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
  try {
    await (await open(target, 'wx')).close();
  } catch (error) {
    if (errorCode(error) === 'EEXIST') return false;
    throw error;
  }
  await rename(part.path, target);
  return true;
}

/** Makes a new name in a folder last through a power cut, where the file system can. */
export async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r');
  await handle.sync().catch(() => undefined);
  await handle.close();
}

export const dropPart = (part: Part): Promise<void> => unlink(part.path).catch(() => undefined);
