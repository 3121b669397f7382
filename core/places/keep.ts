import { z } from 'zod';
import { place } from './contract';

/** A folder. */
export const keep = place({
  /** Null means the default folder, whichever that is then. */
  step: z.strictObject({ do: z.literal('keep'), folderId: z.uuid().nullable() }),
  label: () => 'Keep in a folder',
  said: ({ path }: { path: string }) => `Kept: ${path}`,
  failing: 'Not kept in a folder.',
});

/** The folder a step means. @throws Error in words for the person */
export function folderFor<F extends { id: string; isDefault: boolean }>(
  folders: readonly F[],
  folderId: string | null,
): F {
  const folder = folders.find((f) => (folderId ? f.id === folderId : f.isDefault));
  if (folder) return folder;
  throw new Error(folderId ? 'Its folder is gone.' : 'No default folder is set up yet.');
}
