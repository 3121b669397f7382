import type { Copy } from '@/core/contracts/folder';
import { folderFor } from '@/core/places/keep';
import { listFolders } from '../folders/folders';
import { keepCopy } from '../keep/copies';
import { wishOf, type Handed, type ServerPlace } from './contract';

export const keep: ServerPlace<'keep'> = (shot, { folderId }) => keepIn(shot, folderId);

/** Keeps a shot in a folder, null for the default one. */
export async function keepIn({ id, leaves }: Handed, folderId: string | null): Promise<Copy> {
  const folder = folderFor(await listFolders(), folderId);
  return keepCopy(id, { folderId: folder.id, ...wishOf(leaves) });
}
