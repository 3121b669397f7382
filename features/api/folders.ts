import {
  copiesSchema,
  copySchema,
  folderSchema,
  foldersSchema,
  placesSchema,
  type Copy,
  type Folder,
  type FolderInput,
  type Places,
} from '@/core/contracts/folder';
import { programsSchema, type Programs } from '@/core/contracts/program';
import { ask, read, sent, shotPath } from './ask';
import type { PictureWish } from './picture';

export interface CopyWish extends Partial<PictureWish> {
  folderId: string;
  name?: string;
}

/** What is asked of the server about folders, copies and programs. */
export const foldersApi = {
  programs: (): Promise<Programs> => read(programsSchema, '/api/programs'),
  openCopy: (id: string, program: string) =>
    ask(`/api/copies/${id}/open`, sent('POST', { program })),
  copies: async (id: string): Promise<Copy[]> =>
    (await read(copiesSchema, `${shotPath(id)}/copies`)).copies,
  keep: (id: string, wish: CopyWish): Promise<Copy> =>
    read(copySchema, `${shotPath(id)}/copies`, sent('POST', wish)),
  folders: () => read(foldersSchema, '/api/folders'),
  places: (path: string): Promise<Places> =>
    read(placesSchema, `/api/folders/places?path=${encodeURIComponent(path)}`),
  addFolder: (input: FolderInput): Promise<Folder> =>
    read(folderSchema, '/api/folders', sent('POST', input)),
  changeFolder: (id: string, patch: Partial<FolderInput> & { confirmed?: true }): Promise<Folder> =>
    read(folderSchema, `/api/folders/${id}`, sent('PATCH', patch)),
  removeFolder: (id: string) => ask(`/api/folders/${id}`, { method: 'DELETE' }),
};
