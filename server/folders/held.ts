import { constants, existsSync } from 'node:fs';
import { chmod, mkdir, open, stat, type FileHandle } from 'node:fs/promises';
import { dirname, join, relative, sep } from 'node:path';
import { errorCode } from '../base/errorCode';
import { allowedPath, rootOf } from './place';

/** Where Linux shows what a process holds open (proc(5)); a name below it starts from there. */
const OPEN = '/proc/self/fd';

/** Opens a folder for nothing but being gone through (open(2)); Node has no name for it. */
const O_PATH = 0o10000000;
const THROUGH = O_PATH | constants.O_DIRECTORY | constants.O_NOFOLLOW;

/**
 * A folder that is held open: what is done through it stays in it, even when its name leads
 * elsewhere meanwhile, because somebody put a link in its place.
 */
export interface HeldFolder {
  /** The folder's name as it is kept. */
  path: string;
  /** A name in it, for the system. */
  at: (name: string) => string;
  close: () => Promise<void>;
}

const held = (path: string, handle: FileHandle): HeldFolder => ({
  path,
  at: (name) => (existsSync(OPEN) ? `${OPEN}/${handle.fd}/${name}` : join(path, name)),
  close: () => handle.close(),
});

/** Of a folder's permissions, what one made in it gets: never for all to write. */
const LIKE_ABOVE = 0o775;

/** Makes a folder where none is. @returns false when something is there */
const made = (place: string): Promise<boolean> =>
  mkdir(place).then(
    () => true,
    (error: unknown) => {
      if (errorCode(error) === 'EEXIST') return false;
      throw error;
    },
  );

/** The folder of a name in a held one; a link in its place is refused by the system itself. */
async function into(above: HeldFolder, name: string, make: boolean): Promise<HeldFolder> {
  const isNew = make && (await made(above.at(name)));
  const folder = held(join(above.path, name), await open(above.at(name), THROUGH));
  if (!isNew) return folder;
  // By what is held, not by its name: that may lead elsewhere by now.
  const [own, its] = await Promise.all([stat(folder.at('.')), stat(above.at('.'))]);
  // A group that is passed on stays so; some file systems have no permissions.
  const mode = (own.mode & 0o7000) | (its.mode & LIKE_ABOVE);
  await chmod(folder.at('.'), mode).catch(() => undefined);
  return folder;
}

/** Goes from a held folder into the one below it by these names, and lets go of those between. */
async function down(
  from: HeldFolder,
  names: readonly string[],
  make: boolean,
): Promise<HeldFolder> {
  let folder = from;
  for (const name of names) {
    const above = folder;
    try {
      folder = await into(above, name, make);
    } finally {
      if (above !== from) await above.close();
    }
  }
  return folder;
}

/** Step by step from the root that a path lies in. @throws Fault 400, what the system says */
async function fromRoot(wanted: string, make: boolean): Promise<HeldFolder> {
  const path = await allowedPath(wanted);
  const top = rootOf(path) ?? dirname(path);
  if (make) await mkdir(top, { recursive: true });
  // The root itself is what the person named, wherever that leads.
  const root = held(top, await open(top, O_PATH | constants.O_DIRECTORY));
  const names = relative(top, path).split(sep).filter(Boolean);
  if (names.length === 0) return root;
  try {
    return { ...(await down(root, names, make)), path };
  } finally {
    await root.close();
  }
}

/**
 * Opens a folder that copies may be put in.
 * @throws Fault 400 outside the roots or through a link; what the system says
 */
export const holdFolder = (path: string): Promise<HeldFolder> => fromRoot(path, false);

/** Makes a folder and those on the way to it, each as open as the one it lies in. @throws the same */
export const makePlace = async (path: string): Promise<void> =>
  (await fromRoot(path, true)).close();

/** Does something in a folder below a held one, made where it is missing, and lets go of it. */
export async function below<T>(
  folder: HeldFolder,
  names: readonly string[],
  act: (folder: HeldFolder) => Promise<T>,
): Promise<T> {
  if (names.length === 0) return act(folder);
  const inner = await down(folder, names, true);
  try {
    return await act(inner);
  } finally {
    await inner.close();
  }
}

/** Does something in a folder that copies may be put in, held meanwhile. */
export async function inFolder<T>(
  path: string,
  act: (folder: HeldFolder) => Promise<T>,
): Promise<T> {
  const folder = await holdFolder(path);
  try {
    return await act(folder);
  } finally {
    await folder.close();
  }
}
