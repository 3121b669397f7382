import { constants } from 'node:fs';
import { access, lstat, readFile, realpath, stat, statfs } from 'node:fs/promises';
import { dirname, isAbsolute, join, normalize, relative, sep } from 'node:path';
import { env } from '../base/env';
import { errorCode } from '../base/errorCode';
import { Fault } from '../base/fault';

const inside = (path: string, root: string): boolean => {
  const way = relative(root, path);
  return way === '' || (!way.startsWith(`..${sep}`) && way !== '..' && !isAbsolute(way));
};

/** The deepest part of a path that is there. */
async function existingPart(path: string): Promise<string> {
  try {
    await lstat(path);
    return path;
  } catch (error) {
    if (errorCode(error) === 'ENAMETOOLONG') {
      throw new Fault(400, 'bad-path', 'A part of this path is longer than file systems allow.');
    }
    return path === dirname(path) ? path : existingPart(dirname(path));
  }
}

/** The allowed root that a path lies in; the nearest one where they lie in each other. */
export const rootOf = (path: string): string | undefined =>
  env()
    .roots.filter((root) => inside(path, root))
    .sort((a, b) => b.length - a.length)[0];

/** Hidden folders that are allowed: written by their owner in a file that the web cannot write. */
const hiddenFile = (): string => join(env().dataDir, 'hidden-folders');

/**
 * Programs keep their own things in hidden folders, and some start what lies there.
 * @throws Fault 400 when a folder on the way is hidden and not listed by its owner
 */
async function refuseHidden(path: string, root: string): Promise<void> {
  const parts = relative(root, path).split(sep);
  if (!parts.some((part) => part.startsWith('.'))) return;
  const listed = await readFile(hiddenFile(), 'utf8').catch(() => '');
  const allowed = listed.split('\n').map((line) => line.trim());
  if (allowed.some((one) => isAbsolute(one) && inside(path, one))) return;
  throw new Fault(
    400,
    'hidden',
    `This folder is hidden. If copies shall be kept there all the same, write its path into ${hiddenFile()}.`,
  );
}

/**
 * The path as it is kept, when copies may be put there: absolute, inside an allowed root, and not
 * reached through a link, so that it cannot be turned elsewhere later.
 * @throws Fault 400
 */
export async function allowedPath(wanted: string): Promise<string> {
  if (!isAbsolute(wanted)) {
    throw new Fault(400, 'bad-path', 'A folder needs its whole path, beginning with /.');
  }
  const path = join(normalize(wanted)).replace(/(.)\/+$/, '$1');
  const root = rootOf(path);
  if (!root) {
    throw new Fault(
      400,
      'outside-roots',
      `Copies may be kept in ${env().roots.join(' and ')} only. This path is outside.`,
    );
  }
  await refuseHidden(path, root);
  const there = await existingPart(path);
  const real = await realpath(there);
  const realRoot = inside(there, root) ? await realpath(root).catch(() => root) : real;
  const expected = inside(there, root) ? join(realRoot, relative(root, there)) : real;
  if (real !== expected) {
    throw new Fault(
      400,
      'through-link',
      `This path goes through a link. Its real place is ${real}.`,
    );
  }
  return path;
}

/** Why nothing can be kept in a folder now; null when all is well. */
export async function placeProblem(path: string): Promise<Fault | null> {
  try {
    await allowedPath(path);
    if (!(await stat(path)).isDirectory()) {
      return new Fault(409, 'not-a-folder', `${path} is a file, not a folder.`);
    }
    await access(path, constants.W_OK | constants.X_OK);
    return null;
  } catch (error) {
    return error instanceof Fault ? error : keepFault(error, path);
  }
}

/** Bytes that may still be written there; null where the system does not tell. */
export async function freeBytes(path: string): Promise<number | null> {
  try {
    const { bavail, bsize } = await statfs(path);
    return bavail * bsize;
  } catch {
    return null;
  }
}

/** What a failed write means, in plain words. */
export function keepFault(error: unknown, path: string): Fault {
  const reason = { reason: error instanceof Error ? error.message : String(error) };
  switch (errorCode(error)) {
    case 'ENOENT':
      return new Fault(409, 'folder-missing', `The folder ${path} is not there.`, reason);
    case 'ELOOP':
      return new Fault(409, 'through-link', `A part of ${path} is a link.`, reason);
    case 'ENOTDIR':
    case 'EEXIST':
      return new Fault(409, 'not-a-folder', `A part of ${path} is a file, not a folder.`, reason);
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
      return new Fault(409, 'folder-read-only', `Rezzik may not write into ${path}.`, reason);
    case 'ENOSPC':
    case 'EDQUOT':
      return new Fault(507, 'disk-full', `There is no space left for ${path}.`, reason);
    case 'ENAMETOOLONG':
      return new Fault(
        400,
        'name-too-long',
        'The file name is longer than this folder allows.',
        reason,
      );
    default:
      return new Fault(500, 'not-kept', `The copy could not be written into ${path}.`, reason);
  }
}
