import { access, constants } from 'node:fs/promises';
import { delimiter, join } from 'node:path';

/** Where the first of some programs lies that is there; null where none is. */
export async function onPath(...names: readonly string[]): Promise<string | null> {
  const folders = (process.env.PATH ?? '').split(delimiter).filter(Boolean);
  for (const name of names) {
    for (const folder of folders) {
      const path = join(folder, name);
      const there = await access(path, constants.X_OK).then(
        () => true,
        () => false,
      );
      if (there) return path;
    }
  }
  return null;
}
