// The data folder holds people's screens: it is its owner's alone, whatever the umask.

import { chmodSync, chownSync, lstatSync, mkdirSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const OTHERS = 0o077;

/** Below it: the database has its own owner, and kept copies are as open as their folder. */
const apart = (name) => name.startsWith('postgres') || name === 'kept';

function close(path) {
  const facts = lstatSync(path);
  if (facts.isSymbolicLink()) return;
  if (facts.mode & OTHERS) chmodSync(path, facts.mode & 0o700);
  if (!facts.isDirectory()) return;
  for (const name of readdirSync(path)) close(join(path, name));
}

/**
 * Makes the data folder where it is missing, and closes it and what lies in it to everybody else.
 * @param passer the user that the database runs as when that is another one: its group may pass
 *   through the folder, and see nothing of it
 */
export function makePrivate(data, passer = null) {
  mkdirSync(data, { recursive: true, mode: 0o700 });
  if (passer) chownSync(data, process.getuid(), passer.gid);
  chmodSync(data, passer ? 0o710 : 0o700);
  mkdirSync(join(data, 'kept'), { recursive: true, mode: 0o700 });
  for (const name of readdirSync(data)) if (!apart(name)) close(join(data, name));
}
