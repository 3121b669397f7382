import { FolderDown } from 'lucide-react';
import { api } from '../../api/client';
import { browserFolder } from '../browser/folders';
import { keepInBrowser } from '../browser/keep';
import { allowWriting } from '../browser/write';
import { noWish } from '../wish';
import { onServer, type PagePlace } from './contract';

export const here: PagePlace<'here'> = {
  icon: FolderDown,
  async do(handed, { folderId }) {
    await onServer(handed);
    const folder = await browserFolder(folderId);
    if (!folder) throw new Error('Its folder is known to another browser only.');
    await allowWriting(folder);
    const [shot, formats] = await Promise.all([api.shot(handed.id), api.formats()]);
    const { format, size } = handed.leaves;
    const path = await keepInBrowser(shot, folder, formats, { ...noWish, format, size });
    return { folder: folder.name, path };
  },
};
