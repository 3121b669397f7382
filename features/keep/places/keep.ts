import { FolderDown } from 'lucide-react';
import type { Copy } from '@/core/contracts/folder';
import { folderFor } from '@/core/places/keep';
import { api } from '../../api/client';
import { onServer, wishOf, type Handed, type PagePlace } from './contract';

export const keep: PagePlace<'keep'> = {
  icon: FolderDown,
  do: (shot, { folderId }) => keepIn(shot, folderId),
};

/** Keeps a shot in a folder, null for the default one. */
export async function keepIn(shot: Handed, folderId: string | null): Promise<Copy> {
  await onServer(shot);
  const { folders } = await api.folders();
  const { id } = folderFor(folders, folderId);
  return api.keep(shot.id, { folderId: id, ...wishOf(shot.leaves) });
}
