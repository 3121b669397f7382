import { readdir } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Places } from '@/core/contracts/folder';
import { env } from '../base/env';
import { errorCode } from '../base/errorCode';
import { Fault } from '../base/fault';
import { inFolder } from './held';
import { allowedPath } from './place';

/** So many are listed; a folder with more is named by hand. */
const MOST = 500;

/**
 * The folders below a place, for choosing one: only inside the allowed roots, no links, nothing
 * hidden. @throws Fault 400 outside the roots, 404 when it is not there
 */
export async function browsePlaces(wanted: string): Promise<Places> {
  const path = await allowedPath(wanted);
  try {
    const entries = await inFolder(path, (folder) =>
      readdir(folder.at('.'), { withFileTypes: true }),
    );
    const names = entries
      .filter((entry) => entry.isDirectory() && !entry.name.startsWith('.'))
      .map((entry) => entry.name)
      .sort((a, b) => a.localeCompare(b))
      .slice(0, MOST);
    const above = env().roots.includes(path) ? null : dirname(path);
    return { path, above, folders: names.map((name) => ({ name, path: join(path, name) })) };
  } catch (error) {
    const words: Record<string, string> = {
      ENOENT: 'This folder is not there.',
      ENOTDIR: 'This is no folder.',
      EACCES: 'Rezzik may not look into this folder.',
    };
    throw new Fault(404, 'not-found', words[errorCode(error)] ?? 'This folder cannot be read.');
  }
}
